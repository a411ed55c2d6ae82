/**
 * Styles of line: one row each. Shares and ranges are set beside what corpora of transcribed solos measure
 * (Pfleiderer et al., "Inside the Jazzomat", 2017, for bop); the rest is the common practice of each style.
 */
import type { Chart } from '../chart/form';
import { byNumber, type Weights } from './chance';
import { BROKEN, type CellsBySize, HOOKS, LYRICAL, RUNNING, SYNCOPATED } from './cells';
import type { FeelKind } from '../time/feel';

/** The styles a line is made in. */
export const LINE_STYLES = [
  'bop',
  'blues',
  'rock',
  'pop',
  'bossa',
  'modal',
  'ballad',
  'funk',
] as const;
export type LineStyle = (typeof LINE_STYLES)[number];

/** How a line meets a change: on its beat, ahead of it and held over, or after a note beside it. */
export type Arrival = 'on' | 'early' | 'late';

/** Moves of a line by their size. */
export const SIZES = ['again', 'half', 'whole', 'third', 'fourth', 'wide'] as const;
export type Size = (typeof SIZES)[number];

/** What a style is made of. */
export interface StyleRow {
  /** What a player calls it. */
  readonly name: string;
  /** Bars to a phrase. */
  readonly bars: Weights<number>;
  /** Where a phrase begins about its first bar line, and where its last note does in its last bar, in half pulses. */
  readonly starts: Weights<number>;
  readonly ends: Weights<number>;
  /** Pulses a last note rings, and pulses of silence after it. */
  readonly rings: Weights<number>;
  readonly breaths: Weights<number>;
  /** How much is said, from 0 to 1: at the beginning of a form and at its height. */
  readonly density: readonly [number, number];
  /** Cells of two, three and four notes to a pulse. */
  readonly cells: CellsBySize;
  /** How many of its phrases in eighths end in double time; none by itself. */
  readonly double?: number;
  /** Pulses a note inside a phrase is held at the most. */
  readonly hold: number;
  readonly sizes: Readonly<Record<Size, number>>;
  /** How often the line turns, 0 to 1. */
  readonly turns: number;
  /** What a note outside the chord costs on a pulse, and between. */
  readonly colour: readonly [strong: number, weak: number];
  /** How often a chromatic note is wished for; with 0 there are none. */
  readonly chromatic: number;
  /** Of changes that can be met, how many are aimed at, and the ways of meeting them. */
  readonly aims: number;
  readonly arrivals: Readonly<Record<Arrival, number>>;
  /** What each string below the third costs: strings that do not bend. */
  readonly low: number;
  /** What a note outside the chord's own five notes costs. */
  readonly five: number;
  /** What a blue note of the key costs; null where there are none. */
  readonly blue: number | null;
  /** How often the hand does each where it can. */
  readonly hands: Readonly<
    Record<'bend' | 'slide' | 'slur' | 'grace' | 'vibrato' | 'mute', number>
  >;
}

const HANDS = { bend: 0, slide: 0, slur: 0.25, grace: 0, vibrato: 0, mute: 0 } as const;

