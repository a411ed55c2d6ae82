/**
 * How a pitch moves while it sounds: followed from frame to frame along a peak of McLeod's
 * normalised difference (McLeod and Wyvill, "A smarter way to find pitch", 2005), looked at only
 * near where it was, so that a string still ringing beneath does not draw it away.
 */
import { type Hertz, pitchOfHertz } from '../notes/pitch';
import type { Tape } from './tape';

/** The pitch at a moment. */
export interface ContourPoint {
  readonly seconds: number;
  /** Pitch as a MIDI number with its cents after the point. */
  readonly pitch: number;
  /** How periodic the sound is there, 0 to 1. */
  readonly clarity: number;
}

/** Seconds between points, and how much sound a point looks at: some periods, and not too little. */
const STEP = 0.01;
const LOOK = { periods: 3, least: 0.02 } as const;
/** How far a pitch may go from one point to the next, as a share of its period: a little over a half step. */
const NEAR = 0.06;
/** Samples a lag spans at least, in whole periods, so that high pitches are found as exactly as low ones. */
const SPAN = 220;
/** Below this a point does not move the pitch that is followed. */
const CLEAR = 0.6;

/** The best period near one, in samples, and how well it fits. */
function fitAt(
  sound: Float32Array,
  periods: number,
  [from, to]: readonly [number, number],
): { lag: number; fit: number } {
  const length = sound.length - to - 1;
  const fits: number[] = [];
  for (let lag = from - 1; lag <= to + 1; lag++) {
    let product = 0;
    let power = 0;
    for (let index = 0; index < length; index++) {
      const here = sound[index] as number;
      const there = sound[index + lag] as number;
      product += here * there;
      power += here * here + there * there;
    }
    fits.push(power > 1e-9 ? (2 * product) / power : 0);
  }
  let best = 1;
  for (let place = 1; place < fits.length - 1; place++)
    if ((fits[place] as number) > (fits[best] as number)) best = place;
  const [before, here, after] = [fits[best - 1] ?? 0, fits[best] ?? 0, fits[best + 1] ?? 0];
  const bow = before - 2 * here + after;
  const offset = bow < 0 ? Math.max(-1, Math.min(1, (0.5 * (before - after)) / bow)) : 0;
  return { lag: (from - 1 + best + offset) / periods, fit: here };
}

/** The points of a pitch from one moment to another, begun at a pitch in hertz. */
export function contourOf(
  tape: Tape,
  start: Hertz,
  from: number,
  to: number,
): readonly ContourPoint[] {
  const points: ContourPoint[] = [];
  let period = tape.rate / start;
  for (let seconds = from; seconds < to; seconds += STEP) {
    const periods = Math.max(1, Math.min(8, Math.round(SPAN / period)));
    const lag = period * periods;
    const reach = Math.max(1, Math.min(NEAR * lag, 0.45 * period));
    const range = [Math.floor(lag - reach), Math.ceil(lag + reach)] as const;
    const look = Math.round(Math.max(LOOK.periods * period, LOOK.least * tape.rate));
    const sound = tape.copy(Math.round(seconds * tape.rate), look + range[1] + 1);
    const found = fitAt(sound, periods, range);
    if (found.fit >= CLEAR) period = found.lag;
    points.push({
      seconds,
      pitch: pitchOfHertz(tape.rate / found.lag),
      clarity: Math.max(0, Math.min(1, found.fit)),
    });
  }
  return points;
}
