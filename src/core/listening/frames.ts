/**
 * Sound as frames: every five milliseconds how loud it is, how much of that is new, and what pitch
 * sounds. The pitches a frame may have are the peaks of McLeod's normalised difference (McLeod and
 * Wyvill, "A smarter way to find pitch", 2005); which of them it has is found for a whole stretch
 * together, as the path of least cost (Boersma, "Accurate short-term analysis of the fundamental
 * frequency", 1993).
 */
import { Autocorrelator } from 'pitchy';
import { at, range } from '../lists';

export interface Frame {
  /** When its middle sounds. */
  readonly seconds: number;
  /** Pitch in MIDI numbers with its cents after the point; null where none is clear. */
  readonly pitch: number | null;
  /** How periodic the sound is, 0 to 1. */
  readonly clarity: number;
  /** Loudness in decibels of full scale. */
  readonly level: number;
  /** Loudness of what is high in it, where the pick is heard. */
  readonly bright: number;
}

/** Seconds between frames. */
export const HOP = 0.005;
/** Seconds either side over which loudness is taken: two periods of the lowest string, or it would ripple. */
const LOUDNESS = 0.0125;
/** What samples are brought down to: enough for the highest note and its pick. */
const RATE = 22_050;
/** Samples looked at for a pitch: three periods of the lowest string and a little more. */
const WINDOW = 1_280;
/** From E1, a half step spare, to E6 and a bend. */
const RANGE = { low: 39, high: 1_500 } as const;
export const FLOOR = -90;
/** Below this nothing is looked for. */
const SILENT = -58;

const decibels = (power: number): number => Math.max(FLOOR, 10 * Math.log10(power + 1e-12));
const midiOf = (hertz: number): number => 69 + 12 * Math.log2(hertz / 440);

/** Samples at a lower rate: means of so many in a row, after a gentle low pass. */
function lowered(samples: Float32Array, factor: number): Float32Array {
  if (factor <= 1) return samples;
  const length = Math.floor(samples.length / factor);
  const out = new Float32Array(length);
  // A triangle of twice the step keeps what would fold back low.
  const weights = range(1 - factor, factor).map((away) => factor - Math.abs(away));
  const sum = weights.reduce((whole, one) => whole + one, 0);
  for (let index = 0; index < length; index++) {
    const middle = index * factor;
    let value = 0;
    for (const [place, weight] of weights.entries()) {
      value += weight * (samples[middle + place - factor + 1] ?? 0);
    }
    out[index] = value / sum;
  }
  return out;
}

function powerOf(samples: Float32Array, from: number, to: number, difference: boolean): number {
  let sum = 0;
  let count = 0;
  for (let index = Math.max(1, from); index < Math.min(samples.length, to); index++) {
    const here = samples[index] as number;
    const value = difference ? here - (samples[index - 1] as number) : here;
    sum += value * value;
    count += 1;
  }
  return count === 0 ? 0 : sum / count;
}

/** A pitch a frame may have, and how periodic the frame is at it. */
interface Candidate {
  readonly pitch: number;
  readonly clarity: number;
}

const correlator = Autocorrelator.forFloat32Array(WINDOW);
const window = new Float32Array(WINDOW);
const correlation = new Float32Array(WINDOW);
/** Peaks kept of a frame, and the least worth keeping. */
const PEAKS = { most: 6, least: 0.45 } as const;

/** The pitches that samples about their middle may have. */
function candidatesAround(
  samples: Float32Array,
  middle: number,
  rate: number,
): readonly Candidate[] {
  const from = middle - WINDOW / 2;
  const begin = Math.max(0, from);
  window.fill(0);
  window.set(samples.subarray(begin, Math.min(samples.length, from + WINDOW)), begin - from);
  correlator.autocorrelate(window, correlation);
  let power = 2 * (correlation[0] as number);
  if (power <= 0) return [];
  const least = Math.floor(rate / RANGE.high);
  const most = Math.min(WINDOW - 2, Math.ceil(rate / RANGE.low));
  const found: Candidate[] = [];
  let before = 1;
  let here = 1;
  for (let lag = 0; lag <= most + 1; lag++) {
    // The power of what overlaps shrinks by a sample at either end.
    if (lag > 0) {
      power -= (window[lag - 1] as number) ** 2 + (window[WINDOW - lag] as number) ** 2;
    }
    const next = power > 1e-9 ? (2 * (correlation[lag] as number)) / power : 0;
    if (lag - 1 >= least && here > before && here >= next && here > PEAKS.least) {
      const bow = before - 2 * here + next;
      const offset = bow === 0 ? 0 : (0.5 * (before - next)) / bow;
      const clarity = here - 0.25 * (before - next) * offset;
      found.push({ pitch: midiOf(rate / (lag - 1 + offset)), clarity: Math.min(1, clarity) });
    }
    before = here;
    here = next;
  }
  return found.toSorted((a, b) => b.clarity - a.clarity).slice(0, PEAKS.most);
}

