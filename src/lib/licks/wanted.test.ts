import { BEAT, STANDARD_NECK } from 'corvel-core';
import type { LickNote } from '$core/licks/sounding';
import { describe, expect, test } from 'vitest';
import { chartOf } from '$tests/laws';
import { ofLick, tonesOf, wantedOf } from './wanted';

const note = (
  beat: number,
  string: number,
  fret: number,
  techniques: LickNote['techniques'] = [],
): LickNote => ({ beat: beat * BEAT, beats: BEAT, string, fret, techniques });
const wanted = (...notes: readonly LickNote[]) => wantedOf(STANDARD_NECK, notes, (beat) => beat);

describe('what a lick asks for', () => {
  test('is every note where it is played, with its bend', () => {
    const notes = [note(0, 3, 5), note(1, 2, 5, [{ kind: 'bend', by: 2 }])];
    expect(wantedOf(STANDARD_NECK, notes, (beat) => beat + 1)).toEqual([
      { index: 0, beat: 1, midi: 60, bent: 0 },
      { index: 1, beat: BEAT + 1, midi: 64, bent: 2 },
    ]);
  });

  test('is the higher of two at once, of two alike the first, and nothing that is muted', () => {
    // C on the third string, A under it; E on two strings.
    expect(wanted(note(0, 4, 7), note(0, 3, 5)).map(({ midi }) => midi)).toEqual([60]);
    expect(wanted(note(0, 2, 5), note(0, 1, 0)).map(({ index }) => index)).toEqual([0]);
    expect(wanted(note(0, 3, 5), note(1, 4, 7)).map(({ index }) => index)).toEqual([0, 1]);
    expect(wanted(note(0, 3, 5, [{ kind: 'mute' }]))).toEqual([]);
  });

  test('is answered from half a beat before it up to its end', () => {
    const heard = [-0.5, -0.49, 0, 7.99, 8].map((beat) => ({ beat: beat * BEAT }));
    expect(ofLick(heard, 8 * BEAT)).toEqual(heard.slice(1, 4));
  });
});

test('chords without notes are played as their root and, a beat later, their guide tone', () => {
  const { chords } = chartOf('| Dm7 / G7 C |');
  expect(tonesOf(chords)).toEqual([
    { beat: 0, beats: BEAT, midi: 50 },
    { beat: BEAT, beats: BEAT, midi: 53 },
    { beat: 2 * BEAT, beats: BEAT, midi: 59 },
    { beat: 3 * BEAT, beats: BEAT, midi: 52 },
  ]);
  expect(tonesOf(chartOf('| C |').chords).map(({ midi }) => midi)).toEqual([48, 52]);
});
