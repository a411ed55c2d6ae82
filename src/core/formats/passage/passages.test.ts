import { valuesFor } from '../../time/noteValues';
import { asserts, MusicXML } from '@stringsync/musicxml';
import fc from 'fast-check';
import MIDIFile from 'midifile';
import { describe, expect, test } from 'vitest';
import { readChart } from '../../chart/form';
import { at } from '../../lists';
import { makeNeck } from '../../neck/instruments';
import { pitchAt, STANDARD_NECK } from '../../neck/neck';
import { note, pitchClass } from '../../notes/notes';
import { type Passage, passageOf, type PlayedNote, struck } from '../../phrases/passage';
import type { Technique } from '../../phrases/techniques';
import { readMidi } from './midi/read';
import { writeMidi } from './midi/write';
import { readPassage } from './musicxml/read';
import { writePassage } from './musicxml/write';
import { readXml } from '../musicxml/xml';
import { measuresOf } from '../../phrases/measures';
import { placePitches } from '../../licks/refinger';
import { readTab } from './tab/read';
import { writeTab } from './tab/write';
import { runs } from '$tests/laws';
import { BEAT, inBeats } from '../../time/units';

const chart = (() => {
  const result = readChart('title: Low Lamp\nkey: Dm\ntempo: 96\n| Dm7 | G7b9 Cmaj7 |');
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.chart;
})();

const played = (
  beat: number,
  beats: number,
  string: number,
  fret: number,
  name: string,
  ...techniques: readonly Technique[]
): PlayedNote =>
  struck({
    beat: Math.round(beat * BEAT),
    beats: Math.round(beats * BEAT),
    string,
    fret,
    note: note(name),
    chord: null,
    techniques,
  });

const KEY = { tonic: note('D'), mode: 'minor' } as const;
const techniquesIn = ({ notes }: Passage) => notes.map(({ techniques }) => techniques);

const LINE: Passage = passageOf(chart, KEY, STANDARD_NECK, 'Low Lamp', [
  played(0, 0.5, 4, 3, 'F'),
  played(0.5, 0.5, 4, 5, 'G', { kind: 'hammer-on' }),
  played(1, 1, 3, 2, 'A', { kind: 'bend', by: 2, release: true }),
  played(3, 2, 2, 1, 'C', { kind: 'vibrato' }),
  played(5, 1 / 3, 2, 0, 'B'),
  played(5 + 1 / 3, 1 / 3, 3, 2, 'A', { kind: 'pull-off' }),
  played(5 + 2 / 3, 1 / 3, 3, 1, 'G#', { kind: 'slide' }),
  // Two notes at once.
  played(6, 1.5, 3, 0, 'G'),
  played(6, 1.5, 2, 1, 'C'),
]);

/** What every format holds of a note. */
const plain = ({ notes, neck }: Passage) =>
  notes.map((one) => ({
    beat: one.beat,
    beats: one.beats,
    midi: pitchAt(neck, one),
    string: one.string,
    fret: one.fret,
  }));

const opened = (result: ReturnType<typeof readMidi>): Passage => {
  if (!result.ok) throw new Error(result.message);
  return result.passage;
};

/** Lines without overlaps on the grid of some subdivision. */
const lines = fc
  .record({
    per: fc.constantFrom(1, 2, 3, 4),
    slots: fc.array(
      fc.record({
        rest: fc.boolean(),
        length: fc.integer({ min: 1, max: 5 }),
        string: fc.integer({ min: 1, max: 6 }),
        fret: fc.integer({ min: 0, max: 15 }),
      }),
      { minLength: 1, maxLength: 24 },
    ),
  })
  .map(({ per, slots }): Passage => {
    let slot = 0;
    const notes: PlayedNote[] = [];
    for (const { rest, length, string, fret } of slots) {
      const midi = pitchAt(STANDARD_NECK, { string, fret });
      const name =
        ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'G#', 'A', 'Bb', 'B'][midi % 12] ?? 'C';
      if (!rest) notes.push(played(slot / per, length / per, string, fret, name));
      slot += length;
    }
    return passageOf(chart, KEY, STANDARD_NECK, 'Some line', notes);
  });

