import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chordName } from '../chords/chords';
import { transposeChart } from '../chart/rewrite';
import { parseKey } from '../keys/keys';
import { at, range } from '../lists';
import { fretFor, type Place, pitchAt, STANDARD_NECK as NECK } from '../neck/neck';
import { degreeName } from '../notes/degrees';
import { note, noteName, pitchClass } from '../notes/notes';
import type { Technique } from '../phrases/techniques';
import { zonesOf } from '../neck/zones';
import { fitLick } from './fit';
import { evidenceFor, hearChanges } from './heard';
import { lickOfPassage, lickPassage } from './lick';
import { lickExercise } from './moving';
import { backwardSays, readLick } from './reading';
import { STARTER_LICKS } from './starter';
import { refound } from './refound';
import { reachCost, refinger, FINGERING_COSTS } from './refinger';
import type { LickNote } from './sounding';
import { calibration, distance } from '$tests/bench/heard';
import { chartOf, runs } from '$tests/laws';
import { BEAT } from '../time/units';
import { notesFrom } from './kept';

/** Notes as `beat beats string.fret`, with techniques after. */
const notesOf = (
  ...written: readonly (readonly [number, number, number, number, ...Technique[]])[]
): readonly LickNote[] =>
  written.map(([beat, beats, string, fret, ...techniques]) => ({
    beat: beat * BEAT,
    beats: Math.round(beats * BEAT),
    string,
    fret,
    techniques,
  }));

const read = (chart: string, notes: readonly LickNote[], key: string | null = null) =>
  readLick(chartOf(chart), key === null ? null : parseKey(key), NECK, notes);

/** D E F A over Dm7, F–E over G7 and Cmaj7. */
const TWO_FIVE = notesOf(
  [0, 1, 3, 7],
  [1, 0.5, 3, 9],
  [1.5, 0.5, 3, 10],
  [2, 1, 2, 6],
  [3, 1, 2, 10],
  [4, 1, 2, 6],
  [5, 1, 3, 7],
  [6, 2, 3, 4],
  [8, 4, 2, 5],
);
const ROOTS = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');
const transposed = (text: string, up: number) =>
  chartOf(transposeChart(text, note('C'), note(at(ROOTS, up % 12))) ?? '');
const CHANGES = '| Dm7 | G7 | Cmaj7 |';

