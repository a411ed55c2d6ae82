/** What a chart's text says, with the place of everything in it, before it is played. */
import type { TimeSignature } from '../time/metre';
import type { Chord } from '../chords/chords';
import type { Key } from '../keys/keys';

/** A stretch of the source text: offsets, and the line and column (from 1) where it begins. */
export interface TextPlace {
  readonly from: number;
  readonly to: number;
  readonly line: number;
  readonly column: number;
}

/** Something the text says that cannot be read, in words, at its place. */
export interface Problem extends TextPlace {
  readonly message: string;
  readonly token: string;
}

/** One chord (or silence) of a bar and how many equal shares of the bar it takes. */
export interface Slot {
  readonly chord: Chord | null;
  /** Whether it is written as a degree of the key, Roman or decimal, and so says the same in every key. */
  readonly numeral: boolean;
  readonly shares: number;
  readonly place: TextPlace;
}

type BarContent =
  | { readonly kind: 'slots'; readonly slots: readonly Slot[] }
  /** `%` or `%%`: the previous bar, or the previous two, once more. */
  | { readonly kind: 'repeat'; readonly bars: 1 | 2 };

/** A bar as it is written. */
export interface Bar {
  readonly content: BarContent;
  readonly opensRepeat: boolean;
  /** How often the repeat that ends here is played; null when none ends here. */
  readonly closesRepeat: number | null;
  /** The passes for which this bar begins an ending; empty when it begins none. */
  readonly endings: readonly number[];
  readonly place: TextPlace;
}

/** A section as it is written, with its bars. */
export interface Section {
  readonly name: string | null;
  readonly repeats: number;
  /** The key area, where the section states its own. */
  readonly key: Key | null;
  readonly bars: readonly Bar[];
  readonly place: TextPlace;
}

/** What a chart's triads and dominants are played as. */
export const IDIOMS = ['jazz', 'blues', 'rock'] as const;
export type Idiom = (typeof IDIOMS)[number];

/** A chart as it is written: headers and sections, before repeats are played out. */
export interface ChartSource {
  readonly title: string;
  readonly key: Key | null;
  readonly time: TimeSignature;
  readonly tempo: number | null;
  readonly feel: string | null;
  /** Null where it is left to be guessed. */
  readonly idiom: Idiom | null;
  readonly sections: readonly Section[];
}

/** Longest chart text in characters, and longest form in bars and chords as played. */
export const CHART_LIMITS = {
  characters: 65_536,
  bars: 2_048,
  chords: 4_096,
  repeats: 64,
  /** Problems told at once. */
  problems: 100,
} as const;
