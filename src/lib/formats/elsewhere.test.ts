/** Files from elsewhere, written after the formats' own documentation, with their oddities. */
import { describe, expect, test } from 'vitest';
import midi from '@tonejs/midi';
import { inBeats, pitchAt, STANDARD_NECK } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { summariseChart } from '$core/chart/summary';
import { readPlan } from '$lib/study/plan';
import { chartFile, openChart, OPENED_TYPES } from './charts';
import { DEFAULT_VIEW } from '$lib/study/view';
import { openPassage, PASSAGE_TYPES } from './passages';
import { lickOfPassage } from '$core/licks/lick';
import { chartOf } from '$tests/laws';

const open = async (content: string | Uint8Array) =>
  openChart(typeof content === 'string' ? new TextEncoder().encode(content) : content);
const opened = async (content: string | Uint8Array) => {
  const result = await open(content);
  if (!result.ok) throw new Error(result.message);
  return result;
};
/** The bars of a chart's text, without its headers. */
const barsOf = (text: string) =>
  text
    .split('\n')
    .filter((line) => line !== '' && !/^\w+: /u.test(line))
    .join(' / ');
const headersOf = (text: string) => text.split('\n').filter((line) => /^\w+: /u.test(line));

const ABC = (head: string, music: string) => `X:1\n${head}\n${music}\n`;