describe('reading a lick', () => {
  test('degrees, strong beats and landings', () => {
    const { notes, landings, last } = read(CHANGES, TWO_FIVE, 'C');
    expect(notes.map(({ degree }) => (degree === null ? null : degreeName(degree)))).toEqual(
      '1 2 b3 b3 5 b7 5 3 3'.split(' '),
    );
    expect(notes.map(({ strong }) => strong)).toEqual([
      ...[true, false, false, true, false],
      ...[true, false, true, true],
    ]);
    expect(
      landings.map(({ chord, note }) => [chord, note === null ? null : noteName(note)]),
    ).toEqual([
      [0, 'D'],
      [1, 'F'],
      [2, 'E'],
    ]);
    expect(last && noteName(last.note)).toBe('E');
  });

  test('a note held into a chord lands on it, as does one within its first beat', () => {
    const ahead = notesOf([3.5, 1.5, 2, 6], [8.5, 1, 2, 5]);
    const { landings } = read(CHANGES, ahead);
    expect(landings.map(({ by, how }) => [by, how])).toEqual([
      [null, null],
      [0, 'anticipated'],
      [1, 'after'],
    ]);
    // Not held into it; later than a beat.
    const neither = notesOf([3.4, 0.7, 2, 6], [9.1, 1, 2, 5]);
    expect(read(CHANGES, neither).landings.map(({ by }) => by)).toEqual([null, null, null]);
  });

  test('what lands is what is heard: a bend where it arrives, a slide where it ends, a grace never', () => {
    const bent = notesOf([0, 2, 3, 4, { kind: 'bend', by: 2 }]);
    expect(at(read('| A |', bent).landings, 0)).toMatchObject({
      sentence: 'B bent to C# lands on the third of A.',
      how: 'on',
    });
    const slid = notesOf([0, 2, 3, 4, { kind: 'slide', to: 6 }]);
    expect(at(read('| A |', slid).landings, 0).sentence).toBe('C# lands on the third of A.');
    const grace = notesOf([0, 0.125, 3, 5, { kind: 'grace' }], [0, 1, 3, 6]);
    expect(at(read('| A |', grace).landings, 0)).toMatchObject({ by: 1, how: 'on' });
  });

  test.each([
    ['chord tone', 'Cmaj7', [[0, 1, 2, 5]], 0],
    ['tension', 'Cmaj7', [[0, 1, 2, 3]], 0],
    [
      'approach',
      'Cmaj7',
      [
        [0.5, 0.5, 2, 4],
        [1, 1, 2, 5],
      ],
      0,
    ],
    [
      'passing',
      'Cmaj7',
      [
        [0, 1, 2, 5],
        [1, 1, 2, 6],
        [2, 0.5, 2, 10],
      ],
      1,
    ],
    [
      'outside',
      'Cmaj7',
      [
        [0, 1, 2, 2],
        [2, 1, 2, 8],
      ],
      0,
    ],
    ['blue', 'A7', [[0, 1, 3, 5]], 0],
    ['blue', 'A7', [[0, 1, 3, 8]], 0],
    ['chord tone', 'A7#9', [[0, 1, 3, 5]], 0],
    // The sharp ninth and the flat fifth of an altered dominant are no blue notes.
    ['tension', 'A7b9', [[0, 1, 3, 5]], 0],
  ] as const)('%s over %s', (role, chord, places, index) => {
    const notes = notesOf(...places.map((place) => [...place] as [number, number, number, number]));
    expect(at(read(`| ${chord} |`, notes).notes, index).role).toBe(role);
  });

  test('a bend has both its ends, and is judged by where it goes', () => {
    const bend: Technique = { kind: 'bend', by: 2 };
    const [note] = read('| A7 |', notesOf([0, 2, 3, 7, bend])).notes;
    expect(note && noteName(note.note)).toBe('D');
    expect(note?.bent && [noteName(note.bent.note), note.bent.degree !== null]).toEqual([
      'E',
      true,
    ]);
    expect(note?.role).toBe('chord tone');
  });

  test('the blue notes of a blues are those of its tonic too', () => {
    const blues = '| A7 | D7 | A7 | E7 |';
    // G over D7 is its fourth; over the blues in A, C is the flat third and D sharp the flat fifth.
    const { notes } = read(blues, notesOf([4, 1, 1, 3], [12, 1, 3, 5], [13, 1, 4, 1]));
    expect(notes.map(({ role }) => role)).toEqual(['outside', 'blue', 'blue']);
  });

  test('where no chord sounds a note has no degree', () => {
    const { notes } = read('| C | N.C. | C |', notesOf([4, 1, 2, 5]));
    expect(at(notes, 0)).toMatchObject({ chord: null, degree: null });
  });
});

