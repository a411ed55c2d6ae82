import { describe, expect, test } from 'vitest';
import { parseKey } from '$core/keys/keys';
import { BEAT, type Passage, STANDARD_NECK } from 'corvel-core';
import { note } from '$core/notes/notes';
import { PLAIN_PASSAGE, type PlayedNote, struck } from '$core/phrases/passage';
import type { Technique } from '$core/phrases/techniques';
import { chartOf } from '$tests/laws';
import { degreesOf } from './degrees';

/** A note over the chord of the first bar. */
const played = (
  string: number,
  fret: number,
  name: string,
  ...techniques: readonly Technique[]
): PlayedNote => ({
  ...struck({ beat: 0, beats: BEAT, string, fret, note: note(name), chord: 0 }),
  techniques,
});

function read(chart: string, notes: readonly PlayedNote[], key: string | null = null) {
  const passage: Passage = {
    ...PLAIN_PASSAGE,
    key: key === null ? null : parseKey(key),
    time: { beats: 4, unit: 4 },
    beats: 4 * BEAT,
    neck: STANDARD_NECK,
    chords: chartOf(chart).chords,
    notes,
  };
  return degreesOf(passage, { notes, tiedFrom: false });
}

describe('the degrees under the tablature', () => {
  test('are those of the chord, the highest string first', () => {
    expect(read('| C7 |', [played(4, 2, 'E'), played(2, 11, 'Bb')])).toEqual(['♭7', '3']);
  });

  test('of a bend are both ends of it, each as the chord reads it', () => {
    const bend = (by: 1 | 2 | 3) => ({ kind: 'bend', by }) as const;
    expect(read('| F |', [played(3, 3, 'Bb', bend(2))])).toEqual(['11→5']);
    expect(read('| A7 |', [played(2, 1, 'C', bend(1))])).toEqual(['♭3→3']);
    expect(read('| G7 |', [played(3, 5, 'C', bend(3))])).toEqual(['11→♭13']);
    expect(read('| Eb7 |', [played(3, 6, 'Db', bend(2))])).toEqual(['♭7→1']);
  });

  test('of other techniques are the one that is struck', () => {
    expect(read('| F |', [played(3, 3, 'Bb', { kind: 'vibrato' })])).toEqual(['11']);
  });

  test('stand where a note is struck, and not where it is held', () => {
    const notes = [played(4, 2, 'E')];
    const passage = { ...PLAIN_PASSAGE, chords: chartOf('| C7 |').chords } as unknown as Passage;
    expect(degreesOf(passage, { notes, tiedFrom: true })).toEqual([]);
  });

  test('are empty where no chord sounds', () => {
    expect(read('| C7 |', [{ ...played(4, 2, 'E'), beat: 4 * BEAT }])).toEqual(['']);
  });
});
