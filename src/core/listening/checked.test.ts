import { describe, expect, test } from 'vitest';
import { at, range } from '../lists';
import { hashed } from '../random';
import { type AskedNote, checkedSays, checkLine } from './checked';
import type { TakenNote } from './take';
import { BEAT } from '../time/units';

/** A line of so many notes, drawn from a seed. */
const lineOf = (count: number, step: number, seed: number): readonly AskedNote[] =>
  range(0, count).map((place) => ({
    beat: place * step * BEAT,
    midi: 52 + Math.floor(hashed(seed, place, 1) * 24),
    bent: hashed(seed, place, 2) < 0.1 ? 2 : 0,
  }));
const played = (asked: AskedNote, changed: Partial<TakenNote> = {}): TakenNote => ({
  beats: 0.4 * BEAT,
  from: 'pick' as const,
  ...asked,
  ...changed,
});
const verdicts = (asked: readonly AskedNote[], heard: readonly TakenNote[]) =>
  checkLine(asked, heard).notes.map(({ verdict }) => verdict);

describe('a line that was played', () => {
  test.each([0.25, 0.5, 1, 1.5])('is as written where it is, at every %d beats', (step) => {
    for (const seed of range(0, 20)) {
      const line = lineOf(24, step, seed);
      const heard = line.map((note, place) =>
        played(note, { beat: note.beat + 0.2 * BEAT * (hashed(seed, place, 3) - 0.5) }),
      );
      const checked = checkLine(line, heard.toReversed());
      expect([checked.right, checked.extra]).toEqual([24, 0]);
    }
  });

  const ERRS: readonly (readonly [string, (note: AskedNote) => readonly TakenNote[]])[] = [
    ['late', (note) => [played(note, { beat: note.beat + 0.4 * BEAT })]],
    ['early', (note) => [played(note, { beat: note.beat - 0.4 * BEAT })]],
    ['another octave', (note) => [played(note, { midi: note.midi + 12 })]],
    ['another note', (note) => [played(note, { midi: note.midi + 1 })]],
    ['bent otherwise', (note) => [played(note, { bent: note.bent === 0 ? 1 : 0 })]],
    ['missed', () => []],
  ];
  test.each(ERRS)('is told where a note is %s, and nowhere else', (verdict, err) => {
    for (const seed of range(0, 20)) {
      // Steps, so that a note cannot be taken for the one beside it.
      const line = lineOf(16, 1, seed).map((note, place) => ({ ...note, midi: 50 + 3 * place }));
      const wrong = Math.floor(hashed(seed, 7) * line.length);
      const heard = line.flatMap((note, place) => (place === wrong ? err(note) : [played(note)]));
      expect(verdicts(line, heard)).toEqual(
        line.map((_, place) => (place === wrong ? verdict : 'as written')),
      );
    }
  });

  test('pairs notes in order: repeated notes are each heard once', () => {
    const line = range(0, 4).map((beat) => ({ beat: beat * BEAT, midi: 60, bent: 0 }));
    const heard = [0, 1, 3].map((beat) => played({ beat: beat * BEAT, midi: 60, bent: 0 }));
    expect(verdicts(line, heard)).toEqual(['as written', 'as written', 'missed', 'as written']);
  });

  test('counts what was not written', () => {
    const line = lineOf(4, 1, 3);
    const heard = [
      ...line.map((note) => played(note)),
      played({ beat: 2.5 * BEAT, midi: 90, bent: 0 }),
    ];
    expect(checkLine(line, heard)).toMatchObject({ right: 4, extra: 1 });
  });

  test('far from its moment answers nothing', () => {
    const line = [{ beat: 0, midi: 60, bent: 0 }];
    expect(checkLine(line, [played(at(line, 0), { beat: 3 * BEAT })])).toMatchObject({
      right: 0,
      extra: 1,
      notes: [{ verdict: 'missed', heard: null, beatsLate: null }],
    });
  });
});

describe('how it went', () => {
  const line = lineOf(4, 1, 2).map((note) => ({ ...note, bent: 0 }));
  test.each([
    [
      line.map((note) => played(note)),
      'All 4 notes are as written. A little faster, or from memory.',
    ],
    [[], 'Nothing was heard. Play it once more, a little louder.'],
    [line.slice(1).map((note) => played(note)), '3 of 4 notes as written; 1 missed.'],
    [
      line.map((note, place) => played(note, place < 2 ? { beat: note.beat + 0.4 * BEAT } : {})),
      '2 of 4 notes as written; 2 late.',
    ],
    [
      [...line.map((note) => played(note)), played({ beat: 3.5 * BEAT, midi: 91, bent: 0 })],
      'All 4 notes are as written. One note too many.',
    ],
  ])('is said, %#', (heard, sentence) => {
    expect(checkedSays(checkLine(line, heard))).toBe(sentence);
  });

  test.each([
    [1, 'The note is as written. A little faster, or from memory.'],
    [0, '0 of 1 note as written; 1 late.'],
  ])('of one note, %#', (right, sentence) => {
    const one = line.slice(0, 1);
    const heard = one.map((note) =>
      played(note, right === 1 ? {} : { beat: note.beat + 0.4 * BEAT }),
    );
    expect(checkedSays(checkLine(one, heard))).toBe(sentence);
  });
});