describe('heard with the band muted', () => {
  test('a line through the guide tones says its changes', () => {
    const { heard } = read(CHANGES, TWO_FIVE, 'C');
    expect(heard.share).toBeGreaterThan(0.8);
    expect(heard.sentence).toBe('Without the band, every chord comes through.');
  });

  test('one chord alone has no share; one that goes on in silence is not held against it', () => {
    const alone = read('| Am7 | % |', notesOf([0, 4, 3, 5]));
    expect(alone.heard.share).toBeNull();
    expect(alone.heard.sentence).toBe('Only one chord: nothing to tell apart.');
    const third = notesOf([0, 4, 3, 6], [12, 4, 3, 9]);
    const goesOn = read('| A7 | A7 | A7 | C7 |', third).heard;
    const stated = read('| A7 | C7 |', notesOf([0, 4, 3, 6], [4, 4, 3, 9])).heard;
    expect(goesOn.share).toBeCloseTo(stated.share ?? NaN, 9);
    expect(goesOn.chords.map(({ sentence }) => sentence).slice(1, 3)).toEqual([
      'Bar 2: A7 goes on.',
      'Bar 3: A7 goes on.',
    ]);
    // Silence over a chord that was not stated is.
    const silent = read('| A7 | C7 |', notesOf([0, 4, 3, 6])).heard;
    expect(silent.chords[1]?.sentence).toBe('Bar 2: nothing sounds over C7.');
    expect(silent.share).toBeLessThan(stated.share ?? 0);
  });

  test('what is held into a chord speaks for it', () => {
    const ahead = read('| Dm7 | G7 |', notesOf([0, 3.5, 2, 6], [3.5, 3, 3, 4])).heard;
    const on = read('| Dm7 | G7 |', notesOf([0, 3.5, 2, 6], [4, 2.5, 3, 4])).heard;
    expect(ahead.chords[0]?.share).toBeCloseTo(on.chords[0]?.share ?? NaN, 9);
    expect(ahead.share).toBeCloseTo(on.share ?? NaN, 2);
  });

  test('what was played on a strong place of a chord is not advised', () => {
    const asks = (beat: number) =>
      read('| A | F#m |', notesOf([0, 4, 4, 7], [4 + beat, 4 - beat, 2, 2])).heard.chords[1];
    // C sharp on the downbeat tells nothing: another tone is named.
    const wanted = asks(0)?.wanted;
    expect(wanted ? noteName(wanted.note) : null).not.toBe('C#');
  });

  test('probabilities sum to one, are the same in every key, and equal Bayes’ rule by hand', () => {
    const chart = chartOf('| Dm7 | G7 | Cmaj7 | A7 |');
    const arbitrary = fc.record({
      beat: fc.integer({ min: 0, max: 30 }).map((half) => (half * BEAT) / 2),
      string: fc.integer({ min: 1, max: 6 }),
      fret: fc.integer({ min: 3, max: 12 }),
    });
    fc.assert(
      fc.property(
        fc.array(arbitrary, { maxLength: 12 }),
        fc.integer({ min: 1, max: 9 }),
        (drawn, up) => {
          const notes = drawn
            .toSorted((a, b) => a.beat - b.beat)
            .map((note) => ({ ...note, beats: BEAT / 2, techniques: [] }));
          const heard = hearChanges(chart, NECK, notes);
          for (const { index, chord, likeliest, share } of heard.chords) {
            const sum = likeliest.reduce((whole, { probability }) => whole + probability, 0);
            expect(sum).toBeCloseTo(1, 9);
            const own = notes.filter(({ beat }) => Math.floor(beat / (4 * BEAT)) === index);
            const raw = chart.chords.map(({ chord: one }) =>
              own.reduce((product, note) => {
                const place =
                  note.beat % (2 * BEAT) === 0 ? 1.3 : note.beat % BEAT === 0 ? 1.05 : 0.8;
                return product * Math.exp(0.5 * place * evidenceFor(one, pitchAt(NECK, note)));
              }, 1),
            );
            const whole = raw.reduce((a, b) => a + b, 0);
            const right = chart.chords.findIndex((one) => one.chord === chord);
            expect(share).toBeCloseTo(at(raw, right) / whole, 9);
          }
          const moved = transposed('| Dm7 | G7 | Cmaj7 | A7 |', up);
          const higher = notes.map((note) => ({ ...note, fret: note.fret + up }));
          expect(hearChanges(moved, NECK, higher).share).toBeCloseTo(heard.share ?? NaN, 9);
        },
      ),
      runs(60),
    );
  });

  test('two chords no note tells apart are both named, with the note that would tell them', () => {
    const chart = chartOf('| Amaj7 | F#m7 | Amaj7 | F#m7 |');
    // A, C sharp and E belong to both.
    const notes = notesOf([0, 1, 3, 2], [1, 1, 2, 2], [2, 2, 2, 5], [4, 2, 3, 2], [6, 2, 2, 2]);
    const { chords } = hearChanges(chart, NECK, notes);
    expect(at(chords, 0).sentence).toMatch(
      /^Bar 1 could be Amaj7 or F#m7: no note tells them apart\. A G# would \(string \d, fret \d+\)\.$/u,
    );
    expect(at(chords, 0).wanted).toMatchObject({ fret: expect.any(Number) });
    expect(at(hearChanges(chart, NECK, []).chords, 1).sentence).toBe(
      'Bar 2: nothing sounds over F#m7.',
    );
  });
});

