/** Every lens by name, in the order in which they are offered. A new one is a row here. */
import { chordTonesLens, stackedLens, triadsLens } from './arpeggios';
import { bluesLens } from './blues';
import type { LensAnswer } from './lens';
import { modeLens } from './modeLens';
import { borrowedLens, keyScaleLens, ownPentatonicLens } from './pentatonics';
import { simplifyLens } from './simplify';

interface LensRow {
  readonly name: string;
  /** Its name where room is short. */
  readonly short: string;
  /** Whether it gives what is the chord's own: its mode, its tones, its pentatonic. */
  readonly own: boolean;
  /** Whether what it offers first, or all in common use, ranks before the rest of it. */
  readonly order?: 'as given' | 'common first';
  readonly answer: LensAnswer;
}

const ROWS = {
  'key-scale': { name: 'Key scale', short: 'Key', own: false, answer: keyScaleLens },
  'own-pentatonic': { name: 'Own pentatonic', short: 'Own', own: true, answer: ownPentatonicLens },
  'chord-tones': { name: 'Chord tones', short: 'Tones', own: true, answer: chordTonesLens },
  mode: { name: 'Mode', short: 'Mode', own: true, order: 'as given', answer: modeLens },
  'stacked-arpeggio': { name: 'Stacked', short: 'Stacked', own: false, answer: stackedLens },
  'borrowed-pentatonic': {
    name: 'Borrowed',
    short: 'Borrowed',
    own: false,
    order: 'common first',
    answer: borrowedLens,
  },
  triads: { name: 'Triads', short: 'Triads', own: false, answer: triadsLens },
  simplify: { name: 'Simplify', short: 'Simplify', own: false, answer: simplifyLens },
  blues: { name: 'Blues', short: 'Blues', own: false, answer: bluesLens },
} as const satisfies Readonly<Record<string, LensRow>>;

export const LENS_TABLE: Readonly<Record<Lens, LensRow>> = ROWS;
export const LENSES = Object.keys(ROWS) as [Lens, ...Lens[]];
export type Lens = keyof typeof ROWS;
