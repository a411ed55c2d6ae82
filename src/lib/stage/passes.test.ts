import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { passesOf, type SoundEvent } from '$lib/audio/programme';
import { tempoMap } from '$core/time/tempo';
import type { Loop } from '$lib/study/playing';
import { chartOf } from '$tests/laws';
import {
  courseOf,
  type Course,
  passAt,
  passNumbered,
  type Round,
  roundOf,
  takenUpAt,
  withRound,
} from './course';
import { after, begin, type Happening, type History, openPass, shiftIn } from './history';
import { judged, type Judging, NOTHING_JUDGED } from './judging';
import { tempoAt } from './tempos';
import { BEAT } from 'corvel-core';

const CHART = chartOf(
  '| Gm7 | C7 | Fmaj7 | D7 | Bbm7 | Eb7 | Abmaj7 | % | Gm7 | C7 | Fmaj7 | % | Gm7 | C7 | F6 | % |',
);
const BARS = CHART.bars.length;

function round(from: number, to: number): Round {
  const made = roundOf(CHART, { from, to });
  if (!made) throw new Error('no bars');
  return made;
}
const FORM = round(0, BARS);

/** So many beats. */
const at = (beats: number) => Math.round(beats * BEAT);

/** The bars that sound, bar by bar, from a beat on. */
const barsOf = (course: Course, from: number, count: number): readonly number[] =>
  Array.from({ length: count }, (_, bar) => {
    const beat = at(from + 4 * bar);
    const { start, begins } = passAt(course, beat);
    return (start + beat - begins) / at(4) + 1;
  });

describe('a course', () => {
  test('goes its bars round and round, each pass with its number, its beat and the bars before it', () => {
    const course = courseOf(round(4, 6));
    expect(barsOf(course, 0, 5)).toEqual([5, 6, 5, 6, 5]);
    expect(passAt(course, at(-3))).toMatchObject({
      number: 0,
      begins: at(0),
      beats: at(8),
      bar: 0,
    });
    expect(passAt(course, at(7.99)).number).toBe(0);
    expect(passAt(course, at(8))).toMatchObject({ number: 1, begins: at(8), bar: 2 });
    expect(passNumbered(course, 3)).toEqual(passAt(course, at(24)));
  });

  test('takes another loop up at the end of the pass that sounds', () => {
    const course = withRound(courseOf(round(0, 2)), round(4, 6), at(1.5));
    expect(barsOf(course, 0, 6)).toEqual([1, 2, 5, 6, 5, 6]);
    expect(passAt(course, at(8))).toMatchObject({ number: 1, bar: 2, beats: at(8) });
    expect(passNumbered(course, 2).begins).toBe(at(16));
  });

  test('at the end of the new bars, where they come first; and at the next beat, where they are behind', () => {
    // In bar 2 of the form: bars 3 and 4 are ahead, they are played and come again.
    expect(barsOf(withRound(courseOf(FORM), round(2, 4), at(5)), 0, 7)).toEqual([
      1, 2, 3, 4, 3, 4, 3,
    ]);
    // In the midst of what is chosen: to its end.
    expect(barsOf(withRound(courseOf(FORM), round(0, 4), at(5)), 0, 6)).toEqual([1, 2, 3, 4, 1, 2]);
    // In bar 11: bars 5 and 6 are over.
    const behind = withRound(courseOf(FORM), round(4, 6), at(41.3));
    expect(takenUpAt(courseOf(FORM), round(4, 6), at(41.3))).toBe(at(42));
    expect(passAt(behind, at(41.9)).number).toBe(0);
    expect(barsOf(behind, 42, 3)).toEqual([5, 6, 5]);
    // The pass that is left is as long as it was played.
    expect(passNumbered(behind, 0).beats).toBe(at(42));
    // Never after the end of the pass.
    expect(takenUpAt(courseOf(round(2, 4)), round(0, 1), at(7.6))).toBe(at(8));
  });

  test('chosen before anything has sounded, the last choice is what is played, and alone', () => {
    const course = withRound(courseOf(round(0, 2)), round(4, 6), at(0));
    expect(course).toEqual(courseOf(round(4, 6)));
    const twice = withRound(withRound(courseOf(FORM), round(8, 10), at(3)), round(12, 14), at(3.5));
    expect(barsOf(twice, 0, 17).slice(12)).toEqual([13, 14, 13, 14, 13]);
    expect(twice).toHaveLength(2);
    // Taken back before it began: on as before.
    const back = withRound(
      withRound(courseOf(round(0, 2)), round(4, 6), at(1)),
      round(0, 2),
      at(2),
    );
    expect(barsOf(back, 0, 4)).toEqual([1, 2, 1, 2]);
  });

  test('whatever is chosen when: passes join, are numbered on, and the last loop is what sounds', () => {
    const loop = fc
      .tuple(fc.nat(BARS - 1), fc.integer({ min: 1, max: BARS }))
      .map(([from, bars]): Loop => ({ from, to: Math.min(BARS, from + bars) }));
    const press = fc.record({ loop, after: fc.integer({ min: 0, max: 80 }).map((n) => at(n / 4)) });
    fc.assert(
      fc.property(loop, fc.array(press, { maxLength: 6 }), (first, presses) => {
        let course = courseOf(round(first.from, first.to));
        let reached = 0;
        let last = first;
        for (const one of presses) {
          reached += one.after;
          const before = course;
          course = withRound(course, round(one.loop.from, one.loop.to), reached);
          last = one.loop;
          // What was made by then stays as it was.
          for (let beat = 0; beat < reached; beat += BEAT)
            expect(passAt(course, beat).begins).toBe(passAt(before, beat).begins);
        }
        let end = 0;
        let bars = 0;
        for (let number = 0; number < 12; number++) {
          const pass = passNumbered(course, number);
          expect(pass.begins).toBe(end);
          expect(pass.beats).toBeGreaterThan(0);
          expect(pass.bar).toBe(bars);
          expect(passAt(course, pass.begins)).toEqual(pass);
          end = pass.begins + pass.beats;
          bars += pass.loop.to - pass.loop.from;
        }
        expect(passAt(course, reached + at(4 * BARS + 1)).loop).toEqual(last);
      }),
    );
  });

  test('a programme sounds what its course says, the pick-up of the next pass within the one before', () => {
    const event = (beat: number): SoundEvent => ({
      part: 'line',
      beat: at(beat),
      beats: at(1),
      velocity: 0.5,
      midi: 60,
    });
    const course = withRound(courseOf(round(0, 2)), round(4, 5), at(1));
    const programme = passesOf((number) => [event(-1), event(0), event(number === 0 ? 6 : 3)], {
      start: at(-1),
      length: at(8),
      ends: null,
      tempo: tempoMap([{ beat: 0, bpm: 60 }]),
      passAt: (beat) => passAt(course, beat),
      passNumbered: (number) => passNumbered(course, number),
    });
    expect(programme.eventsBetween(at(-1), at(16)).map(({ beat }) => beat / BEAT)).toEqual([
      ...[-1, 0, 6, 7, 8, 11, 11, 12, 15, 15],
    ]);
  });
});

