/**
 * What each feel plays, as tables. A cell is a group of two or of three pulses: `1 2&` is on its
 * first pulse and on the off-beat of its second; `e` and `a` are the sixteenths around the off-beat,
 * `t` the middle one where a pulse falls into three.
 * A mark is louder with `!` and softer with `.`. In the bass a capital says which tone: Root, Fifth,
 * Octave, Walk, Approach to what follows, the Next root early, Ghost of the note before.
 *
 * The figures are the common ones of method books for rhythm sections: walking fours with the ride's
 * skip and the hat on two and four; the shuffle's long–short on every beat; the bossa's root and
 * fifth on one and the off-beat of two, with the side stick's two-bar figure; the samba's low drum on two;
 * reggae's one drop; the train beat's snare; back-beats elsewhere.
 */
import type { FeelKind } from '../time/feel';
import type { Drum } from './events';

/** Rhythms in strings of a character a step, for pulses that fall into two and into three. */
export interface Cells {
  /** For groups of two pulses, in turn through the bars; and for groups of three. */
  readonly two: readonly string[];
  readonly three: readonly string[];
}

/** What one drum plays in a feel. */
export interface DrumLine extends Cells {
  readonly drum: Drum;
  readonly velocity: number;
  /** Played instead now and then. */
  readonly vary?: Cells;
}

/** What the band plays in a feel. */
export interface FeelPatterns {
  /** The bass of the samples that suits it. */
  readonly bass: Cells & {
    readonly sound: 'double-bass' | 'bass-guitar';
    readonly held: number;
    /** Whether it leads into a root by a half step that the chord's scale has not. */
    readonly chromatic: boolean;
  };
  /** Any of these, drawn anew for every group. `held` is the share of the way to the next hit. */
  readonly comp: Cells & { readonly held: number; readonly early: boolean };
  readonly drums: readonly DrumLine[];
  /** What a section opens with. */
  readonly opening: Drum | null;
}

/** Cells for groups of two pulses and for groups of three: one, or several with commas between them. */
const cells = (two: string, three: string): Cells => ({
  two: two.split(', '),
  three: three.split(', '),
});

const drum = (part: Drum, velocity: number, plays: Cells, vary?: Cells): DrumLine => ({
  drum: part,
  velocity,
  ...plays,
  ...(vary && { vary }),
});

const EIGHTHS = cells('1 1t. 1&. 2 2t. 2&.', '1 1t. 1&. 2 2t. 2&. 3 3t. 3&.');
const SKIP = cells('1 2 2&.', '1 2 2&. 3');
/** The ride as hands vary it: plain beats, the skip moved, one more of it. */
const RIDES = cells(
  '1 2, 1 1&. 2, 1 1&. 2 2&., 1 2!, 1. 2 2&',
  '1 2 3, 1 1&. 2 3, 1 2 3 3&., 1 2! 3',
);
/** A hat in eighths with other accents, and now and then a stroke left out. */
const HATS = cells(
  '1! 1t. 1&. 2 2t. 2&, 1 1t. 1& 2. 2t. 2&., 1 1t. 2 2t. 2&., 1 1t. 1&. 2! 2t.',
  '1! 1t. 1&. 2 2t. 2& 3 3t. 3&., 1 1t. 2 2t. 2&. 3 3t. 3&, 1 1t. 1&. 2 2t. 3! 3t. 3&.',
);
const SIXTEENTHS = cells(
  '1! 1e. 1& 1a. 2! 2& 2a., 1! 1& 1a. 2! 2e. 2& 2a., 1! 1e. 1&! 1a. 2 2e. 2&! 2a.',
  '1! 1e. 1& 1a. 2! 2& 2a. 3! 3e. 3& 3a., 1! 1& 1a. 2! 2e. 2& 3! 3e. 3& 3a.',
);
const TWELVES = cells(
  '1! 1e. 1&. 2 2e. 2&, 1 1e. 1& 2 2e 2&., 1 1e. 1&. 2! 2&.',
  '1! 1e. 1&. 2 2e. 2& 3 3e. 3&., 1 1e. 1&. 2 2e. 2&. 3! 3&.',
);
/** Brushes: the beats swept, a tap between them. */
const BRUSHED = cells('1 2 2&., 1 1&. 2, 1, 1! 2', '1 2 2&. 3, 1 2 3 3&., 1 3, 1! 2 3');
const BACK = cells('2', '3');
const FIRST = cells('1', '1');
const WALK = cells('1W 2W', '1W 2W 3W');

const SWING: FeelPatterns = {
  bass: { ...WALK, sound: 'double-bass', chromatic: true, held: 0.92 },
  comp: {
    ...cells('1 2&, 1&, 2, 2&, , 1, 1& 2&', '1 2&, 2, 2& 3&, 1, 1& 3'),
    held: 0.55,
    early: true,
  },
  drums: [
    drum('ride', 0.5, SKIP, RIDES),
    drum('pedal-hat', 0.4, cells('2', '2')),
    drum('kick', 0.2, FIRST, cells('1 2&', '1 3&')),
    drum('snare', 0.16, cells('', ''), cells('2&, 1&, 1& 2&', '2&, 1& 3')),
  ],
  opening: 'crash',
};

