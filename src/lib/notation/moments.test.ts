import { expect, test } from 'vitest';
import { type Passage, STANDARD_NECK } from 'corvel-core';
import { note } from '$core/notes/notes';
import { PLAIN_PASSAGE, struck } from '$core/phrases/passage';
import { coming, momentAt, momentsOf, soundingAt } from './moments';

const played = (beat: number, beats: number, string = 3) =>
  struck({ beat, beats, string, fret: 5, note: note('C'), chord: 0 });

const NOTES = [played(0, 1), played(0, 1, 2), played(1, 0.5), played(2, 1 / 3)];
const PASSAGE: Passage = {
  ...PLAIN_PASSAGE,
  time: { beats: 4, unit: 4 },
  beats: 4,
  neck: STANDARD_NECK,
  notes: NOTES,
};
const indices = (notes: Passage['notes']) => notes.map((one) => NOTES.indexOf(one));

test.each([
  [null, [], [0, 1]],
  [0, [0, 1], [2]],
  [0.999, [0, 1], [2]],
  [1, [2], [3]],
  [1.5, [], [3]],
  [2, [3], []],
  [2 + 1 / 3, [], []],
])('at beat %s what sounds, and what comes', (beat, sounds, comes) => {
  expect(indices(soundingAt(PASSAGE, beat))).toEqual(sounds);
  expect(indices(coming(PASSAGE, beat))).toEqual(comes);
});

test('the moments are where what sounds changes, each once', () => {
  const moments = momentsOf(PASSAGE);
  expect(moments).toEqual([0, 1, 1.5, 2, 2 + 1 / 3]);
  expect([null, -1, 0, 0.5, 1, 1.49, 9].map((beat) => momentAt(moments, beat))).toEqual([
    ...[null, null, 0, 0, 1, 1, 2 + 1 / 3],
  ]);
  expect(momentAt([], 3)).toBeNull();
});