describe('ABC', () => {
  test.each([
    [
      'repeats and endings',
      'T:Gate\nM:4/4\nL:1/8\nK:G',
      '|: "G"G4 "C"c4 |1 "D7"d8 :|2 "G"G8 |]',
      '|: G C | [1] D7 :| [2] G |',
    ],
    [
      'a repeat that is never opened',
      'T:Gate\nM:4/4\nL:1/4\nK:C',
      '"C"c4 | "F"f4 :|',
      '|: C | F :|',
    ],
    ['double repeat signs', 'T:Gate\nM:4/4\nL:1/4\nK:C', '|: "C"c4 :: "F"f4 :|', '|: C :| |: F :|'],
    [
      'parts, each in a key of its own',
      'T:Gate\nM:4/4\nL:1/4\nK:C',
      'P:A\n"C"c4 |\nP:B\n[K:Am]"Am"A4 |',
      '[A] / | C | / [B] key: Am / | Am |',
    ],
    [
      'parts in the order in which they are played',
      'T:Gate\nP:A2B\nM:4/4\nL:1/4\nK:C',
      'P:A\n"C"c4 |\nP:B\n"F"f4 |',
      '[A] / | C | / [A] / | C | / [B] / | F |',
    ],
    [
      'flat and sharp signs of their own, words beside the chords',
      'T:Gate\nM:4/4\nL:1/4\nK:Bb',
      '"B♭maj7"B2 "^softly""F#dim7"^f2 | "Eb/G"e4 |',
      '| Bbmaj7 F#dim7 | Eb/G |',
    ],
    [
      'triplets and broken rhythm keep the bar',
      'T:Gate\nM:4/4\nL:1/8\nK:D',
      '"D"(3def a>b "G"g4 | "A7"a8 |',
      '| D G | A7 |',
    ],
    ['six eighths', 'T:Gate\nM:6/8\nL:1/8\nK:Em', '"Em"e3 "D"d3 | "C"c6 |', '| Em D | C |'],
    [
      'chords at odd moments',
      'T:Gate\nM:3/4\nL:1/4\nK:F',
      '"F"f "C7"c "F"f | "Bb"B3 |',
      '| F C7 F | Bb |',
    ],
    ['bars of rests', 'T:Gate\nM:4/4\nL:1/4\nK:C', '"C"z4 | "G7"Z | "C"c4 |', '| C | G7 | C |'],
    ['common time and cut time', 'T:Gate\nM:C|\nL:1/4\nK:C', '"C"c4 | "F"f4 |', '| C | F |'],
    ['a chord that goes on', 'T:Gate\nM:4/4\nL:1/4\nK:C', '"C"c4 | c4 | "F"f4 |', '| C | C | F |'],
  ])('%s', async (_, head, music, wanted) => {
    const { chart } = await opened(ABC(head, music));
    expect(barsOf(chart.text)).toBe(wanted);
    expect(readChart(chart.text).ok).toBe(true);
    expect(summariseChart(chart.text).title).toBe('Gate');
  });

  test('key, metre, tempo and feel', async () => {
    const { chart } = await opened(
      ABC('T:Gate\nR:swing\nM:3/4\nQ:1/4=132\nL:1/4\nK:Ador', '"Am7"A3 | "D7"d3 |'),
    );
    expect(headersOf(chart.text)).toEqual([
      'title: Gate',
      'key: A dorian',
      'time: 3/4',
      'tempo: 132',
      'feel: swing',
    ]);
  });

  test('the notes are its melody, wherever a bar is played, with the signs of the key', async () => {
    const { chart } = await opened(
      ABC('T:Gate\nM:4/4\nL:1/4\nK:G', '|: "G"g f e d :| "D7"=f2- f2 | "G"^c _d G, G |'),
    );
    const melody = readPlan(chart.plan ?? '').melody ?? [];
    const pitches = melody.map(({ string, fret }) => pitchAt(STANDARD_NECK, { string, fret }));
    // F is sharp by the key, natural by its sign, tied over; G below the middle C.
    expect(pitches).toEqual([79, 78, 76, 74, 79, 78, 76, 74, 77, 73, 73, 55, 67]);
    expect(melody.map(({ beat }) => beat)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 12, 13, 14, 15]);
    expect(melody[8]?.beats).toBe(4);
  });

  test('several tunes: each can be chosen', async () => {
    const { choices } = await opened(
      'X:1\nT:One\nM:4/4\nL:1/4\nK:C\n"C"c4|\n\nX:2\nT:Two\nM:3/4\nL:1/4\nK:F\n"F"f3|\n',
    );
    expect(choices?.map(({ text }) => [summariseChart(text).title, barsOf(text)])).toEqual([
      ['One', '| C |'],
      ['Two', '| F |'],
    ]);
  });

  test('what it cannot take is said', async () => {
    const said = async (head: string, music: string) =>
      (await opened(ABC(head, music))).chart.remarks.join(' ');
    expect(await said('T:A\nM:4/4\nL:1/4\nK:C', 'c4 | d4 |')).toContain('no chord symbols');
    expect(await said('T:A\nM:4/4\nL:1/4\nK:C', '"C"c4 | "Xyz"d4 |')).toContain('“Xyz” in bar 2');
    expect(await said('T:A\nM:4/4\nL:1/4\nK:C', 'c2 | "C"c4 | "F"f4 |')).toContain('pick-up');
    expect(await said('T:A\nM:4/4\nL:1/4\nK:C', 'V:1\n"C"c4 | "F"f4 |\nV:2\nC4 | F4 |')).toContain(
      '2 voices',
    );
    const empty = await open('X:1\nT:Nothing\nK:C\n');
    expect(empty).toMatchObject({ ok: false });
  });
});

