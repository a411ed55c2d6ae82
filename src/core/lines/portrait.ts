/**
 * What a line, a lick or a take measures: how it moves through bar lines, how long its phrases are, which
 * moves and which notes it is made of. The figures are those that corpora of transcribed solos are described
 * by (Pfleiderer et al., "Inside the Jazzomat", 2017).
 */
import { chordNotes } from '../chords/chords';
import { assess } from '../lenses/assess';
import { at, range } from '../lists';
import { type Neck, pitchAt } from '../neck/neck';
import { type Note, pitchClass } from '../notes/notes';
import type { PlayedNote } from '../phrases/passage';
import { techniqueOf } from '../phrases/techniques';
import { BEAT, type Beats } from '../time/units';
import { isStrong, type LineMetre, pulseOf } from './rhythm';
import { type ChordSpan, materialAt } from './spans';
import { type LineStyle, type Size, SIZES } from './styles';

/** A line and what it is played over. */
export interface Portrayed {
  readonly neck: Neck;
  readonly notes: readonly PlayedNote[];
  readonly spans: readonly ChordSpan[];
  readonly metre: LineMetre;
  /** Where the form ends. */
  readonly end: Beats;
  /** The tonic of a blues, whose blue notes do not clash; null or none elsewhere. */
  readonly home?: Note | null;
}

/** Figures of a line: how dense it is, how it moves, where it rests. */
export interface Portrait {
  readonly notes: number;
  /** Notes to a pulse of the form. */
  readonly density: number;
  /** Of the bar lines between the first note and the last, how many are crossed in motion, 0 to 1. */
  readonly crossed: number;
  /** Notes in a median phrase; the share of phrases of one or two; of those that begin on beat one. */
  readonly phrase: number;
  readonly short: number;
  readonly onOne: number;
  /** Moves inside phrases by their size, which sum to 1. */
  readonly sizes: Readonly<Record<Size, number>>;
  /** Shares of notes that are chord tones: of all, and of those on a pulse. */
  readonly tones: number;
  readonly strongTones: number;
  /** Notes neither of the chord nor of what is played over it, as a share; the longest of them. */
  readonly chromatic: number;
  readonly longestOutside: Beats;
  /** Notes a half step above a chord tone that are held for a pulse. */
  readonly heldClashes: number;
  /** Where the highest note first comes, from 0 to 1; from the lowest to the highest, in half steps. */
  readonly peak: number;
  readonly range: number;
  /** Share of silence; of notes below the third string; of notes that are bent or slid into. */
  readonly rests: number;
  readonly low: number;
  readonly gestures: number;
}

const SIZE_OF: readonly Size[] = ['again', 'half', 'whole', 'third', 'third', 'fourth', 'fourth'];
/**
 * A move by its half steps.
 *
 * @example [0, 2, 5, 9].map(sizeOf); // ["again","whole","fourth","wide"]
 */
export const sizeOf = (halfSteps: number): Size => SIZE_OF[halfSteps] ?? 'wide';

const ratio = (count: number, of: number, none = 0): number => (of === 0 ? none : count / of);

/** The pitch a note arrives at. */
export const soundedPitch = (neck: Neck, note: PlayedNote): number =>
  pitchAt(neck, note) + (techniqueOf(note.techniques, 'bend')?.by ?? 0);

/** Indices of notes phrase by phrase: a phrase ends where half a pulse and more is silent. */
export function phrasesIn(
  notes: readonly PlayedNote[],
  metre: LineMetre,
): readonly (readonly number[])[] {
  const breath = pulseOf(metre) / 2;
  const phrases: number[][] = [];
  for (const [index, note] of notes.entries()) {
    const before = notes[index - 1];
    const apart = before ? note.beat - before.beat - before.beats : Infinity;
    if (apart >= breath) phrases.push([]);
    phrases.at(-1)?.push(index);
  }
  return phrases;
}

/**
 * The share of a time in which nothing sounds.
 *
 * @example restShare([{ beat: 0, beats: BEAT }], 4 * BEAT); // 0.75
 */
export function restShare(
  notes: readonly { readonly beat: Beats; readonly beats: Beats }[],
  end: Beats,
): number {
  let sounding = 0;
  let reached = 0;
  for (const { beat, beats } of notes) {
    const from = Math.max(reached, beat);
    const to = Math.min(end, beat + beats);
    if (to > from) sounding += to - from;
    reached = Math.max(reached, to);
  }
  return end > 0 ? 1 - sounding / end : 0;
}

const median = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
};

/** Whether a line goes through a bar line: no more than a pulse between the notes on either side. */
function crossedIn(notes: readonly PlayedNote[], metre: LineMetre): number {
  const first = notes[0];
  const last = notes.at(-1);
  if (!first || !last) return 0;
  const from = Math.floor(first.beat / metre.bar) + 1;
  const to = Math.ceil(last.beat / metre.bar);
  const lines = range(from, Math.max(from, to + 1)).map((bar) => bar * metre.bar);
  const crossed = lines.filter((line) => {
    const before = notes.findLast(({ beat }) => beat < line);
    const after = notes.find(({ beat }) => beat >= line);
    return before && after && after.beat - before.beat <= pulseOf(metre);
  });
  return ratio(crossed.length, lines.length);
}

