/** What a hand does in time: how far it reaches within a beat, and what it skips in a hurry. */
import { HAND } from '../neck/fingering';
import type { Place } from '../neck/neck';
import { BEAT, type Beats, type BeatsPerMinute, type Seconds } from '../time/units';
import { secondsOf } from '../time/tempo';

/** Below this, picking hands skip no strings. */
const HURRY: Seconds = 0.25;

/**
 * Frets from place to place; none to or from an open string.
 *
 * @example fretsBetween({ string: 3, fret: 5 }, { string: 2, fret: 8 }); // 3
 */
export const fretsBetween = (from: Place, to: Place): number =>
  from.fret === 0 || to.fret === 0 ? 0 : Math.abs(from.fret - to.fret);

/** Whether the way is wider than a stretched hand, and there is but a beat to go it. */
export const isOutOfReach = (from: Place, to: Place, beats: Beats): boolean =>
  beats <= BEAT && fretsBetween(from, to) > HAND.stretched;

/**
 * Whether so little time leaves none to skip a string.
 *
 * @example isHurried(BEAT / 2, 240); // true
 */
export const isHurried = (beats: Beats, tempo: BeatsPerMinute): boolean =>
  secondsOf(beats, tempo) < HURRY;