describe('refingering', () => {
  const line = notesOf([0, 1, 3, 7], [1, 1, 3, 9], [2, 1, 2, 6], [3, 1, 2, 8]);

  test('keeps every pitch, and as a shape every string and distance', () => {
    for (const semitones of range(-4, 8)) {
      const byPitch = refinger({ neck: NECK, notes: line, semitones, zone: null, keep: 'pitch' });
      expect(byPitch.notes.map(({ midi }) => midi)).toEqual(
        line.map((note) => pitchAt(NECK, note) + semitones),
      );
      for (const note of byPitch.notes) expect(pitchAt(NECK, note)).toBe(note.midi);
      const shape = refinger({ neck: NECK, notes: line, semitones, zone: null, keep: 'shape' });
      expect(shape.notes.map(({ string, fret }) => [string, fret])).toEqual(
        line.map(({ string, fret }) => [string, fret + semitones]),
      );
    }
  });

  test('is as cheap as the cheapest of every fingering there is', () => {
    const pitches = fc.array(fc.integer({ min: 45, max: 76 }), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(pitches, (drawn) => {
        const notes = drawn.map((midi, beat) => {
          const string = range(1, 7).find((one) => fretFor(NECK, one, midi) !== null) ?? 1;
          const fret = fretFor(NECK, string, midi) ?? 0;
          return { beat: beat * BEAT, beats: BEAT, string, fret, techniques: [] };
        });
        const { cost } = refinger({ neck: NECK, notes, semitones: 0, zone: null, keep: 'pitch' });
        const ways = drawn.reduce<readonly (readonly Place[])[]>(
          (found, midi) =>
            found.flatMap((way) =>
              range(1, 7).flatMap((string) => {
                const fret = fretFor(NECK, string, midi);
                return fret === null ? [] : [[...way, { string, fret }]];
              }),
            ),
          [[]],
        );
        const costs = ways.map((way) =>
          way.reduce((sum, place, index) => {
            const high = FINGERING_COSTS.high * Math.max(0, place.fret - 12);
            return sum + high + (index === 0 ? 0 : reachCost(at(way, index - 1), place));
          }, 0),
        );
        expect(cost).toBe(Math.min(...costs));
      }),
      runs(80),
    );
  });

  test('stays in the zone where it can, and says what it cannot reach', () => {
    const zone = { low: 5, high: 9 };
    const inside = refinger({ neck: NECK, notes: line, semitones: 0, zone, keep: 'pitch' });
    expect(inside.outOfReach).toEqual([]);
    expect(inside.notes.every(({ fret }) => fret >= 5 && fret <= 9)).toBe(true);
    const low = refinger({ neck: NECK, notes: line, semitones: -24, zone: null, keep: 'pitch' });
    expect(low.outOfReach).toEqual(
      [0, 1, 2, 3].filter((index) => pitchAt(NECK, at(line, index)) - 24 < 40),
    );
    expect(low.notes.length).toBe(4 - low.outOfReach.length);
  });

  test('in a zone it drops or rises an octave rather than leave it', () => {
    const within = (notes: readonly LickNote[], zone: { low: number; high: number }) =>
      notes.every(({ fret }) => fret >= zone.low - 1 && fret <= zone.high + 1);
    for (const low of range(0, 18))
      for (const semitones of [-7, 0, 5, 11]) {
        const zone = { low, high: low + 4 };
        const { notes } = refound(NECK, line, semitones, zone);
        expect(notes).toHaveLength(line.length);
        expect(within(notes, zone), `${low} ${semitones}`).toBe(true);
        // One tune in one octave, which nothing asks to part.
        const shifts = notes.map(
          (one, index) => one.midi - pitchAt(NECK, at(line, index)) - semitones,
        );
        expect(new Set(shifts).size).toBe(1);
        expect(Math.abs(shifts[0] ?? 1) % 12).toBe(0);
      }
    // Wider than the zone: each phrase in an octave of its own, and no note outside.
    const wide = notesOf(
      [0, 1, 6, 0],
      [1, 1, 6, 3],
      [4, 1, 1, 15],
      [5, 1, 1, 17, { kind: 'hammer-on' }],
    );
    const zone = { low: 5, high: 8 };
    const found = refound(NECK, wide, 0, zone);
    expect(found.notes.map(({ midi }) => midi)).toEqual([52, 55, 67, 69]);
    expect(within(found.notes, zone)).toBe(true);
    expect(found.notes[3]?.techniques).toEqual([{ kind: 'hammer-on' }]);
    // Within one phrase a single note is moved, and struck anew.
    const close = notesOf([0, 1, 6, 5], [1, 1, 1, 12, { kind: 'slide' }]);
    const apart = refound(NECK, close, 0, zone);
    expect(apart.notes.map(({ midi, techniques }) => [midi, techniques])).toEqual([
      [45, []],
      [64, []],
    ]);
  });

  test('slurs stay on one string, two notes at once on two, slides keep their length', () => {
    const slurred = notesOf([0, 1, 3, 7], [1, 1, 3, 9, { kind: 'hammer-on' }]);
    const moved = refinger({ neck: NECK, notes: slurred, semitones: 5, zone: null, keep: 'pitch' });
    expect(new Set(moved.notes.map(({ string }) => string)).size).toBe(1);
    const stop = notesOf([0, 1, 2, 8], [0, 1, 3, 9]);
    const both = refinger({ neck: NECK, notes: stop, semitones: 3, zone: null, keep: 'pitch' });
    expect(new Set(both.notes.map(({ string }) => string)).size).toBe(2);
    const slid = notesOf([0, 1, 3, 9, { kind: 'slide', from: 7 }]);
    const [note] = refinger({
      neck: NECK,
      notes: slid,
      semitones: 2,
      zone: null,
      keep: 'shape',
    }).notes;
    expect(note?.techniques).toEqual([{ kind: 'slide', from: 9 }]);
  });
});

