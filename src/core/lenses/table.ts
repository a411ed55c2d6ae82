/** Every lens by name, in the order in which they are offered. A new one is a row here. */
import { chordTonesLens, stackedLens, triadsLens } from './arpeggios';
import { bluesLens } from './blues';
import type { LensAnswer } from './lens';
import { modeLens } from './modeLens';
import { borrowedLens, keyScaleLens, ownPentatonicLens } from './pentatonics';
import { simplifyLens } from './simplify';

interface LensRow {
  readonly name: string;
  /** Whether it gives what is the chord's own: its mode, its tones, its pentatonic. */
  readonly own: boolean;
  readonly answer: LensAnswer;
}

export const LENS_TABLE = {
  'key-scale': { name: 'Key scale', own: false, answer: keyScaleLens },
  'own-pentatonic': { name: 'Own pentatonic', own: true, answer: ownPentatonicLens },
  'chord-tones': { name: 'Chord tones', own: true, answer: chordTonesLens },
  mode: { name: 'Mode', own: true, answer: modeLens },
  'stacked-arpeggio': { name: 'Stacked', own: false, answer: stackedLens },
  'borrowed-pentatonic': { name: 'Borrowed', own: false, answer: borrowedLens },
  triads: { name: 'Triads', own: false, answer: triadsLens },
  simplify: { name: 'Simplify', own: false, answer: simplifyLens },
  blues: { name: 'Blues', own: false, answer: bluesLens },
} as const satisfies Readonly<Record<string, LensRow>>;

export const LENSES = Object.keys(LENS_TABLE) as [Lens, ...Lens[]];
export type Lens = keyof typeof LENS_TABLE;
