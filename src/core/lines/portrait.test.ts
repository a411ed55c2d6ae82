import { describe, expect, test } from 'vitest';
import { collection } from '../collections/collections';
import { collectionMaterial } from '../lenses/material';
import { STANDARD_NECK as NECK } from '../neck/neck';
import { note } from '../notes/notes';
import { type PlayedNote, struck } from '../phrases/passage';
import { phrasesIn, portraitOf, restShare, sizeOf } from './portrait';
import { spansOf } from './spans';
import { chartOf } from '$tests/laws';
import { BEAT } from '../time/units';
import { lineMetre } from './rhythm';

const METRE = lineMetre({ beats: 4, unit: 4 }, 'eighths');
const CHART = chartOf('key: C\n| Cmaj7 | % |');
const SPANS = spansOf(
  CHART,
  CHART.chords.map(() => collectionMaterial(collection(note('C'), 'major'))),
  CHART.chords.map(() => 'lean'),
);

/** Notes on the highest string, as frets with the beats they begin at and last. */
const line = (...notes: readonly (readonly [fret: number, beat: number, beats: number])[]) =>
  notes.map(([fret, beat, beats]): PlayedNote =>
    struck({
      string: 1,
      fret,
      beat: beat * BEAT,
      beats: beats * BEAT,
      note: note('C'),
      chord: beat < 4 ? 0 : 1,
    }),
  );
const portrait = (notes: readonly PlayedNote[]) =>
  portraitOf({ neck: NECK, notes, spans: SPANS, metre: METRE, end: 8 * BEAT });

describe('a portrait', () => {
  test('counts phrases by their breaths, and where they begin', () => {
    // E F G, a beat of silence, then A and A over the bar line.
    const notes = line([0, 0, 0.5], [1, 0.5, 0.5], [3, 1, 1], [5, 3.5, 0.5], [5, 4, 2]);
    expect(phrasesIn(notes, METRE)).toEqual([
      [0, 1, 2],
      [3, 4],
    ]);
    expect(portrait(notes)).toMatchObject({ short: 0.5, onOne: 0.5, phrase: 3, crossed: 1 });
  });

  test('a bar line is crossed where no more than a pulse lies between the notes beside it', () => {
    expect(portrait(line([0, 3, 1], [3, 4, 1])).crossed).toBe(1);
    expect(portrait(line([0, 2.5, 0.5], [3, 4, 1])).crossed).toBe(0);
    expect(portrait(line([0, 3, 1], [3, 4.5, 1])).crossed).toBe(0);
  });

  test('names moves by their size, within phrases alone', () => {
    expect([0, 1, 2, 3, 4, 5, 6, 7].map(sizeOf)).toEqual([
      ...['again', 'half', 'whole', 'third', 'third', 'fourth', 'fourth', 'wide'],
    ]);
    const { sizes } = portrait(line([0, 0, 0.5], [1, 0.5, 0.5], [8, 4, 1], [10, 5, 1]));
    expect(sizes).toMatchObject({ half: 0.5, whole: 0.5, wide: 0 });
  });

  test('tells chord tones, what is outside, and what clashes while it is held', () => {
    // E, F held for a beat, F sharp for half of one, G.
    const found = portrait(line([0, 0, 0.5], [1, 1, 1], [2, 2, 0.5], [3, 2.5, 0.5]));
    expect(found.tones).toBe(0.5);
    expect(found.strongTones).toBeCloseTo(1 / 3);
    expect(found.chromatic).toBe(0.25);
    expect(found.longestOutside).toBe(BEAT / 2);
    expect(found.heldClashes).toBe(1);
    expect(portrait(line([0, 0, 0.5], [1, 1, 0.5], [3, 1.5, 0.5])).heldClashes).toBe(0);
  });

  test('a bent note is heard where it arrives', () => {
    const [first, second] = line([0, 0, 0.5], [1, 0.5, 0.5]);
    const bent = { ...second, techniques: [{ kind: 'bend', by: 2 }] } as PlayedNote;
    expect(portrait([first as PlayedNote, bent])).toMatchObject({
      tones: 1,
      range: 3,
      gestures: 0.5,
    });
  });

  test('says where the highest note comes, and how much is silent', () => {
    const notes = line([0, 0, 1], [7, 4, 1], [3, 6, 2]);
    expect(portrait(notes)).toMatchObject({ peak: 0.5, range: 7, rests: 0.5 });
    expect(restShare(notes, 8 * BEAT)).toBe(0.5);
  });
});
