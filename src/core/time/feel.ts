/** Feel: how beats are divided and felt, from the words a chart says it with. */

import { modulo } from '../lists';
import type { Beats } from './units';

export const FEEL_KINDS = [
  'swing',
  'shuffle',
  'straight',
  'rock',
  'bossa',
  'funk',
  'ballad',
  'jazz waltz',
  'slow 12/8',
  'modal',
] as const;
export type FeelKind = (typeof FEEL_KINDS)[number];

export interface Feel {
  /** As the chart says it. */
  readonly name: string;
  readonly kind: FeelKind;
  /**
   * Which notes are played long–short, and how much longer: 2 for a triplet's two thirds and one.
   * Null where they are even.
   */
  readonly swing: { readonly unit: 'eighth' | '16th'; readonly ratio: number } | null;
}

/** Swung in triplets; ballads and waltzes lie a little flatter. */
const TRIPLET = { unit: 'eighth', ratio: 2 } as const;
const GENTLE = { unit: 'eighth', ratio: 1.6 } as const;

/** Words by which a feel is known, the more particular first. */
const WORDS: readonly (readonly [words: RegExp, kind: FeelKind, swing: Feel['swing']])[] = [
  [/waltz/u, 'jazz waltz', GENTLE],
  [/12\s*\/\s*8/u, 'slow 12/8', null],
  [/shuffle/u, 'shuffle', TRIPLET],
  [/bossa|samba|latin/u, 'bossa', null],
  [/funk|(?:16th|sixteenth)s?/u, 'funk', null],
  [/ballad/u, 'ballad', GENTLE],
  [/modal|vamp/u, 'modal', null],
  [/straight|even/u, 'straight', null],
  [/rock|pop|gospel|folk/u, 'rock', null],
  [/swing|swung|jazz|bop|blues/u, 'swing', TRIPLET],
];

/** The feel words ask for; null where they name none that is known. */
export function knownFeel(words: string): Feel | null {
  const said = words.toLowerCase();
  const found = WORDS.find(([pattern]) => pattern.test(said));
  if (!found) return null;
  const [, kind, swing] = found;
  return { name: words, kind, swing: /straight|even/u.test(said) ? null : swing };
}

/** The feel a chart's words ask for; null where there are none, straight where none is known. */
export function readFeel(words: string | null): Feel | null {
  if (words === null || words.trim() === '') return null;
  return knownFeel(words) ?? { name: words, kind: 'straight', swing: null };
}

/** A feel by its kind alone. */
export const feelOfKind = (kind: FeelKind): Feel =>
  knownFeel(kind) ?? { name: kind, kind, swing: null };

/** Swing by the tempo, as ensembles play it: two to one at a walk, evener the faster. */
const RATIOS: readonly (readonly [bpm: number, ratio: number])[] = [
  [140, 2],
  [200, 1.6],
  [260, 1.3],
  [320, 1.15],
];

function ratioAt(bpm: number): number {
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
 */
export function feelAt(feel: Feel, bpm: number): Feel {
  const { swing, kind } = feel;
  if (!swing || kind === 'shuffle') return feel;
  const ratio = Math.min(swing.ratio, ratioAt(bpm));
  return ratio === swing.ratio ? feel : { ...feel, swing: { ...swing, ratio } };
}

/** Where an off-beat sounds, as a share of its beat: 0.5 where eighths are even. */
export const offBeatOf = ({ swing }: Feel): number =>
  swing?.unit === 'eighth' ? swing.ratio / (swing.ratio + 1) : 0.5;

/** Where a beat that is played in a feel is written: `playedAt` the other way round. */
export function writtenAt(beat: Beats, feel: Feel | null, unit: number): Beats {
  if (!feel?.swing) return beat;
  const { swing } = feel;
  const pair = ((swing.unit === 'eighth' ? 1 : 0.5) * unit) / 4;
  const within = modulo(beat, pair) / pair;
  const off = swing.ratio / (swing.ratio + 1);
  return Math.abs(within - off) > 1e-6 ? beat : beat + pair * (0.5 - off);
}

/**
 * Where a written beat is played in a feel: the second of a swung pair falls late by its ratio, every
 * other beat stands where it is written (so that triplets keep their places).
 */
export function playedAt(beat: Beats, feel: Feel | null, unit: number): Beats {
  if (!feel?.swing) return beat;
  const { swing } = feel;
  // The pair is a quarter, or an eighth where sixteenths swing.
  const pair = ((swing.unit === 'eighth' ? 1 : 0.5) * unit) / 4;
  const within = modulo(beat, pair) / pair;
  return Math.abs(within - 0.5) > 1e-6
    ? beat
    : beat + pair * (swing.ratio / (swing.ratio + 1) - 0.5);
}