/** What the path through pitches costs. */
const PATH = {
  /** For each octave lower: of two periods that fit the shorter is meant. */
  octave: 0.1,
  /** For each octave jumped from frame to frame, at the most. */
  jump: 0.1,
  most: 0.5,
} as const;

/** One pitch for each frame, chosen together; null where there is none. */
function tracked(
  frames: readonly (readonly Candidate[])[],
  fresh: readonly boolean[],
): readonly (Candidate | null)[] {
  const chosen: (Candidate | null)[] = frames.map(() => null);
  let from = 0;
  while (from < frames.length) {
    if (at(frames, from).length === 0) {
      from += 1;
      continue;
    }
    let to = from;
    while (to < frames.length && at(frames, to).length > 0) to += 1;
    const stand = ({ pitch, clarity }: Candidate) =>
      1 - clarity - (PATH.octave * (pitch - 28)) / 12;
    let costs = at(frames, from).map(stand);
    const backs: number[][] = [];
    for (let index = from + 1; index < to; index++) {
      const before = at(frames, index - 1);
      const back: number[] = [];
      costs = at(frames, index).map((one) => {
        let best = Infinity;
        let which = 0;
        for (const [place, other] of before.entries()) {
          const size = Math.abs(one.pitch - other.pitch) / 12;
          const jump = fresh[index] ? 0 : Math.min(PATH.most, PATH.jump * size);
          const cost = at(costs, place) + jump;
          if (cost < best) {
            best = cost;
            which = place;
          }
        }
        back.push(which);
        return best + stand(one);
      });
      backs.push(back);
    }
    let node = costs.indexOf(Math.min(...costs));
    for (let index = to - 1; index >= from; index--) {
      chosen[index] = at(at(frames, index), node);
      if (index > from) node = at(at(backs, index - from - 1), node);
    }
    from = to;
  }
  return chosen;
}

/** How much brighter a frame is than those before it where something new begins. */
const FRESH = 6;

/** The frames of a sound, mono, −1 to 1, at a rate in hertz. */
export function framesOf(given: Float32Array, givenRate: number): readonly Frame[] {
  const factor = Math.max(1, Math.round(givenRate / RATE));
  const samples = lowered(given, factor);
  const rate = givenRate / factor;
  const hop = HOP * rate;
  const count = Math.floor(samples.length / hop);
  const around = Math.round(LOUDNESS * rate);
  const plain = range(0, count).map((index) => {
    const middle = Math.round((index + 0.5) * hop);
    const [from, to] = [middle - around, middle + around];
    const level = decibels(powerOf(samples, from, to, false));
    const bright = decibels(powerOf(samples, from, to, true));
    return { middle, level, bright, seconds: (index + 0.5) * HOP };
  });
  let last: readonly Candidate[] = [];
  const candidates = plain.map(({ middle, level }, index) => {
    if (level < SILENT) return [];
    // A pitch changes more slowly than a level: every other frame is looked at.
    if (index % 2 === 0 || last.length === 0) last = candidatesAround(samples, middle, rate);
    return last;
  });
  const fresh = plain.map(({ bright }, index) => {
    const before = plain[index - 4]?.bright ?? FLOOR;
    return bright - before > FRESH;
  });
  const path = tracked(candidates, fresh);
  return plain.map(({ seconds, level, bright }, index): Frame => {
    const found = path[index] ?? null;
    return { seconds, level, bright, pitch: found?.pitch ?? null, clarity: found?.clarity ?? 0 };
  });
}