describe('what happens while it plays', () => {
  const begun = (changed: Partial<Parameters<typeof begin>[0]> = {}): History =>
    begin({ round: round(0, 2), bpm: 100, ramp: null, way: 'same', seed: 1, ...changed });
  const ramp = { by: 10, every: 2, goal: 140 };
  const tempos = (history: History, beats: readonly number[]) =>
    beats.map((beat) => tempoAt(history.tempos, at(beat)));

  test('a tempo holds from where it was set; a ramp goes on from it, by the passes it counts', () => {
    const set = after(begun(), { what: 'tempo', bpm: 90, reached: at(3) }, null);
    expect(tempos(set, [0, 2.9, 3, 50])).toEqual([100, 100, 90, 90]);
    const ramped = begun({ ramp });
    expect(tempos(ramped, [15, 16, 32, 48, 64, 90])).toEqual([100, 110, 120, 130, 140, 140]);
    const faster = after(ramped, { what: 'tempo', bpm: 125, reached: at(20) }, ramp);
    expect(tempos(faster, [15, 19, 20, 31, 32, 48])).toEqual([100, 110, 125, 125, 135, 140]);
    expect(
      tempos(after(begun(), { what: 'tempo', bpm: 9_000, reached: at(0) }, null), [0]),
    ).toEqual([400]);
  });

  test('a poor pass makes the next one slower, never too slow', () => {
    const poor = after(begun(), { what: 'poor', reached: at(5) }, null);
    expect(tempos(poor, [7.9, 8, 60])).toEqual([100, 96, 96]);
    const ramped = after(begun({ ramp }), { what: 'poor', reached: at(17) }, ramp);
    expect(tempos(ramped, [16, 23.9, 24, 39.9, 40])).toEqual([110, 110, 100, 100, 110]);
    // Just as a pass begins, it is that one.
    expect(openPass(begun().course, at(8)).begins).toBe(at(8));
    expect(openPass(begun().course, at(8.01)).begins).toBe(at(16));
    expect(openPass(begun().course, at(0)).begins).toBe(at(8));
    const slowest = after(begun({ bpm: 21 }), { what: 'poor', reached: at(5) }, null);
    expect(tempoAt(slowest.tempos, at(9))).toBe(20);
  });

  test('another loop keeps the tempo that sounds, and its passes are those a ramp counts', () => {
    const looped = after(
      after(begun({ ramp }), { what: 'poor', reached: at(5) }, ramp),
      { what: 'loop', round: round(4, 5), reached: at(9) },
      ramp,
    );
    // Taken up at beat 16, in passes of four beats: faster every two of them.
    expect(tempos(looped, [0, 8, 15.9, 16, 23.9, 24, 32])).toEqual([
      ...[100, 90, 90, 90, 90, 100, 110],
    ]);
    expect(barsOf(looped.course, 0, 6)).toEqual([1, 2, 1, 2, 5, 5]);
  });

  test('other keys come with the next pass, in their own order; the pass that sounds keeps its own', () => {
    const fourths = after(begun(), { what: 'keys', way: 'fourths', seed: 1, reached: at(9) }, null);
    expect([0, 1, 2, 3, 4].map((pass) => shiftIn(fourths, pass))).toEqual([0, 0, 0, 5, 10]);
    const steps: Happening = { what: 'keys', way: 'half steps', seed: 1, reached: at(25) };
    const both = after(fourths, steps, null);
    expect([2, 3, 4, 5].map((pass) => shiftIn(both, pass))).toEqual([0, 5, 0, 1]);
    const atOnce = after(begun(), { ...steps, reached: at(0) }, null);
    expect([0, 1].map((pass) => shiftIn(atOnce, pass))).toEqual([0, 1]);
  });

  test('what goes round already, chosen again, changes nothing; one taken back leaves the tempo set', () => {
    const ramped = begun({ ramp });
    const set = after(ramped, { what: 'tempo', bpm: 125, reached: at(20) }, ramp);
    const again: Happening = { what: 'loop', round: round(0, 2), reached: at(21) };
    expect(after(set, again, ramp)).toBe(set);
    // Another was to follow, and does not: the tempo that sounds goes on.
    const pending = after(set, { what: 'loop', round: round(4, 6), reached: at(21) }, ramp);
    const back = after(pending, { ...again, reached: at(22) }, ramp);
    expect(barsOf(back.course, 0, 8)).toEqual([1, 2, 1, 2, 1, 2, 1, 2]);
    expect(tempos(back, [0, 16, 20, 24, 39, 40])).toEqual([100, 110, 125, 125, 125, 135]);
  });

  test('two changes within a beat: both hold', () => {
    let history = begun();
    history = after(history, { what: 'tempo', bpm: 80, reached: at(2) }, null);
    history = after(history, { what: 'loop', round: round(4, 6), reached: at(2.2) }, null);
    history = after(history, { what: 'tempo', bpm: 84, reached: at(2.4) }, null);
    expect(tempos(history, [1.9, 2.1, 2.4, 8, 30])).toEqual([100, 80, 84, 84, 84]);
    expect(barsOf(history.course, 0, 4)).toEqual([1, 2, 5, 6]);
  });
});