/** What a line measures over its chords. */
export function portraitOf({ neck, notes, spans, metre, end, home = null }: Portrayed): Portrait {
  const pitches = notes.map((note) => soundedPitch(neck, note));
  const phrases = phrasesIn(notes, metre);
  const counts = Object.fromEntries(SIZES.map((size) => [size, 0])) as Record<Size, number>;
  let moves = 0;
  for (const phrase of phrases) {
    for (const index of phrase.slice(1)) {
      counts[sizeOf(Math.abs(at(pitches, index) - at(pitches, index - 1)))] += 1;
      moves += 1;
    }
  }
  let [tones, strong, strongTones, outside, longestOutside, heldClashes] = [0, 0, 0, 0, 0, 0];
  for (const [index, note] of notes.entries()) {
    const span = spans.findLast((one) => one.index === note.chord && one.beat <= note.beat + BEAT);
    if (!span) continue;
    const pitch = at(pitches, index) % 12;
    const tone = chordNotes(span.chord).some((one) => pitchClass(one) === pitch);
    const material = materialAt(span, note.beat);
    if (tone) tones += 1;
    else if ((material.mask & (1 << pitch)) === 0) {
      outside += 1;
      longestOutside = Math.max(longestOutside, note.beats);
    } else if (note.beats >= pulseOf(metre)) {
      const { clashes } = assess(span.chord, material, { key: null, bluesTonic: home });
      if (clashes.some((clash) => pitchClass(clash.note) === pitch)) heldClashes += 1;
    }
    if (isStrong(note.beat, metre)) {
      strong += 1;
      if (tone) strongTones += 1;
    }
  }
  const highest = Math.max(...pitches);
  const peak = notes[pitches.indexOf(highest)]?.beat ?? 0;
  const onOne = phrases.filter(([head]) => {
    const beat = notes[head ?? 0]?.beat ?? 0;
    return beat % metre.bar === 0;
  });
  const gestures = notes.filter(({ techniques }) =>
    techniques.some(({ kind }) => kind === 'bend' || kind === 'slide'),
  );
  return {
    notes: notes.length,
    density: ratio(notes.length * pulseOf(metre), end),
    crossed: crossedIn(notes, metre),
    phrase: median(phrases.map((phrase) => phrase.length)),
    short: ratio(phrases.filter((phrase) => phrase.length <= 2).length, phrases.length),
    onOne: ratio(onOne.length, phrases.length),
    sizes: Object.fromEntries(
      SIZES.map((size) => [size, ratio(counts[size], moves)]),
    ) as Portrait['sizes'],
    tones: ratio(tones, notes.length),
    strongTones: ratio(strongTones, strong),
    chromatic: ratio(outside, notes.length),
    longestOutside,
    heldClashes,
    peak: ratio(peak, end),
    range: pitches.length === 0 ? 0 : highest - Math.min(...pitches),
    rests: restShare(notes, end),
    low: ratio(notes.filter(({ string }) => string > 3).length, notes.length),
    gestures: ratio(gestures.length, notes.length),
  };
}

/** A figure's least and most. */
export type Bounds = readonly [least: number, most: number];

/** What solos measure: the ranges a style's figures lie in, on the average of many lines. */
type Figures = Readonly<
  Record<'crossed' | 'phrase' | 'short' | 'onOne' | 'tones' | 'strongTones' | 'chromatic', Bounds> &
    Record<Size, Bounds>
>;

const BOP: Figures = {
  crossed: [0.4, 0.8],
  phrase: [8, 16],
  short: [0, 0.1],
  onOne: [0, 0.2],
  tones: [0.5, 0.7],
  strongTones: [0.6, 0.8],
  chromatic: [0.02, 0.15],
  again: [0.02, 0.12],
  half: [0.2, 0.34],
  whole: [0.24, 0.42],
  third: [0.14, 0.28],
  fourth: [0.04, 0.1],
  wide: [0.02, 0.14],
};
const HOOKED: Figures = {
  ...BOP,
  phrase: [5, 13],
  short: [0, 0.15],
  onOne: [0, 0.3],
  tones: [0.55, 0.8],
  strongTones: [0.6, 0.9],
  chromatic: [0, 0.001],
  again: [0.08, 0.25],
  half: [0.02, 0.2],
  whole: [0.24, 0.5],
  third: [0.18, 0.38],
  fourth: [0.03, 0.14],
  wide: [0, 0.1],
};

/** Between which figures a line of each style lies. */
export const FIGURES: Readonly<Record<LineStyle, Figures>> = {
  bop: BOP,
  blues: {
    ...HOOKED,
    phrase: [5, 14],
    chromatic: [0, 0.3],
    half: [0.08, 0.3],
    again: [0.08, 0.25],
  },
  rock: HOOKED,
  pop: HOOKED,
  bossa: {
    ...BOP,
    phrase: [6, 15],
    half: [0.14, 0.34],
    chromatic: [0, 0.1],
    strongTones: [0.55, 0.9],
    tones: [0.5, 0.75],
  },
  modal: {
    ...BOP,
    short: [0, 0.15],
    phrase: [7, 18],
    half: [0.08, 0.26],
    fourth: [0.1, 0.28],
    chromatic: [0, 0.06],
    strongTones: [0.45, 0.8],
    tones: [0.4, 0.7],
  },
  ballad: {
    ...BOP,
    phrase: [5, 14],
    chromatic: [0, 0.12],
    half: [0.14, 0.34],
    tones: [0.5, 0.75],
    strongTones: [0.55, 0.9],
  },
  funk: { ...HOOKED, phrase: [5, 16], chromatic: [0, 0.12], again: [0.08, 0.3] },
};