describe('what sounds backward', () => {
  const falls = (chart: string, notes: readonly LickNote[]) =>
    read(chart, notes).notes.flatMap(({ backward, index }) => (backward ? [index] : []));

  test('is the third of a dominant falling to its minor third, in every key', () => {
    // C♯ to C over A7, then C to C♯.
    const down = notesOf([0, 1, 3, 6], [1, 1, 3, 5], [2, 2, 4, 7]);
    const up = notesOf([0, 1, 3, 5], [1, 1, 3, 6], [2, 2, 4, 7]);
    for (const frets of range(0, 12)) {
      const moved = transposed('| A7 |', frets);
      const at = (notes: readonly LickNote[]) =>
        notes.map((one) => ({ ...one, fret: one.fret + frets }));
      expect(readLick(moved, null, NECK, at(down)).notes.map(({ backward }) => backward)).toEqual([
        ...[false, true, false],
      ]);
      expect(readLick(moved, null, NECK, at(up)).notes.some(({ backward }) => backward)).toBe(
        false,
      );
    }
    expect(backwardSays(read('| A7 |', [...down, ...notesOf([4, 1, 3, 6], [5, 1, 3, 5])]))).toEqual(
      ['C# falls to C: it sounds backward. Let C rise to C#.'],
    );
  });

  test('is not where the chord changes between them, has both, is minor, or a note is bent there', () => {
    const down = notesOf([3, 1, 3, 6], [4, 1, 3, 5]);
    expect(falls('| A7 | D7 |', down)).toEqual([]);
    expect(falls('| A7 | A7 |', down)).toEqual([1]);
    for (const chord of ['A7#9', 'A7alt', 'Am7', 'Amaj7', 'A'])
      expect(falls(`| ${chord} | % |`, down), chord).toEqual([]);
    // C bent up to C♯, then C: what is heard falls.
    expect(
      falls('| A7 | % |', notesOf([0, 1, 3, 5, { kind: 'bend', by: 1 }], [1, 1, 3, 5])),
    ).toEqual([1]);
    expect(
      falls('| A7 | % |', notesOf([0, 1, 3, 6], [1, 1, 3, 5, { kind: 'bend', by: 1 }])),
    ).toEqual([]);
    // A grace is heard with the note it leads to.
    expect(
      falls('| A7 | % |', notesOf([0, 1, 3, 6], [1, 0.1, 3, 5, { kind: 'grace' }], [1.1, 1, 3, 6])),
    ).toEqual([]);
  });

  test('no lick of the book does', () => {
    for (const { title, chart, notes } of STARTER_LICKS)
      expect(falls(chart, notesFrom(notes)), title).toEqual([]);
  });
});

