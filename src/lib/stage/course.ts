/**
 * The course of what is played: pass after pass of one loop, then of another once the player has chosen it.
 * Beats are counted on through all passes; everything here is a value made from values.
 */
import { BEAT, type Chart } from 'corvel-core';
import type { Beats } from '$core/time/units';
import { fitLoop, sameLoop } from '$lib/study/loops';
import type { Loop } from '$lib/study/playing';

/** Some bars of a chart that go round. */
export interface Round {
  readonly loop: Loop;
  /** The beat of the chart they begin with, and how long they are. */
  readonly start: Beats;
  readonly beats: Beats;
}

/** Passes of one round, one after another, from a beat on. */
interface Leg extends Round {
  readonly from: Beats;
  /** The number of its first pass, and how many bars were played before it. */
  readonly pass: number;
  readonly bar: number;
}

export type Course = readonly [Leg, ...Leg[]];

/** One time through a round. */
export interface Pass extends Round {
  readonly number: number;
  readonly begins: Beats;
  /** Bars played before it. */
  readonly bar: number;
}

/** Just before a pass: a tick. */
export const BEFORE: Beats = 1;

/** The bars of a loop as a round; null where the chart has none. */
export function roundOf(chart: Chart, wanted: Loop | null): Round | null {
  const loop = fitLoop(chart, wanted);
  const first = chart.bars[loop.from];
  const last = chart.bars[loop.to - 1];
  if (!first || !last) return null;
  return { loop, start: first.beat, beats: last.beat + last.beats - first.beat };
}

/** A course that goes one round for ever. */
export const courseOf = (round: Round): Course => [{ ...round, from: 0, pass: 0, bar: 0 }];

const barsIn = ({ loop }: Round): number => loop.to - loop.from;

/** A pass of a leg, counted from the leg's first; it is cut short where the next leg begins. */
function passOf(leg: Leg, next: Leg | undefined, count: number): Pass {
  const begins = leg.from + count * leg.beats;
  return {
    loop: leg.loop,
    start: leg.start,
    number: leg.pass + count,
    begins,
    beats: next ? Math.min(leg.beats, next.from - begins) : leg.beats,
    bar: leg.bar + count * barsIn(leg),
  };
}

/** A pass of the last leg that has begun, counted from that leg's first; of the first where none has. */
function passIn(course: Course, begun: (leg: Leg) => boolean, count: (leg: Leg) => number): Pass {
  const place = Math.max(0, course.findLastIndex(begun));
  const leg = course[place] ?? course[0];
  return passOf(leg, course[place + 1], count(leg));
}

/** The pass a beat lies in; before the first beat the first. */
export const passAt = (course: Course, beat: Beats): Pass =>
  passIn(
    course,
    ({ from }) => from <= beat,
    ({ from, beats }) => Math.max(0, Math.floor((beat - from) / beats)),
  );

/** The pass of a number. */
export const passNumbered = (course: Course, number: number): Pass =>
  passIn(
    course,
    ({ pass }) => pass <= number,
    ({ pass }) => number - pass,
  );

/**
 * The beat from which another round is played, where sound is made up to `reached`. The pass that sounds is
 * played to its end, or to the end of the new round where that comes sooner; where the new round is over
 * already, it begins with the next beat.
 */
export function takenUpAt(course: Course, round: Round, reached: Beats): Beats {
  const now = passAt(course, Math.max(0, reached));
  const end = now.begins + now.beats;
  const left = round.start + round.beats - (now.start + (reached - now.begins));
  if (left > 0) return Math.min(end, reached + left);
  return Math.min(end, Math.ceil(reached / BEAT) * BEAT);
}

/** A course that goes another round from where it is taken up; what is played by then stays. */
export function withRound(course: Course, round: Round, reached: Beats): Course {
  // Nothing has sounded: it begins with what was chosen.
  if (reached <= 0) return courseOf(round);
  // A round that was chosen and has not begun is not played.
  const [first, ...later] = course;
  const begun: Course = [first, ...later.filter(({ from }) => from < reached)];
  const from = takenUpAt(begun, round, reached);
  const before = passAt(begun, from - BEFORE);
  const last = begun.at(-1) ?? first;
  if (sameLoop(last.loop, round.loop)) return begun;
  const bar = before.bar + barsIn(before);
  return [...begun, { ...round, from, pass: before.number + 1, bar }];
}