/** Every style. */
export const STYLE_ROWS: Readonly<Record<LineStyle, StyleRow>> = {
  bop: {
    name: 'Bop',
    bars: byNumber({ 2: 5, 3: 3, 4: 1.5 }),
    starts: byNumber({ [-3]: 2, [-2]: 1, [-1]: 3, 0: 0.7, 1: 3.5, 2: 1, 3: 2.5 }),
    ends: byNumber({ 0: 2, 1: 2.5, 2: 2, 3: 2.5, 4: 1, 5: 1.5 }),
    rings: byNumber({ 0.5: 2, 1: 3, 1.5: 1.5, 2: 1 }),
    breaths: byNumber({ 1: 3, 1.5: 3, 2: 2 }),
    density: [0.7, 1],
    cells: RUNNING,
    hold: 1.5,
    sizes: { again: 0.06, half: 0.29, whole: 0.3, third: 0.21, fourth: 0.07, wide: 0.07 },
    turns: 0.4,
    colour: [3, 0],
    chromatic: 0.3,
    aims: 0.55,
    arrivals: { on: 3, early: 3, late: 2.5 },
    low: 0,
    five: 0,
    blue: null,
    hands: { ...HANDS, slide: 0.04, slur: 0.32 },
  },
  blues: {
    name: 'Blues',
    bars: byNumber({ 2: 6, 4: 1 }),
    starts: byNumber({ [-3]: 2, [-2]: 2, [-1]: 3, 1: 3, 2: 1.5, 3: 2 }),
    ends: byNumber({ 0: 3, 1: 2, 2: 3, 3: 1 }),
    rings: byNumber({ 1: 2, 2: 3, 3: 1 }),
    breaths: byNumber({ 1.5: 2, 2: 3 }),
    density: [0.35, 0.8],
    cells: HOOKS,
    hold: 2,
    sizes: { again: 0.17, half: 0.15, whole: 0.3, third: 0.25, fourth: 0.09, wide: 0.04 },
    turns: 0.4,
    colour: [2, 0],
    chromatic: 0.05,
    aims: 0.5,
    arrivals: { on: 4, early: 3, late: 1.5 },
    low: 7,
    five: 2,
    blue: -3,
    hands: { bend: 0.4, slide: 0.2, slur: 0.4, grace: 0, vibrato: 0.6, mute: 0 },
  },
  rock: {
    name: 'Rock',
    bars: byNumber({ 2: 7, 4: 1 }),
    starts: byNumber({ [-2]: 2, [-1]: 2, 0: 1.5, 1: 3, 2: 2, 3: 1 }),
    ends: byNumber({ 0: 3, 1: 1, 2: 3, 3: 1, 4: 1 }),
    rings: byNumber({ 1: 1, 2: 3, 3: 1 }),
    breaths: byNumber({ 1: 2, 2: 3 }),
    density: [0.45, 0.9],
    cells: HOOKS,
    hold: 2,
    sizes: { again: 0.18, half: 0.05, whole: 0.39, third: 0.3, fourth: 0.05, wide: 0.03 },
    turns: 0.45,
    colour: [3, 1],
    chromatic: 0,
    aims: 0.5,
    arrivals: { on: 5, early: 3, late: 0.5 },
    low: 6,
    five: 7,
    blue: null,
    hands: { bend: 0.45, slide: 0.12, slur: 0.45, grace: 0, vibrato: 0.6, mute: 0 },
  },
  pop: {
    name: 'Pop',
    bars: byNumber({ 2: 8, 3: 1, 4: 1 }),
    starts: byNumber({ [-2]: 2, [-1]: 2.5, 0: 1.5, 1: 3, 2: 2 }),
    ends: byNumber({ 0: 3, 1: 1.5, 2: 3, 4: 1 }),
    rings: byNumber({ 1: 2, 2: 3 }),
    breaths: byNumber({ 1: 3, 2: 2 }),
    density: [0.3, 0.7],
    cells: HOOKS,
    hold: 2,
    sizes: { again: 0.16, half: 0.09, whole: 0.39, third: 0.26, fourth: 0.07, wide: 0.03 },
    turns: 0.4,
    colour: [4, 1],
    chromatic: 0,
    aims: 0.55,
    arrivals: { on: 5, early: 3, late: 0.3 },
    low: 4,
    five: 4,
    blue: null,
    hands: { bend: 0.12, slide: 0.15, slur: 0.35, grace: 0, vibrato: 0.3, mute: 0 },
  },
  bossa: {
    name: 'Bossa',
    bars: byNumber({ 2: 5, 3: 2, 4: 2 }),
    starts: byNumber({ [-3]: 2, [-1]: 3, 0: 0.5, 1: 4, 3: 3 }),
    ends: byNumber({ 1: 3, 2: 1, 3: 3, 5: 2 }),
    rings: byNumber({ 1: 2, 1.5: 3, 2: 2 }),
    breaths: byNumber({ 1: 2, 1.5: 3, 2: 1 }),
    density: [0.4, 0.75],
    cells: SYNCOPATED,
    hold: 2,
    sizes: { again: 0.1, half: 0.2, whole: 0.34, third: 0.24, fourth: 0.05, wide: 0.04 },
    turns: 0.4,
    colour: [3, 0],
    chromatic: 0.1,
    aims: 0.55,
    arrivals: { on: 1.5, early: 5, late: 1 },
    low: 0,
    five: 0,
    blue: null,
    hands: { ...HANDS, slide: 0.1, slur: 0.3 },
  },
  modal: {
    name: 'Modal',
    bars: byNumber({ 2: 4, 3: 3, 4: 2 }),
    starts: byNumber({ [-2]: 1, [-1]: 3, 0: 0.7, 1: 4, 3: 2 }),
    ends: byNumber({ 0: 2, 1: 2, 3: 3, 5: 2 }),
    rings: byNumber({ 0.5: 1, 1: 3, 2: 1 }),
    breaths: byNumber({ 1: 4, 1.5: 2 }),
    density: [0.5, 0.95],
    cells: RUNNING,
    hold: 1.5,
    sizes: { again: 0.06, half: 0.12, whole: 0.34, third: 0.2, fourth: 0.22, wide: 0.06 },
    turns: 0.45,
    colour: [1, 0],
    chromatic: 0.04,
    aims: 0.5,
    arrivals: { on: 3, early: 3, late: 1 },
    low: 0,
    five: 0,
    blue: null,
    hands: { ...HANDS, slur: 0.4, slide: 0.05 },
  },
  ballad: {
    name: 'Ballad',
    bars: byNumber({ 2: 6, 3: 2, 4: 1 }),
    starts: byNumber({ [-3]: 2, [-2]: 2, [-1]: 3, 1: 3, 2: 1.5 }),
    ends: byNumber({ 0: 3, 1: 2, 2: 3, 3: 1 }),
    rings: byNumber({ 1.5: 2, 2: 3 }),
    breaths: byNumber({ 1: 3, 2: 2 }),
    density: [0.2, 0.6],
    cells: LYRICAL,
    double: 0.15,
    hold: 3,
    sizes: { again: 0.06, half: 0.24, whole: 0.34, third: 0.22, fourth: 0.05, wide: 0.05 },
    turns: 0.35,
    colour: [3, 0],
    chromatic: 0.12,
    aims: 0.55,
    arrivals: { on: 3, early: 2, late: 2.5 },
    low: 1,
    five: 0,
    blue: null,
    hands: { bend: 0, slide: 0.25, slur: 0.35, grace: 0.15, vibrato: 0.5, mute: 0 },
  },
  funk: {
    name: 'Funk',
    bars: byNumber({ 1: 1, 2: 7, 4: 1 }),
    starts: byNumber({ [-1]: 3, 0: 1, 1: 3, 2: 1.5, 3: 2 }),
    ends: byNumber({ 0: 2, 1: 2, 2: 1, 3: 2 }),
    rings: byNumber({ 0.5: 4, 1: 2 }),
    breaths: byNumber({ 1: 3, 1.5: 2, 2: 2 }),
    density: [0.4, 0.85],
    cells: BROKEN,
    hold: 1,
    sizes: { again: 0.22, half: 0.1, whole: 0.33, third: 0.22, fourth: 0.09, wide: 0.04 },
    turns: 0.5,
    colour: [3, 0],
    chromatic: 0.06,
    aims: 0.5,
    arrivals: { on: 4, early: 4, late: 1 },
    low: 3,
    five: 3,
    blue: 1,
    hands: { bend: 0.05, slide: 0.1, slur: 0.3, grace: 0, vibrato: 0, mute: 0.5 },
  },
};