describe('song sheets', () => {
  test.each([
    [
      'ChordPro',
      '{title: Gate}\n{key: G}\n[G]Over the [D/F#]river and\n[Em7]home',
      '| G | D/F# | Em7 |',
    ],
    [
      'short directives, sections and a chorus that is named again',
      '{t:Gate}\n{sov}\n[G]a [C]b\n{eov}\n{soc}\n[D]c\n{eoc}\n{chorus}',
      '[Verse] / | G | C | / [Chorus] / | D | / [Chorus] / | D |',
    ],
    [
      'a grid',
      '{title: Gate}\n{start_of_grid: label="Intro"}\n| G . . . | C . D . | % . . . |\n{end_of_grid}',
      '[Intro] / | G | C D | % |',
    ],
    [
      'tablature and comments are passed over',
      '# mine\n{title: Gate}\n{sot}\ne|--3--C--|\n{eot}\n{comment: softly}\n[G]a',
      '| G |',
    ],
    ['annotations are no chords', '{title: Gate}\n[*slowly] [G]a [(C)]b [D*]c', '| G | C | D |'],
    ['bar lines within the words', '{title: Gate}\n| [G]over the | [C]ri[D]ver |', '| G | C D |'],
    [
      'chords in a line over the words',
      'Gate\n\nVerse 1\nG      D/F#   Em7\nover the river\n\nChorus:\nC   G\nhome',
      '[Verse 1] / | G | D/F# | Em7 | / [Chorus] / | C | G |',
    ],
    [
      'headings in brackets',
      'Gate\n\n[Intro]\nAm F\n\n[Verse 2]\nC   G\nwords here',
      '[Intro] / | Am | F | / [Verse 2] / | C | G |',
    ],
    ['a line that is repeated', 'Gate\n\nC  F  x3\nla la', '|: C | F :| x3'],
    ['repeat signs', 'Gate\n\nwords\n|: C  F | G :| x4\nmore words\nD\nla', '|: C F | G :| x4 D |'],
    ['German names', 'Gate\n\nHm7   E7   B\nein paar Worte', '| Bm7 | E7 | Bb |'],
    ['Windows line ends', '{title: Gate}\r\n[G]a\r\n[C]b\r\n', '| G | C |'],
    ['silence', 'Gate\n\nC  N.C.  F\nwords', '| C | N.C. | F |'],
  ])('%s', async (_, content, wanted) => {
    const { chart } = await opened(content);
    expect(barsOf(chart.text)).toBe(wanted);
    expect(summariseChart(chart.text).title).toBe('Gate');
    expect(readChart(chart.text).ok).toBe(true);
  });

  test('what it cannot say is said', async () => {
    const said = async (content: string) => (await opened(content)).chart.remarks.join(' ');
    expect(await said('{title: A}\n[G]a')).toContain('each has a bar');
    expect(await said('{title: A}\n{capo: 3}\n[G]a')).toContain('capo on fret 3');
    expect(await said('{title: A}\n[G]a [Xq]b')).toContain('“Xq” is no chord');
    expect(await said('A\n\nHm E\nWorte')).toContain('H is read as B');
    expect(await open('{title: A}\nonly words')).toMatchObject({ ok: false });
  });

  test('a chart with a slip stays a chart', async () => {
    const text = 'title: Gate\n| C | F :|\nkey: Q\n';
    expect(await open(text)).toMatchObject({ ok: true, chart: { text } });
  });
});

/** A measure of a score with a chord over a whole note. */
const measure = (number: number, root: string, kind: string, extra = '') =>
  `<measure number="${number}">${extra}<harmony><root><root-step>${root.charAt(0)}</root-step>${root.endsWith('b') ? '<root-alter>-1</root-alter>' : ''}</root><kind>${kind}</kind></harmony>${note('C', 5)}</measure>`;
const note = (step: string, octave: number, duration = 4) =>
  `<note><pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>${duration}</duration><type>whole</type></note>`;
const ATTRIBUTES =
  '<attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
const score = (parts: readonly (readonly [name: string, measures: string])[]) =>
  `<?xml version="1.0"?><score-partwise version="3.1"><work><work-title>Gate</work-title></work><part-list>${parts
    .map(
      ([name], index) => `<score-part id="P${index}"><part-name>${name}</part-name></score-part>`,
    )
    .join('')}</part-list>${parts
    .map(([, measures], index) => `<part id="P${index}">${measures}</part>`)
    .join('')}</score-partwise>`;

