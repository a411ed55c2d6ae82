/** Swing: how wide it is at a tempo, and where a written beat is played in it. */
import { rememberBy } from '../cache';
import { modulo } from '../lists';
import type { Feel } from './feel';
import { barOf, type TimeSignature } from './metre';
import { pulsesOf } from './pulses';
import type { Beats, BeatsPerMinute } from './units';

/** Swing by the tempo, as ensembles play it: two to one at a walk, evener the faster. */
const RATIOS: readonly (readonly [bpm: BeatsPerMinute, ratio: number])[] = [
  [140, 2],
  [200, 1.6],
  [260, 1.3],
  [320, 1.15],
];

function ratioAt(bpm: BeatsPerMinute): number {
  let [low, ratio] = RATIOS[0] ?? [0, 2];
  for (const [high, next] of RATIOS) {
    if (bpm <= high)
      return high === low ? ratio : ratio + ((bpm - low) / (high - low)) * (next - ratio);
    [low, ratio] = [high, next];
  }
  return ratio;
}

/**
 * A feel at a tempo: its swing no wider than ensembles play it there. A shuffle keeps its triplet. (Friberg
 * and Sundström, "Swing ratios and ensemble timing in jazz performance", 2002.)
 *
 * @example feelAt(feelOfKind('swing'), 260).swing.ratio; // 1.3
 */
export function feelAt(feel: Feel, bpm: BeatsPerMinute): Feel {
  const { swing, kind } = feel;
  if (!swing || kind === 'shuffle') return feel;
  const ratio = Math.min(swing.ratio, ratioAt(bpm));
  return ratio === swing.ratio ? feel : { ...feel, swing: { ...swing, ratio } };
}

/**
 * Where an off-beat sounds, as a share of its beat: 0.5 where eighths are even.
 *
 * @example offBeatOf(feelOfKind('bossa')); // 0.5
 */
export const offBeatOf = ({ swing }: Feel): number =>
  swing?.unit === 'eighth' ? swing.ratio / (swing.ratio + 1) : 0.5;

const pulsesIn = rememberBy(({ beats, unit }: TimeSignature) => `${beats}/${unit}`, pulsesOf);

/**
 * Where a written beat is played in a feel: the second half of a swung pulse falls late by its ratio, every
 * other beat stands where it is written (so that triplets keep their places). Pulses of three are not swung.
 * What is played need not fall on a tick.
 *
 * @example playedAt(1.5 * BEAT, feelOfKind('swing'), { beats: 4, unit: 4 }) / BEAT // 1.6667
 */
export function playedAt(beat: Beats, feel: Feel | null, time: TimeSignature): Beats {
  if (!feel?.swing) return beat;
  const { unit, ratio } = feel.swing;
  const inBar = modulo(beat, barOf(time));
  const pulse = pulsesIn(time).findLast((one) => one.beat <= inBar);
  if (!pulse || pulse.triple) return beat;
  const pair = unit === 'eighth' ? pulse.beats : pulse.beats / 2;
  const within = modulo(inBar - pulse.beat, pair);
  return 2 * within !== pair ? beat : beat + pair * (ratio / (ratio + 1) - 0.5);
}