describe('rhythm', () => {
  test('values fill a stretch, and never cross a beat they did not begin', () => {
    const types = (start: number, length: number) =>
      valuesFor(start * BEAT, length * BEAT, 4).map(({ type }) => type);
    expect(types(0, 4)).toEqual(['whole']);
    expect(types(1 / 2, 1)).toEqual(['eighth', 'eighth']);
    const [triplet, ...more] = valuesFor(BEAT / 3, (2 * BEAT) / 3, 4);
    expect(triplet).toMatchObject({ inQuarters: (2 * BEAT) / 3, triplet: true });
    expect(more).toEqual([]);
    expect(types(0, 5 / 4)).toEqual(['quarter', '16th']);
  });

  test('every bar is full, whatever is played', () => {
    fc.assert(
      fc.property(lines, (passage) => {
        for (const { events, length } of measuresOf(passage)) {
          expect(events.reduce((sum, one) => sum + one.length, 0)).toBe(length);
          events.slice(1).forEach((event, index) => {
            const before = at(events, index);
            expect(event.start).toBe(before.start + before.length);
          });
        }
      }),
    );
  });
});

describe('MIDI', () => {
  test('comes back with pitches, times, strings and frets', () => {
    const back = opened(readMidi(writeMidi(LINE).content, STANDARD_NECK));
    expect(plain(back)).toEqual(plain(LINE));
    expect(back).toMatchObject({ title: 'Low Lamp', tempo: 96, time: { beats: 4, unit: 4 } });
    fc.assert(
      fc.property(lines, (passage) => {
        if (passage.notes.length === 0) return;
        expect(plain(opened(readMidi(writeMidi(passage).content, STANDARD_NECK)))).toEqual(
          plain(passage),
        );
      }),
      runs(60),
    );
  });

  test('is read by another library as a Standard MIDI File', () => {
    const bytes = writeMidi(LINE).content;
    const file = new MIDIFile(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length),
    );
    expect(file.header.getTicksPerBeat()).toBe(480);
    const events = file.getMidiEvents() as { subtype: number; param1: number; param2: number }[];
    const begun = events.filter(({ subtype, param2 }) => subtype === 0x9 && param2 > 0);
    expect(begun.map(({ param1 }) => param1).toSorted((a, b) => a - b)).toEqual(
      plain(LINE)
        .map(({ midi }) => midi)
        .toSorted((a, b) => a - b),
    );
  });

  test('without strings it is laid where the hand moves least', () => {
    const places = placePitches(STANDARD_NECK, [60, 62, 64, 65, 67]);
    const frets = places?.map(({ fret }) => fret) ?? [];
    expect(Math.max(...frets) - Math.min(...frets.filter((fret) => fret > 0))).toBeLessThanOrEqual(
      4,
    );
    expect(placePitches(STANDARD_NECK, [20])).toBeNull();
  });

  test.each([
    ['nothing', new Uint8Array()],
    ['noise', new Uint8Array([77, 84, 104, 100, 0, 0, 9, 9, 9])],
    ['a file without notes', writeMidi({ ...LINE, notes: [] }).content],
  ])('%s gets a sentence', (_, bytes) => {
    const result = readMidi(bytes, STANDARD_NECK);
    expect(!result.ok && result.message.endsWith('.')).toBe(true);
  });
});