describe('scores', () => {
  test('a key of no signs that the chords contradict is said, and theirs is written', async () => {
    const flat = ['Eb', 'Ab', 'Bb', 'Eb', 'Ab', 'Bb', 'Eb', 'Eb'];
    const kinds = ['major', 'major', 'dominant', 'major', 'major', 'dominant', 'major', 'major'];
    const { chart } = await opened(
      score([
        [
          'Voice',
          flat
            .map((root, index) =>
              measure(index + 1, root, kinds[index] ?? '', index === 0 ? ATTRIBUTES : ''),
            )
            .join(''),
        ],
      ]),
    );
    expect(headersOf(chart.text)).toContain('key: Eb');
    expect(chart.remarks.join(' ')).toContain('The score says C major');
    // In C it stays, without a word.
    const { chart: plain } = await opened(
      score([
        [
          'Voice',
          ['C', 'F', 'G', 'C']
            .map((root, index) => measure(index + 1, root, 'major', index === 0 ? ATTRIBUTES : ''))
            .join(''),
        ],
      ]),
    );
    expect(headersOf(plain.text)).toContain('key: C');
    expect(plain.remarks).toEqual([]);
  });

  test('chords stand in one part, the melody in whichever is chosen', async () => {
    const rows = ['C', 'F', 'G', 'C'];
    const { choices } = await opened(
      score([
        [
          'Keys',
          rows
            .map((root, index) => measure(index + 1, root, 'major', index === 0 ? ATTRIBUTES : ''))
            .join(''),
        ],
        [
          'Flute',
          rows
            .map(
              (_, index) =>
                `<measure number="${index + 1}">${index === 0 ? ATTRIBUTES : ''}${note('E', 5, 2)}${note('G', 5, 2)}</measure>`,
            )
            .join(''),
        ],
      ]),
    );
    expect(choices?.map(({ label }) => label)).toEqual(['Flute', 'Keys', 'no melody']);
    expect(new Set(choices?.map(({ text }) => barsOf(text)))).toEqual(
      new Set(['| C | F | G | C |']),
    );
    const counts = choices?.map(({ plan }) => readPlan(plan ?? '').melody?.length ?? 0);
    expect(counts).toEqual([8, 4, 0]);
  });

  test('notes off the neck are moved by octaves, and that is said', async () => {
    const high = score([
      ['Flute', `<measure number="1">${ATTRIBUTES}${note('C', 8, 2)}${note('E', 8, 2)}</measure>`],
    ]);
    const read = await openPassage(new TextEncoder().encode(high), STANDARD_NECK);
    expect(read).toMatchObject({ ok: true, remarks: [expect.stringContaining('octaves lower')] });
  });
});

/** A MIDI file of chords, each a bar long unless it says otherwise. */
function midiOf(chords: readonly (readonly number[])[], beats = 4): Uint8Array {
  const file = new midi.Midi();
  file.header.setTempo(120);
  const track = file.addTrack();
  const bar = file.header.ppq * beats;
  for (const [index, pitches] of chords.entries())
    for (const pitch of pitches)
      track.addNote({ midi: pitch, ticks: index * bar, durationTicks: bar * 0.95 });
  return file.toArray();
}

describe('MIDI', () => {
  test('its chords are worked out from the notes, and named as a guess', async () => {
    const { chart } = await opened(
      midiOf([
        [50, 57, 60, 65],
        [43, 59, 62, 65],
        [48, 52, 59, 67],
        [45, 52, 60, 64],
        [53, 57, 60],
        [47, 50, 53, 56],
      ]),
    );
    expect(barsOf(chart.text)).toBe('| Dm7 | G7 | Cmaj7 | Am | / | F | Bdim7 |');
    expect(chart.remarks.join(' ')).toContain('a guess');
    expect(headersOf(chart.text)).toContain('tempo: 120');
  });

  test('two chords in a bar, and a melody over one', async () => {
    const file = new midi.Midi();
    const track = file.addTrack();
    const beat = file.header.ppq;
    for (const [ticks, pitches] of [
      [0, [48, 52, 55]],
      [2 * beat, [43, 50, 59]],
    ] as const)
      for (const pitch of pitches) track.addNote({ midi: pitch, ticks, durationTicks: 2 * beat });
    const top = file.addTrack();
    [72, 74, 76, 74].forEach((pitch, index) =>
      top.addNote({ midi: pitch, ticks: (4 + index) * beat, durationTicks: beat }),
    );
    for (const pitch of [53, 57, 60])
      track.addNote({ midi: pitch, ticks: 4 * beat, durationTicks: 4 * beat });
    const { chart } = await opened(file.toArray());
    expect(barsOf(chart.text)).toBe('| C G | F |');
  });

  test('without notes it is refused in words', async () => {
    expect(await open(new midi.Midi().toArray())).toMatchObject({ ok: false });
  });
});