describe('how sure it is', () => {
  test('what is said to be as probable as not is right as often as not', () => {
    const bins = calibration(64);
    expect(distance(bins)).toBeLessThan(0.02);
    for (const { count, said, right } of bins) {
      // Chance alone moves few cases further.
      if (count >= 40) expect(Math.abs(said - right) / count, `${said / count}`).toBeLessThan(0.14);
    }
  });
});

describe('finding where a lick fits', () => {
  const lick = { chart: chartOf(CHANGES), notes: TWO_FIVE };

  test('finds the same changes in every key, and not where they last otherwise', () => {
    for (const up of range(0, 12)) {
      const chart = transposed('| Am7 | Dm7 | G7 | Cmaj7 |', up);
      const [best] = fitLick(lick, [chart], NECK);
      expect(best).toMatchObject({
        index: 1,
        match: 'same changes',
        semitones: up > 6 ? up - 12 : up,
      });
    }
    const hurried = fitLick(lick, [chartOf('| Dm7 G7 | Cmaj7 |')], NECK);
    expect(hurried.filter(({ match }) => match === 'same changes')).toEqual([]);
  });

  test('over one chord: wherever that chord lasts long enough', () => {
    const short = {
      chart: chartOf('| Dm7 |'),
      notes: notesOf([0, 1, 3, 7], [1, 1, 3, 10], [2, 1, 2, 10]),
    };
    const charts = [chartOf('| Gm7 C7 | Fm7 | Fm7 | Bb7 |'), chartOf('| Am7 | E7 |')];
    const fits = fitLick(short, charts, NECK).filter(({ match }) => match === 'same chord');
    expect(fits.map(({ chart, index, semitones }) => [chart, index, semitones])).toEqual([
      [0, 2, 3],
      [0, 3, 3],
      [1, 0, -5],
    ]);
  });

  test('equals trying every place by hand', () => {
    const charts = [
      '| Dm7 G7 | Cmaj7 | Dm7 | Em7 A7 |',
      '| Fm7 | Bb7 | Ebmaj7 | % | Em7 | A7 |',
    ].map(chartOf);
    const short = { chart: chartOf('| Dm7 | G7 |'), notes: TWO_FIVE.slice(0, 8) };
    const found = fitLick(short, charts, NECK)
      .filter(({ match }) => match === 'same changes')
      .map(({ chart, index }) => `${chart}.${index}`)
      .sort();
    const byHand = charts.flatMap((chart, position) =>
      chart.chords.flatMap(({ chord, beats, index }) => {
        const next = chart.chords[index + 1];
        const fits =
          chord.quality.name === 'm7' &&
          beats === 4 * BEAT &&
          next?.chord.quality.name === '7' &&
          next.beats === 4 * BEAT;
        const fourth = next && ((((next.chord.root - chord.root) * 7) % 12) + 12) % 12 === 5;
        return fits && fourth ? [`${position}.${index}`] : [];
      }),
    );
    expect(found).toEqual(byHand);
    expect(byHand).toEqual(['1.0', '1.4']);
  });

  test('over chords it sounds as well on, after those it was made for', () => {
    const short = {
      chart: chartOf('| Dm7 |'),
      notes: notesOf([0, 1, 3, 10], [1, 1, 2, 10], [2, 2, 3, 10]),
    };
    const fits = fitLick(short, [chartOf('| Fmaj7 | Dm7 |')], NECK);
    expect(fits.map(({ match }) => match)).toEqual(['same chord', 'same sound']);
  });
});