describe('MusicXML with tablature', () => {
  test('comes back whole, articulations too', () => {
    const back = opened(readPassage(writePassage(LINE).content, STANDARD_NECK));
    expect(plain(back)).toEqual(plain(LINE));
    expect(techniquesIn(back)).toEqual(techniquesIn(LINE));
    expect(back.notes.map((one) => pitchClass(one.note))).toEqual(
      LINE.notes.map((one) => pitchClass(one.note)),
    );
    expect(back).toMatchObject({ title: 'Low Lamp', tempo: 96 });
    fc.assert(
      fc.property(lines, (passage) => {
        if (passage.notes.length === 0) return;
        expect(plain(opened(readPassage(writePassage(passage).content, STANDARD_NECK)))).toEqual(
          plain(passage),
        );
      }),
      runs(60),
    );
  });

  test('is a score to another parser: two staves, chords, tablature', () => {
    const parsed = MusicXML.parse(writePassage(LINE).content);
    const root = parsed.getRoot();
    expect(asserts.isScorePartwise(root)).toBe(true);
    const xml = writePassage(LINE).content;
    expect(xml).toContain('<sign>TAB</sign>');
    const document = readXml(xml);
    expect(document.ok).toBe(true);
    // Elements of a note stand in the order the schema asks for.
    const order =
      'chord pitch rest duration tie voice type dot accidental time-modification stem staff beam notations'.split(
        ' ',
      );
    const notes = document.ok ? allNamed(document.root, 'note') : [];
    expect(notes.length).toBeGreaterThan(10);
    for (const { children } of notes) {
      const ranks = children.map(({ name }) => order.indexOf(name));
      expect(ranks).not.toContain(-1);
      expect(ranks).toEqual(ranks.toSorted((a, b) => a - b));
    }
  });

  test('a score of notes alone is read too, and a bad one gets a sentence', () => {
    const one = `<score-partwise><part id="P1"><measure number="1"><attributes><divisions>2</divisions></attributes>
      <note><pitch><step>B</step><alter>-1</alter><octave>3</octave></pitch><duration>3</duration><voice>1</voice></note>
      <note><rest/><duration>1</duration></note>
      <note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration><tie type="start"/></note></measure>
      <measure number="2"><note><pitch><step>C</step><octave>4</octave></pitch><duration>2</duration><tie type="stop"/></note></measure></part></score-partwise>`;
    const { notes } = opened(readPassage(one, STANDARD_NECK));
    expect(notes.map(({ beat, beats }) => [inBeats(beat), inBeats(beats)])).toEqual([
      [0, 1.5],
      [2, 3],
    ]);
    for (const bad of ['', '<a/>', '<score-partwise/>', '<!DOCTYPE a [<!ENTITY b "c">]><a/>']) {
      const result = readPassage(bad, STANDARD_NECK);
      expect(!result.ok && result.message.endsWith('.')).toBe(true);
    }
  });
});

type Tree = Extract<ReturnType<typeof readXml>, { ok: true }>['root'];

function allNamed(root: Tree, name: string): readonly Tree[] {
  return [
    ...(root.name === name ? [root] : []),
    ...root.children.flatMap((child) => allNamed(child, name)),
  ];
}

describe('plain tab', () => {
  test('is written as players write it', () => {
    const text = writeTab(LINE).content;
    expect(text.split('\n').slice(0, 2)).toEqual(['Low Lamp', '4/4, 96 bpm, key of Dm']);
    expect(text).toMatch(/^E4\|-/mu);
    expect(text).toContain('2b4r2');
    expect(text).toContain('Dm7');
  });

  test('comes back whole', () => {
    const back = opened(readTab(writeTab(LINE).content, STANDARD_NECK));
    expect(plain(back)).toEqual(plain(LINE));
    expect(techniquesIn(back)).toEqual(techniquesIn(LINE));
    const dropped = makeNeck({ tuning: ['D2', 'A2', 'D3', 'G3', 'B3', 'E4'], capo: 0 });
    const low = dropped.ok && { ...LINE, neck: dropped.neck };
    if (low) expect(opened(readTab(writeTab(low).content, STANDARD_NECK)).neck).toEqual(low.neck);
    fc.assert(
      fc.property(lines, (passage) => {
        if (passage.notes.length === 0) return;
        expect(plain(opened(readTab(writeTab(passage).content, STANDARD_NECK)))).toEqual(
          plain(passage),
        );
      }),
      runs(60),
    );
  });

  test('without a rhythm the columns stand for time', () => {
    const bare = [
      'e|----------------|',
      'B|----------------|',
      'G|------------0-2-|',
      'D|0---2---4-------|',
      'A|----------------|',
      'E|----------------|',
    ].join('\n');
    const { notes } = opened(readTab(bare, STANDARD_NECK));
    expect(notes.map(({ string, fret }) => `${string}-${fret}`)).toEqual([
      '4-0',
      '4-2',
      '4-4',
      '3-0',
      '3-2',
    ]);
    expect(notes.map(({ beat }) => inBeats(beat))).toEqual([0, 1, 2, 3, 3.5]);
  });

  test.each(['', 'no tab here', 'e|---|\nB|---|\nG|---|'])('“%s” gets a sentence', (text) => {
    const result = readTab(text, STANDARD_NECK);
    expect(!result.ok && result.message.endsWith('.')).toBe(true);
  });
});