describe('out and in again', () => {
  const TEXT =
    'title: Gate\nkey: Eb\ntime: 4/4\ntempo: 96\n[A]\n|: Ebmaj7 | Cm7 F7 | [1] Bb7 :| [2] Ebmaj7 |\n[B] x2 key: Cm\n| Fm7 / / G7 | % | N.C. |\n';
  const played = (text: string) => {
    const read = readChart(text);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    return read.chart.chords.map(({ chord, beat, beats }) => [chord.symbol, beat, beats]);
  };
  test.each(['abc', 'chordpro'] as const)(
    '%s gives the same chords at the same beats',
    async (format) => {
      const file = await chartFile({ text: TEXT, plan: '', view: DEFAULT_VIEW }, format);
      if (!file) throw new Error('not written');
      const { chart } = await opened(new Uint8Array(await file.arrayBuffer()));
      expect(played(chart.text)).toEqual(played(TEXT));
      expect(headersOf(chart.text)).toEqual(
        expect.arrayContaining(['title: Gate', 'key: Eb', 'tempo: 96']),
      );
    },
  );
});

describe('a chart opened as a lick', () => {
  const opened = async (text: string) => {
    const read = await openPassage(new TextEncoder().encode(text), STANDARD_NECK);
    if (!read.ok) throw new Error(read.message);
    return { notes: read.passage.notes.length, chart: lickOfPassage(read.passage, 'mine').chart };
  };
  const chordsOf = (text: string) =>
    chartOf(text).chords.map(({ beat, chord }) => `${inBeats(beat)} ${chord.symbol}`);

  test.each([
    'key: C\n| Dm7 G7 | C6 | Am7 / / D7 |',
    // Off the beat, more of them than beats, and after the last note.
    '| C Dm7 Em7 F G Am7 Bdim C |',
    'time: 3/4\n| C F | G |',
    'time: 7/8\n| C / / F / G / | N.C. | Bb |',
    '|: C | [1] F | G7 :| [2] Am | D7 |',
    'key: F\n| I | vi ii7 V7 |',
  ])('%s keeps its chords where they are', async (text) => {
    const { chart, notes } = await opened(text);
    expect(notes).toBe(0);
    expect(chordsOf(chart)).toEqual(chordsOf(text));
  });

  test('an ABC tune keeps its notes besides', async () => {
    const tune = 'X:1\nT:One\nM:4/4\nL:1/8\nK:C\n"Dm7"D2F2 "G7"GABd|"C6"c8|"Am7"z8|"D7"z8|\n';
    const { chart, notes } = await opened(tune);
    expect(notes).toBe(7);
    expect(chordsOf(chart)).toEqual(['0 Dm7', '2 G7', '4 C6', '8 Am7', '12 D7']);
  });

  test('every file that is opened as a chart may be chosen as a lick', () => {
    const chosen = PASSAGE_TYPES.split(',');
    for (const type of OPENED_TYPES.split(',').filter((one) => one.startsWith('.')))
      expect(chosen).toContain(type);
  });

  test('words are neither', async () => {
    const read = await openPassage(
      new TextEncoder().encode('Dear all,\nnothing here.'),
      STANDARD_NECK,
    );
    expect(read.ok).toBe(false);
  });
});
