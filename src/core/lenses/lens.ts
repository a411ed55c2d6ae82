/** Lenses: the schools of choosing what to play over a chord. */
import type { Cadence } from '../harmony/cadences';
import type { IdiomReading } from '../harmony/idiom';
import type { Key } from '../keys/keys';
import type { Material } from './material';
import type { ModeContext } from './modeContext';
import type { Lens } from './table';

/** What a choice does at the change: names it, touches a guide tone, or stays in the key's scale. */
export const INTENTS = ['outline', 'lean', 'coast'] as const;
export type Intent = (typeof INTENTS)[number];

/** A cadence that holds a chord, and how many chords of it stand before and after that one. */
export interface CadenceAround extends Pick<Cadence, 'kind' | 'key'> {
  readonly before: number;
  readonly after: number;
}

/** Everything a lens looks at to answer for one chord. */
export interface LensContext extends ModeContext {
  readonly cadences: readonly CadenceAround[];
  /** The tonic of a blues; null elsewhere. */
  readonly bluesTonic: Key['tonic'] | null;
  /** What the chart's triads and dominants are played as. */
  readonly idiom: IdiomReading;
  /** Single collections that serve the whole chart best, where no key gives one. */
  readonly singles: readonly Material[];
}

/** One sound instead of several, by a second one from some half bar on. */
export interface Switch {
  readonly to: Material;
  /** Half bars of the chord that pass before it. */
  readonly after: number;
}

/** What a lens answers: something to play, and why. */
export interface Suggestion {
  readonly lens: Lens;
  readonly material: Material;
  /** What speaks for it, as the beginning of a sentence. */
  readonly why: string;
  /** Whether players commonly use it here. */
  readonly common: boolean;
  /** Its place among what players reach for before all else here, from 1. */
  readonly front?: number;
  /** The chords it serves, where it serves several: how many before this one and after it. */
  readonly covers?: { readonly before: number; readonly after: number };
  readonly then?: Switch;
}

/** What a lens sees over a chord, best first. */
export type LensAnswer = (context: LensContext) => readonly Suggestion[];
