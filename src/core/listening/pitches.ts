/**
 * Which pitch a strike brought. What was sounding before may ring on beneath it, so each pitch is
 * weighed by its partials in what is new against what was there (harmonic sums, after Klapuri,
 * "Multiple fundamental frequency estimation based on harmonicity and spectral smoothness", 2003)
 * and by McLeod's normalised difference; the weights were fitted to rendered guitars.
 */
import { Autocorrelator } from 'pitchy';
import { rememberBy } from '../cache';
import { range } from '../lists';
import { type Hertz, hertzOf, type Midi } from '../notes/pitch';
import type { Seconds } from '../time/units';
import { spectra } from './spectrum';
import type { Tape } from './tape';

/** From E1, and a bend over E6. */
const RANGE = { low: 28, high: 90 } as const;
/** Seconds after a strike at which its pick has died away, and before it that are still the old sound. */
const PICK = { after: 0.012, before: 0.004 } as const;
/** Seconds looked at: as many as there are until the next strike, between these. */
const LOOK = { most: 0.0929, least: 0.0464, step: 0.0116 } as const;
/** Of a transform: its bins are to lie a twentieth of a half step apart in the middle of the neck. */
const SIZE = 4_096;
/** Highest partial counted, in hertz. */
const HIGHEST = 5_000;
/** Tunings tried about a pitch, in cents. */
const TUNINGS = [-40, -30, -20, -10, 0, 10, 20, 30, 40] as const;
/** Partials summed, each this much less than the one before. */
const SUM = { partials: 10, less: 0.85 } as const;

/** What speaks for a pitch, each 0 to 1, and how much it weighs. */
const WEIGHTS = {
  newSum: 9.84,
  wholeSum: 6.83,
  oldSum: -3.76,
  newFirst: 1.14,
  wholeFirst: 1.24,
  newOdd: 4.69,
  wholeOdd: 5.61,
  wholeEven: 6.14,
  thirds: -6.9,
  periodic: 2.98,
  share: 17.92,
  firstThree: 3.75,
  near: 4.17,
} as const;
type Feature = keyof typeof WEIGHTS;

/** A pitch that may sound, and what speaks for it. */
export interface Weighed {
  readonly midi: Midi;
  readonly hertz: Hertz;
  /** What speaks for it, weighed together. */
  readonly weight: number;
  /** How periodic the sound is at it, 0 to 1. */
  readonly clarity: number;
}

/** Amplitudes at any frequency, those between bins in proportion. */
type At = (hertz: Hertz) => number;

interface Sounds {
  /** What is there now, what has grown since, and what was there: roots of shares of the loudest. */
  readonly whole: At;
  readonly fresh: At;
  readonly old: At;
  /** How much has grown in all, and about a frequency. */
  readonly freshAll: number;
  freshAbout(hertz: Hertz): number;
  /** McLeod's normalised difference at a frequency. */
  periodicAt(hertz: Hertz): number;
}

const spectrumOf = rememberBy(String, (length: number) => spectra(length, SIZE));
const correlatorOf = rememberBy(String, (length: number) => Autocorrelator.forFloat32Array(length));

/** The normalised difference of some samples for every lag. */
function differencesOf(sound: Float32Array): Float32Array {
  const correlation = correlatorOf(sound.length).autocorrelate(sound);
  let power = 2 * (correlation[0] as number);
  return correlation.map((value, lag) => {
    // The power of what overlaps shrinks by a sample at either end.
    if (lag > 0)
      power -= (sound[lag - 1] as number) ** 2 + (sound[sound.length - lag] as number) ** 2;
    return power > 1e-9 ? (2 * value) / power : 0;
  });
}

