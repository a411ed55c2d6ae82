/**
 * Where strings are struck: the growth of a logarithmic spectrum from frame to frame, each band
 * held against its neighbours before, so that a pitch that only bends is not taken for a new one
 * (Böck and Widmer, "Maximum filter vibrato suppression for onset detection", 2013).
 */
import { at } from '../lists';
import { spectra } from './spectrum';
import type { Tape } from './tape';

/** Seconds between frames. */
export const HOP = 0.005;
/** Seconds of sound in a frame: enough to tell neighbouring low notes apart. */
const WINDOW = 0.0464;
/** Bands, in hertz: a bin each at the bottom, then a half step each. */
const BANDS = { low: 43, high: 9_000 } as const;
/** Frames back that a frame is held against. */
const LAG = 3;
/** The logarithm begins to matter at a thousandth of what is usual; what is usual, in decibels. */
const LOG = { gain: 3_000, usual: -22, least: -60, fade: 0.01, smooth: 0.15 } as const;
/** What is hardly louder than the softest of late is not listened to; never so much as a note. */
const FLOOR = { least: -70, over: 6, under: 24 } as const;
/** A peak stands alone so many frames about, over the mean of those around it. */
const PEAK = { alone: 5, before: 20, after: 8, over: 1, apart: 9 } as const;
/** A strike begins where its growth first reaches this share, and so long after: half a window is ahead. */
const BEGINS = { share: 0.1, frames: 8, seconds: 0.008 } as const;
/** Bands the thresholds were found with. */
const USUAL_BANDS = 80;

const decibels = (power: number): number => 10 * Math.log10(power + 1e-12);

/** A moment at which a string is struck. */
export interface Strike {
  readonly frame: number;
  readonly seconds: number;
  /** How much grew, over what grew around it. */
  readonly growth: number;
}

interface Strikes {
  /** Frames there have been, and how loud each was, in decibels of full scale. */
  readonly levels: readonly number[];
  /** How loud each frame would have to be to be listened to. */
  readonly floors: readonly number[];
  /** Looks at what is new on the tape; answers the strikes that are now certain. */
  look(): readonly Strike[];
  /** The strikes of what is left, when no more sound will come. */
  finish(): readonly Strike[];
}

/** Groups of bins: one each while they are wider than a half step, then a half step each. */
function bandsOf(rate: number, size: number): readonly (readonly [from: number, to: number])[] {
  const bands: (readonly [number, number])[] = [];
  const top = Math.min(BANDS.high, 0.47 * rate);
  let from = Math.round((BANDS.low * size) / rate);
  while ((from * rate) / size < top) {
    const to = Math.max(from + 1, Math.round(from * 2 ** (1 / 12)));
    bands.push([from, to]);
    from = to;
  }
  return bands;
}

/** Finds strikes on a tape as it runs. */
export function createStrikes(tape: Tape): Strikes {
  const hop = HOP * tape.rate;
  const length = 2 * Math.round((WINDOW * tape.rate) / 2);
  const size = 2 ** Math.ceil(Math.log2(length));
  const spectrum = spectra(length, size);
  const bands = bandsOf(tape.rate, size);
  const levels: number[] = [];
  const floors: number[] = [];
  const growths: number[] = [];
  const recent: Float32Array[] = [];
  let loudest: number = LOG.least;
  let softest = 0;
  let smooth = 0;
  let decided = 0;
  let last = -Infinity;

  function hear(index: number) {
    const middle = Math.round(index * hop);
    const sound = tape.copy(middle - length / 2, length);
    const amplitudes = spectrum.of(sound);
    const powers = Float32Array.from(bands, ([from, to]) => {
      let sum = 0;
      for (let bin = from; bin < to; bin++) sum += (amplitudes[bin] as number) ** 2;
      return Math.sqrt(sum);
    });
    const around = Math.round(length / 4);
    let power = 0;
    for (let place = around; place < length - around; place++)
      power += (sound[place] as number) ** 2;
    const level = decibels(power / (length - 2 * around));
    levels.push(level);
    loudest = Math.max(loudest - LOG.fade, level, LOG.least);
    smooth = levels.length === 1 ? level : smooth + LOG.smooth * (level - smooth);
    softest = Math.min(softest + LOG.fade, smooth);
    floors.push(Math.max(FLOOR.least, Math.min(softest + FLOOR.over, loudest - FLOOR.under)));
    const gain = LOG.gain * 10 ** ((LOG.usual - loudest) / 20);
    const before = recent.length >= LAG ? at(recent, recent.length - LAG) : null;
    recent.push(powers);
    if (recent.length > LAG) recent.shift();
    let growth = 0;
    for (let band = 0; band < bands.length; band++) {
      const widest = Math.max(
        before?.[band - 1] ?? 0,
        before?.[band] ?? 0,
        before?.[band + 1] ?? 0,
      );
      const here = powers[band] as number;
      if (here > widest) growth += Math.log10((1 + gain * here) / (1 + gain * widest));
    }
    growths.push((growth * USUAL_BANDS) / bands.length);
  }

  /** Where a strike whose growth peaks at a frame began, in seconds. */
  function beganAt(peak: number): number {
    let least = Infinity;
    for (let back = 0; back < BEGINS.frames; back++)
      least = Math.min(least, growths[peak - back] ?? 0);
    const wanted = least + BEGINS.share * (at(growths, peak) - least);
    let first = peak;
    while (first > peak - BEGINS.frames && (growths[first - 1] ?? 0) > wanted) first -= 1;
    const before = growths[first - 1] ?? 0;
    const share = (at(growths, first) - wanted) / Math.max(1e-9, at(growths, first) - before);
    return Math.max(0, (first - Math.min(1, share)) * HOP + BEGINS.seconds);
  }

  function decide(index: number): Strike | null {
    const here = at(growths, index);
    if (here < PEAK.over || index - last < PEAK.apart) return null;
    for (let away = -PEAK.alone; away <= PEAK.alone; away++)
      if ((growths[index + away] ?? 0) > here) return null;
    let sum = 0;
    for (let away = -PEAK.before; away <= PEAK.after; away++) sum += growths[index + away] ?? 0;
    const over = here - sum / (PEAK.before + PEAK.after + 1);
    if (over < PEAK.over) return null;
    last = index;
    return { frame: index, seconds: beganAt(index), growth: over };
  }

  function decideTo(end: number): readonly Strike[] {
    const found: Strike[] = [];
    for (; decided < end; decided++) {
      const strike = decide(decided);
      if (strike) found.push(strike);
    }
    return found;
  }

  return {
    levels,
    floors,
    look() {
      while (Math.round(levels.length * hop) + length / 2 <= tape.length) hear(levels.length);
      return decideTo(levels.length - PEAK.after);
    },
    finish() {
      while (Math.round(levels.length * hop) < tape.length) hear(levels.length);
      return decideTo(levels.length);
    },
  };
}