describe('judging', () => {
  const pass = (number: number, landed = 1, asked = 2) => ({
    pass: number,
    landed,
    asked,
    landings: [],
    sentence: '',
    taken: [],
    span: { from: 0, to: 1 },
  });
  const fold = (...heard: readonly Parameters<typeof judged>[1][]): Judging =>
    heard.reduce(judged, NOTHING_JUDGED);

  test('a pass is judged once, and one that is broken off as far as it went', () => {
    const twice = fold({ what: 'ended', pass: pass(0) }, { what: 'ended', pass: pass(0, 2) });
    expect(twice.done).toMatchObject({ pass: 0, landed: 1, run: 0 });
    const broken = fold(
      { what: 'ended', pass: pass(0) },
      { what: 'going', pass: pass(1, 3, 3) },
      { what: 'stopped' },
    );
    expect(broken).toMatchObject({ run: 1, going: null, done: { pass: 1, landed: 3, run: 0 } });
  });

  test('where nothing was asked yet, what is broken off is nothing; the next run counts anew', () => {
    const stopped = fold(
      { what: 'ended', pass: pass(4) },
      { what: 'going', pass: pass(5, 0, 0) },
      { what: 'stopped' },
    );
    expect(stopped.done).toMatchObject({ pass: 4, run: 0 });
    expect(judged(stopped, { what: 'ended', pass: pass(0, 2) }).done).toMatchObject({
      pass: 0,
      run: 1,
      landed: 2,
    });
    // What ended while it was heard is not judged again when it stops.
    const ended = fold(
      { what: 'going', pass: pass(0, 0, 1) },
      { what: 'ended', pass: pass(0, 2) },
      { what: 'stopped' },
    );
    expect(ended.done).toMatchObject({ pass: 0, landed: 2 });
  });

  test('a recording is shown, and is no pass of the one that plays', () => {
    const both = fold({ what: 'recorded', pass: pass(3) }, { what: 'ended', pass: pass(0, 2) });
    expect(both.done).toMatchObject({ pass: 0, run: 0 });
  });
});
