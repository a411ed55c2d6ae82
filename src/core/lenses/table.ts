/** Every lens by name, in the order in which they are offered. A new one is a row here. */
import { chordTonesLens, stackedLens, triadsLens } from './arpeggios';
import { bluesLens } from './blues';
import type { LensAnswer } from './lens';
import { modeLens } from './modeLens';
import { borrowedLens, keyScaleLens, ownPentatonicLens } from './pentatonics';
import { simplifyLens } from './simplify';

interface LensRow {
  readonly name: string;
  /** What it offers, in one sentence. */
  readonly says: string;
  /** Whether it gives what is the chord's own: its mode, its tones, its pentatonic. */
  readonly own: boolean;
  /** Whether what it offers first, or all in common use, ranks before the rest of it. */
  readonly order?: 'as given' | 'common first';
  readonly answer: LensAnswer;
}

const ROWS = {
  'key-scale': {
    name: 'Key scale',
    says: 'One scale of the key over every chord: nothing moves, and what it leaves unsaid is shown.',
    own: false,
    answer: keyScaleLens,
  },
  'own-pentatonic': {
    name: 'Own pentatonic',
    says: 'The pentatonic that fits this chord by itself, so that the shape moves with the chord.',
    own: true,
    answer: ownPentatonicLens,
  },
  'chord-tones': {
    name: 'Chord tones',
    says: 'The notes of the chord alone: the surest way to say the change.',
    own: true,
    answer: chordTonesLens,
  },
  mode: {
    name: 'Mode',
    says: 'The seven notes that fit this chord where it stands in its key.',
    own: true,
    order: 'as given',
    answer: modeLens,
  },
  'stacked-arpeggio': {
    name: 'Upper arpeggios',
    says: 'An arpeggio built on another tone of the chord: its upper notes are the colours.',
    own: false,
    answer: stackedLens,
  },
  'borrowed-pentatonic': {
    name: 'Other pentatonics',
    says: 'A pentatonic of another root or kind that holds colours of this chord.',
    own: false,
    order: 'common first',
    answer: borrowedLens,
  },
  triads: {
    name: 'Triads',
    says: 'Three notes, often of another root, that lie over the chord.',
    own: false,
    answer: triadsLens,
  },
  simplify: {
    name: 'Simplify',
    says: 'A plainer chord to think of instead, with what it leaves out.',
    own: false,
    answer: simplifyLens,
  },
  blues: {
    name: 'Blues',
    says: 'The blues scales, with the notes that are bent or passed through.',
    own: false,
    answer: bluesLens,
  },
} as const satisfies Readonly<Record<string, LensRow>>;

/** Each lens with its name and what answers for it. */
export const LENS_TABLE: Readonly<Record<Lens, LensRow>> = ROWS;

/** The lenses, in the order they are shown. */
export const LENSES = Object.keys(ROWS) as [Lens, ...Lens[]];
export type Lens = keyof typeof ROWS;
