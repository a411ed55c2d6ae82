/** What sounds at a moment of the loop, and what it changes to. */
import { BEAT, type Chart, inBeats } from 'corvel-core';
import type { RouteStop } from '$core/targets/route';
import type { Beats } from '$core/time/units';
import type { PlannedChord } from '$lib/study/choices';
import type { Ahead } from '$lib/study/playing';

export interface Moment {
  readonly now: PlannedChord | null;
  readonly next: PlannedChord | null;
  readonly target: RouteStop | null;
  readonly nextTarget: RouteStop | null;
  /** How long it lasts, from its first beat within the loop to the change. */
  readonly beats: Beats;
}

/** How long before a change what comes is shown. */
const EARLY: Readonly<Record<Ahead, Beats>> = {
  always: Infinity,
  'four beats': 4 * BEAT,
  'two beats': 2 * BEAT,
  'one beat': BEAT,
  nothing: 0,
};

/** Whether what comes is shown so long before the change. */
export const showsAhead = (ahead: Ahead, left: Beats): boolean => left <= EARLY[ahead];

/** Beats over which what comes grows. */
const GROWING = 4;

/** How near a change is so long before it, in whole beats: from 0, far, to 4, the last one. */
export const nearness = (left: Beats): number =>
  Math.max(0, GROWING + 1 - Math.ceil(inBeats(left)));

/** A change: the chord it brings, whether another pass begins with it, and its beat in the pass. */
export interface Change {
  readonly index: number;
  readonly again: boolean;
  readonly beat: Beats;
}

/** A stretch of a chart that comes round, and the chord it begins with. */
export interface Round {
  readonly start: Beats;
  readonly beats: Beats;
  readonly first: number;
}

/** The change that ends a chord: the same chord struck again is none. */
export function changeAfter(
  { chords }: Pick<Chart, 'chords'>,
  sounding: number,
  { start, beats, first }: Round,
): Change {
  const own = chords[sounding]?.chord.symbol;
  const within = chords.findLastIndex(({ beat }) => beat < start + beats);
  const index = chords.findIndex(
    ({ chord }, at) => at > sounding && at <= within && chord.symbol !== own,
  );
  const next = chords[index];
  return next
    ? { index, again: false, beat: next.beat - start }
    : { index: first, again: true, beat: beats };
}

/** How long it is to a change from a beat of the pass, in whole beats begun. */
export const leftTo = (change: Pick<Change, 'beat'>, at: Beats): Beats =>
  Math.max(0, Math.ceil((change.beat - at) / BEAT) * BEAT);