/** An F, a bar each, for three bars. */
const ROWS_OF_THREE = [0, 4, 8].map((beat) => [beat, 4, 3, 10] as const);

describe('finding it over the chord’s kin', () => {
  const fits = (chart: string, notes: readonly LickNote[], over: string) =>
    fitLick({ chart: chartOf(chart), notes }, [chartOf(over)], NECK);

  test('A, A7 and Amaj7 are one as far as its notes allow', () => {
    const triad = notesOf([0, 1, 3, 2], [1, 1, 2, 2], [2, 2, 2, 5]);
    expect(fits('| A |', triad, '| D7 |')[0]).toMatchObject({
      index: 0,
      semitones: 5,
      match: 'same chord',
      share: 1,
      sentence: 'Bar 1, a fourth up: right over D7 too, though written over A.',
    });
    // A major seventh in it does not.
    const seventh = notesOf([0, 1, 3, 2], [1, 1, 3, 1], [2, 2, 2, 2]);
    expect(fits('| Amaj7 |', seventh, '| D7 |').map(({ match }) => match)).not.toContain(
      'same chord',
    );
    expect(fits('| Am |', notesOf([0, 2, 3, 2], [2, 2, 2, 1]), '| D7 |')[0]?.match).not.toBe(
      'same chord',
    );
  });

  test('a bend that would leave the chord counts against the place', () => {
    const bent = notesOf([0, 2, 3, 2], [2, 2, 2, 3, { kind: 'bend', by: 2 }]);
    const plain = notesOf([0, 2, 3, 2], [2, 2, 2, 5]);
    const share = (notes: readonly LickNote[]) => fits('| A |', notes, '| D |')[0]?.share ?? 0;
    expect(share(plain)).toBe(1);
    expect(share(bent)).toBe(1);
    const off = notesOf([0, 2, 3, 2], [2, 2, 2, 2, { kind: 'bend', by: 1 }]);
    expect(fits('| A |', off, '| D |')[0]?.share ?? 0).toBeLessThan(0.5);
  });

  test('a line of the IV is found over its ii–V in every key, one of iv with its sixth over iiø–V', () => {
    const four = notesOf([0, 2, 3, 10], [2, 2, 2, 10], [4, 2, 1, 8], [6, 2, 1, 12]);
    const sixth = notesOf([0, 2, 3, 10], [2, 2, 2, 9], [4, 2, 1, 8], [6, 2, 1, 10]);
    for (const up of range(0, 12)) {
      const semitones = up > 6 ? up - 12 : up;
      const over = transposed('key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 | Dm7b5 | G7b9 |', up);
      const found = fitLick({ chart: chartOf('| Fmaj7 | % |'), notes: four }, [over], NECK);
      expect(found).toContainEqual(
        expect.objectContaining({ index: 1, semitones, match: 'same sound', share: 1 }),
      );
      const minor = fitLick({ chart: chartOf('| Fm6 | % |'), notes: sixth }, [over], NECK);
      expect(minor).toContainEqual(
        expect.objectContaining({ index: 4, semitones, match: 'same sound', share: 1 }),
      );
      // One that lasts longer than both of them is not.
      const longer = { chart: chartOf('| Fmaj7 | % | % |'), notes: notesOf(...ROWS_OF_THREE) };
      expect(fitLick(longer, [over], NECK)).toEqual([]);
    }
    const [first] = fits('| Fmaj7 | % |', four, '| Dm7 | G7 |');
    expect(first?.sentence).toBe('Bar 1, as it is: Fmaj7, the IV, over its ii–V, Dm7 and G7.');
    // What leads elsewhere is no ii–V.
    expect(fits('| Fmaj7 | % |', four, '| Dm7 | A7 |')).toEqual([]);
    // It goes on into the I: two chords of the lick over three.
    const home = [...four, ...notesOf([8, 2, 1, 7])];
    expect(fits('| Fmaj7 | % | Cmaj7 |', home, '| Dm7 | G7 | Cmaj7 |')[0]).toMatchObject({
      index: 0,
      semitones: 0,
      sentence: 'Bar 1, as it is: Fmaj7, the IV, over its ii–V, Dm7 and G7, then Cmaj7.',
    });
  });

  test('what is held into a chord belongs to that chord', () => {
    const held = notesOf([0, 3.5, 2, 6], [3.5, 4.5, 3, 4]);
    expect(fits('| Dm7 | G7 |', held, '| Gm7 | C7 |')[0]).toMatchObject({ share: 1 });
  });
});