/** The patterns of every feel. */
export const PATTERNS: Readonly<Record<FeelKind, FeelPatterns>> = {
  swing: SWING,
  shuffle: {
    bass: {
      ...cells('1W 2W, 1W 2W 2&G', '1W 2W 3W'),
      sound: 'bass-guitar',
      chromatic: true,
      held: 0.85,
    },
    comp: { ...cells('1& 2&, 1 2&, 1&', '1& 2& 3&, 1 2&'), held: 0.5, early: false },
    drums: [
      drum('hat', 0.4, EIGHTHS, HATS),
      drum('snare', 0.5, BACK, cells('2 2&.', '3 3&.')),
      drum('kick', 0.5, FIRST, cells('1 1&', '1 2&')),
    ],
    opening: 'crash',
  },
  straight: {
    bass: {
      ...cells('1R 2&F, 1R 2W', '1R 2&F 3W'),
      sound: 'bass-guitar',
      chromatic: false,
      held: 0.9,
    },
    comp: { ...cells('1, 1 2&, 1& 2', '1, 1 2&'), held: 0.85, early: true },
    drums: [
      drum('hat', 0.32, EIGHTHS, HATS),
      drum('rim', 0.36, BACK, cells('2 2&., 1&. 2', '3 3&., 2&. 3')),
      drum('kick', 0.4, cells('1, 1& 2', '1 2&'), cells('1 2&, 1 1&', '1 3&, 1 1&')),
    ],
    opening: 'crash',
  },
  rock: {
    bass: {
      ...cells('1R 1&R 2R 2&R, 1R 1&R 2R 2&A', '1R 1&R 2R 2&R 3R 3&A'),
      sound: 'bass-guitar',
      chromatic: false,
      held: 0.85,
    },
    comp: { ...cells('1, 1 2&, 1 1&', '1, 1 2&'), held: 0.95, early: false },
    drums: [
      drum('hat', 0.42, EIGHTHS, HATS),
      drum('snare', 0.6, BACK),
      drum('kick', 0.6, cells('1, 1 1&', '1 2&'), cells('1 2&', '1 1&')),
    ],
    opening: 'crash',
  },
  bossa: {
    bass: {
      ...cells('1R 2&F, 1F 2&N', '1R 2&F 3F 3&N'),
      sound: 'double-bass',
      chromatic: false,
      held: 0.9,
    },
    comp: { ...cells('1 2&, 2, 1& 2&, 1 2', '1 2&, 2 3&, 1& 3'), held: 0.6, early: true },
    drums: [
      drum('hat', 0.26, EIGHTHS, HATS),
      drum('kick', 0.36, cells('1 2&', '1 3&')),
      drum('rim', 0.36, cells('1 2&, 2, 2, 1&', '1 2&, 2 3&')),
    ],
    opening: null,
  },
  funk: {
    bass: {
      ...cells('1R! 1aG 2&O, 1R 2eG 2&W 2aA', '1R! 1aG 2&O 3W 3aA'),
      sound: 'bass-guitar',
      chromatic: true,
      held: 0.6,
    },
    comp: { ...cells('1& 2a, 1e 1&, 2&, , 1 2&', '1& 2a, 2& 3, 1'), held: 0.35, early: false },
    drums: [
      drum(
        'hat',
        0.34,
        cells('1! 1e. 1& 1a. 2! 2e. 2& 2a.', '1! 1e. 1& 1a. 2! 2e. 2& 2a. 3! 3e. 3& 3a.'),
        SIXTEENTHS,
      ),
      drum('snare', 0.55, BACK, cells('1a. 2 2a., 2 2a.', '2a. 3, 3 3a.')),
      drum('kick', 0.55, cells('1 1a, 1& 2&', '1 1a 3&'), cells('1 2&', '1 2a')),
    ],
    opening: 'open-hat',
  },
  'two-beat': {
    ...SWING,
    bass: {
      ...cells('1R, 1F, 1R, 1F 2A', '1R 3W, 1F 3A'),
      sound: 'double-bass',
      chromatic: true,
      held: 0.9,
    },
    comp: { ...cells('2, 2 2&, 1& 2, 2', '2 3, 2, 2& 3'), held: 0.45, early: false },
    drums: [
      drum('hat', 0.4, cells('1 2 2&.', '1 2 2&. 3'), RIDES),
      drum('pedal-hat', 0.36, cells('2', '2')),
      drum('kick', 0.4, FIRST, cells('1 2&.', '1 3&.')),
      drum('rim', 0.26, cells('2', '3'), cells('2 2&., 1& 2', '2& 3')),
    ],
  },
  samba: {
    bass: {
      ...cells('1R 2&F, 1F! 2&F, 1R 2&F, 1F! 2&N', '1R 2&F 3F!, 1R 3&N'),
      sound: 'double-bass',
      chromatic: false,
      held: 0.85,
    },
    comp: {
      ...cells('1 2&, 1& 2, 2&, 1 1& 2&, 1& 2&, 1 2', '1 2&, 1& 3, 2 3&'),
      held: 0.4,
      early: true,
    },
    drums: [
      drum('hat', 0.3, cells('1. 1& 2. 2&!', '1. 1& 2. 2& 3. 3&!'), HATS),
      drum('kick', 0.36, cells('1 2&, 1! 2&', '1 2& 3!')),
      // The low drum answers on the second half of the bar.
      drum('tom', 0.4, cells(', 1!', '3!')),
      drum(
        'snare',
        0.24,
        cells(
          '1 1&. 2. 2&, 1. 1& 2 2&., 1&. 2 2&, 1 1&. 2 2&.',
          '1 1&. 2. 2& 3 3&., 1. 1& 2 2&. 3',
        ),
        cells('1 2&, 1& 2&', '1 2& 3'),
      ),
    ],
    opening: null,
  },
  reggae: {
    bass: {
      ...cells('1R 1&R 2&F, 1W 2R, 1&R 2F 2&W, 1R 2A', '1R 1&R 2&F 3W, 1&R 2F 3A'),
      sound: 'bass-guitar',
      chromatic: false,
      held: 0.7,
    },
    comp: { ...cells('2, 2, 2 2&., 2', '2 3, 2'), held: 0.22, early: false },
    drums: [
      drum('hat', 0.32, EIGHTHS, HATS),
      // One drop: nothing on one, all of it on three.
      drum('kick', 0.55, cells(', 1', '3'), cells('1.', '1. 3')),
      drum('rim', 0.45, cells(', 1', '3')),
      drum('snare', 0.18, cells('', ''), cells('2&, 1&, 2a', '2&, 3&')),
    ],
    opening: null,
  },
  'train beat': {
    bass: {
      ...cells('1R, 1F, 1R, 1F 2A', '1R 3F, 1F 3A'),
      sound: 'bass-guitar',
      chromatic: true,
      held: 0.8,
    },
    comp: { ...cells('2, 2, 2 2&, 1& 2', '2 3, 2 2& 3'), held: 0.4, early: false },
    drums: [
      drum(
        'snare',
        0.34,
        cells('1. 1& 2! 2&.', '1. 1& 2! 2&. 3! 3&.'),
        cells(
          '1. 1&! 2! 2&, 1. 1a. 2! 2&., 1 1&. 2! 2a., 1. 1&. 2!',
          '1. 1&! 2! 2& 3! 3&, 1. 2! 2&. 3!',
        ),
      ),
      drum('kick', 0.42, FIRST, cells('1 2&.', '1 3&.')),
      drum('pedal-hat', 0.3, cells('2', '2')),
    ],
    opening: 'crash',
  },
  ballad: {
    bass: { ...cells('1R, 1F', '1R'), sound: 'double-bass', chromatic: true, held: 0.95 },
    comp: { ...cells('1, 1, 1 2&, 2', '1, 1 3'), held: 0.97, early: false },
    drums: [
      drum('ride', 0.26, cells('1 2', '1 2 3'), BRUSHED),
      drum('pedal-hat', 0.3, cells('2', '2')),
      drum('kick', 0.16, FIRST),
    ],
    opening: null,
  },
  'jazz waltz': {
    ...SWING,
    bass: {
      ...cells('1W 2W', '1W 2W 3W, 1R 3W'),
      sound: 'double-bass',
      chromatic: true,
      held: 0.92,
    },
  },
  'slow 12/8': {
    bass: {
      ...cells('1R 1&R. 2W 2&A, 1R 2W 2&A', '1R 2W 3W 3&A'),
      sound: 'bass-guitar',
      chromatic: true,
      held: 0.9,
    },
    comp: { ...cells('1, 1 2, 2 2e 2&', '1, 1 3'), held: 0.9, early: false },
    drums: [
      drum('hat', 0.36, cells('1 1e. 1&. 2 2e. 2&.', '1 1e. 1&. 2 2e. 2&. 3 3e. 3&.'), TWELVES),
      drum('snare', 0.5, BACK),
      drum('kick', 0.5, cells('1, 1& 1', '1'), cells('1 2&', '1 3&')),
    ],
    opening: 'crash',
  },
  modal: {
    bass: {
      ...cells('1R 2&O, 1F 2W', '1R 2&F 3W'),
      sound: 'double-bass',
      chromatic: true,
      held: 0.9,
    },
    comp: { ...cells('1 2&, , 2&, 1&', '1 2&, , 2&'), held: 0.8, early: true },
    drums: [
      drum('ride', 0.42, SKIP, RIDES),
      drum('pedal-hat', 0.36, cells('2', '2')),
      drum('kick', 0.26, FIRST),
      drum('rim', 0.22, cells('', ''), cells('2&', '3')),
    ],
    opening: 'crash',
  },
};

/** What leads into a section: for the last group before it, any of these on snare and tom. */
export const FILLS: readonly (Cells & { readonly tom: Cells })[] = [
  { ...cells('1& 2', '2& 3'), tom: cells('2&', '3&') },
  { ...cells('1 1&', '2 2&'), tom: cells('2 2&', '3 3&') },
  { ...cells('2 2&!', '3 3&!'), tom: cells('', '') },
];