function soundsAt(tape: Tape, strike: number, next: number): Sounds {
  const { rate } = tape;
  const from = strike + PICK.after;
  let seconds: number = LOOK.most;
  while (seconds > LOOK.least && from + seconds > next) seconds -= LOOK.step;
  const length = Math.min(SIZE, Math.round(Math.max(LOOK.least, seconds) * rate));
  const spectrum = spectrumOf(length);
  const sound = tape.copy(Math.round(from * rate), length);
  const now = Float32Array.from(spectrum.of(sound));
  const before = spectrum.of(tape.copy(Math.round((strike - PICK.before) * rate) - length, length));
  const bin = rate / SIZE;
  const top = Math.min(spectrum.bins, Math.round(HIGHEST / bin));
  const bottom = Math.round(40 / bin);
  let loudest = 1e-9;
  for (let index = bottom; index < top; index++) loudest = Math.max(loudest, now[index] as number);
  const root = (value: number) => Math.sqrt(Math.max(0, value) / loudest);
  const was = before.map((value, index) =>
    Math.max(value, before[index - 1] ?? 0, before[index + 1] ?? 0),
  );
  const fresh = now.map((value, index) =>
    root(Math.sqrt(Math.max(0, value * value - (was[index] as number) ** 2))),
  );
  const at =
    (values: Float32Array): At =>
    (hertz) => {
      const place = hertz / bin;
      const index = Math.floor(place);
      const share = place - index;
      return (values[index] ?? 0) * (1 - share) + (values[index + 1] ?? 0) * share;
    };
  const differences = differencesOf(sound);
  let freshAll = 1e-6;
  for (let index = bottom; index < top; index++) freshAll += fresh[index] as number;
  return {
    whole: at(now.map(root)),
    fresh: at(fresh),
    old: at(was.map(root)),
    freshAll,
    freshAbout(hertz) {
      const index = Math.round(hertz / bin);
      return (fresh[index - 1] ?? 0) + (fresh[index] ?? 0) + (fresh[index + 1] ?? 0);
    },
    periodicAt(hertz) {
      const lag = Math.round(rate / hertz);
      return Math.max(differences[lag - 1] ?? 0, differences[lag] ?? 0, differences[lag + 1] ?? 0);
    },
  };
}

function partialSum(at: At, hertz: Hertz): number {
  let sum = 0;
  let all = 0;
  let weight = 1;
  for (let partial = 1; partial <= SUM.partials; partial++) {
    if (partial * hertz < HIGHEST) sum += weight * at(partial * hertz);
    all += weight;
    weight *= SUM.less;
  }
  return sum / all;
}

/** Mean of some multiples of a frequency; 0 where all lie too high. */
function meanOf(at: At, hertz: Hertz, multiples: readonly number[]): number {
  const low = multiples.filter((multiple) => multiple * hertz < HIGHEST);
  return low.reduce((sum, multiple) => sum + at(multiple * hertz), 0) / Math.max(1, low.length);
}

function weighed(sounds: Sounds, midi: Midi, before: Midi | null): Weighed {
  const { whole, fresh, old } = sounds;
  let hertz = hertzOf(midi);
  let best = -1;
  for (const cents of TUNINGS) {
    const tried = hertzOf(midi + cents / 100);
    const sum = partialSum(fresh, tried) + 0.5 * partialSum(whole, tried);
    if (sum > best) [best, hertz] = [sum, tried];
  }
  let explained = 0;
  for (let partial = 1; partial <= 16 && partial * hertz < HIGHEST; partial++)
    explained += sounds.freshAbout(partial * hertz);
  const periodic = Math.max(0, sounds.periodicAt(hertz));
  const features: Record<Feature, number> = {
    newSum: partialSum(fresh, hertz),
    wholeSum: partialSum(whole, hertz),
    oldSum: partialSum(old, hertz),
    newFirst: fresh(hertz),
    wholeFirst: whole(hertz),
    newOdd: meanOf(fresh, hertz, [3, 5, 7]),
    wholeOdd: meanOf(whole, hertz, [3, 5, 7]),
    wholeEven: meanOf(whole, hertz, [2, 4, 6]),
    // What a note an octave and a fifth lower would have and this one has not.
    thirds: meanOf(whole, hertz, [1 / 3, 2 / 3, 4 / 3, 5 / 3]),
    periodic,
    share: explained / sounds.freshAll,
    firstThree: Math.min(
      whole(hertz),
      whole(2 * hertz),
      3 * hertz < HIGHEST ? whole(3 * hertz) : 1,
    ),
    // A line goes by small steps more often than by leaps.
    near: before === null ? 0 : 1 / (1 + Math.abs(midi - before) / 6),
  };
  let weight = 0;
  for (const [name, value] of Object.entries(WEIGHTS)) weight += value * features[name as Feature];
  return { midi, hertz, weight, clarity: Math.min(1, periodic) };
}

/** Every pitch a strike may have brought, weighed, until the next strike and after the note before. */
export function pitchesAt(
  tape: Tape,
  strike: Seconds,
  next: Seconds,
  before: Midi | null,
): readonly Weighed[] {
  const sounds = soundsAt(tape, strike, next);
  return range(RANGE.low, RANGE.high + 1).map((midi) => weighed(sounds, midi, before));
}