/** What notes beside the chord's tones cost, where its tones are what is played. */
const BESIDE: StyleRow['colour'] = [9, 5];

/** The row of a style; where only what is chosen is played, or the chord's tones, without what it adds. */
export function rowOf({
  style,
  plain = false,
  tones = false,
}: {
  readonly style: LineStyle;
  readonly plain?: boolean;
  readonly tones?: boolean;
}): StyleRow {
  const row = STYLE_ROWS[style];
  if (!plain && !tones) return row;
  const colour = tones ? BESIDE : row.colour;
  return { ...row, colour, chromatic: 0, blue: null };
}

const BY_FEEL: Readonly<Record<FeelKind, LineStyle | null>> = {
  swing: 'bop',
  'two-beat': 'bop',
  'jazz waltz': 'bop',
  shuffle: 'blues',
  'slow 12/8': 'blues',
  straight: null,
  rock: 'rock',
  bossa: 'bossa',
  samba: 'bossa',
  funk: 'funk',
  reggae: 'pop',
  'train beat': 'pop',
  ballad: 'ballad',
  modal: 'modal',
};

const TRIAD = 3;

/**
 * The style a chart asks for by its feel and its idiom: a blues is played as one unless its feel says
 * otherwise, and where nothing is said plain triads are pop, sevenths bop.
 */
export function styleFor(
  { chords }: Pick<Chart, 'chords'>,
  feel: { readonly kind: FeelKind; readonly name: string } | null,
  blues: boolean,
): LineStyle {
  if (feel && /pop|gospel|folk/iu.test(feel.name)) return 'pop';
  const style = feel && BY_FEEL[feel.kind];
  if (blues && (style === null || style === 'bop')) return 'blues';
  if (style) return style;
  const plain = chords.filter(({ chord }) => chord.quality.core.length <= TRIAD).length;
  return 2 * plain >= chords.length ? 'pop' : 'bop';
}