describe('a lick as an exercise', () => {
  const chart = chartOf('key: C\n| Dm7 | G7 |');
  const notes = TWO_FIVE.slice(0, 8);
  const asked = { title: 'Two bars', chart, key: parseKey('C'), notes };
  const zones = zonesOf(NECK, note('C'));

  test('up by half steps it keeps its shape, and its chords move with it', () => {
    const { notes: played, chords, beats } = lickExercise(NECK, asked, 'half steps', zones);
    expect(beats).toBe(6 * 8 * BEAT);
    for (const turn of range(0, 6)) {
      const own = played.filter(({ beat }) => Math.floor(beat / (8 * BEAT)) === turn);
      expect(own.map(({ fret }) => fret - turn)).toEqual(notes.map(({ fret }) => fret));
    }
    expect(chords.slice(0, 4).map(({ chord }) => chordName(chord))).toEqual([
      ...['Dm7', 'G7', 'Ebm7', 'Ab7'],
    ]);
  });

  test('round the fourths it comes in twelve keys under one hand', () => {
    const { notes: played, chords } = lickExercise(NECK, asked, 'fourths', zones);
    const roots = chords
      .filter((_, index) => index % 2 === 0)
      .map(({ chord }) => pitchClass(chord.root));
    expect(new Set(roots).size).toBe(12);
    roots.slice(1).forEach((root, index) => expect((root - at(roots, index) + 12) % 12).toBe(5));
    expect(Math.max(...played.map(({ fret }) => fret))).toBeLessThanOrEqual(17);
  });

  test('in every zone it is the same line, an octave away at the most', () => {
    const { notes: played } = lickExercise(NECK, asked, 'zones', zones);
    for (const turn of range(0, 5)) {
      const own = played.filter(({ beat }) => Math.floor(beat / (8 * BEAT)) === turn);
      const gaps = own.map((one, index) => pitchAt(NECK, one) - pitchAt(NECK, at(notes, index)));
      expect(new Set(gaps).size).toBe(1);
      expect(Math.abs(at(gaps, 0)) % 12).toBe(0);
    }
  });
});

describe('a passage as a lick', () => {
  test('keeps its notes and writes its chords as chart text that reads alike', () => {
    for (const text of [
      'key: Eb\n| Ebmaj7 | Fm7 Bb7 | N.C. | Cm7 / / G7 |',
      'time: 3/4\n| F | Gm7 C7 / |',
      // More chords than beats are cut into, and shares that are no whole ticks.
      'key: C\n| C D E F G A B C D E F | G C D E F G A |',
      'time: 7/8\n| C D E F G | Am / / / / / / / / / D7 |',
    ]) {
      const chart = chartOf(text);
      const played = { title: 'Here', notes: TWO_FIVE.slice(0, 3) };
      const back = lickOfPassage(lickPassage(played, chart, chart.source.key, NECK), 'mine');
      expect(notesFrom(back.notes)).toEqual(played.notes);
      expect(
        chartOf(back.chart).chords.map(({ chord, beat, beats }) => [chordName(chord), beat, beats]),
      ).toEqual(chart.chords.map(({ chord, beat, beats }) => [chordName(chord), beat, beats]));
    }
  });
});
