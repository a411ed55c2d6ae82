/** Where the bars of a passage stand on a page: systems of staff and tablature, before they are drawn. */
import { type Chord, type Note, noteName, type Passage, pitchAt } from 'corvel-core';
import { keyOfSignature, signatureOf } from '$core/keys/keys';
import { rememberOf } from '$core/cache';
import { at } from '$core/lists';
import { stringCount } from '$core/neck/neck';
import { alteration, step } from '$core/notes/notes';
import { octaveOf } from '$core/notes/pitch';
import { measuresOf, type NotatedBar } from '$core/phrases/measures';
import type { PlayedNote } from '$core/phrases/passage';
import { type TechniqueKind, techniqueOf } from '$core/phrases/techniques';
import type { Beats } from '$core/time/units';
import { NAME_GAP, NAME_INSET, nameOf } from './names';

export const MARGIN = 8;
/** Room over the staff for chord symbols, in pixels. */
export const CHORD_LINE = 20;
export const TAB_LINE = 13;
export const DEGREE_LINE = 13;
const STAFF = 40;
const HEAD_WIDTH = 74;
/** Room an accidental of the signature takes. */
const SIGN_WIDTH = 11;
const TIME_WIDTH = 22;
const LEAST_BAR = 90;
/** Room for what stands before or behind a note. */
const ACCIDENTAL_WIDTH = 10;
const DOT_WIDTH = 5;
/** What the degrees of both ends of a bend take more than one. */
const BOTH_ENDS = 14;
const MOST_BARS = 4;

/** Room for each event: on a screen, and on paper, where eighths stand closer. */
const EVENT_WIDTH = { screen: 30, paper: 17 } as const;

/**
 * Units of a page's width between its margins. Both A4 and Letter have 700 pixels there: drawn so
 * much smaller, the digits of the tablature are still 8 points high.
 */
export const PAPER_WIDTH = 777;

export interface SheetOptions {
  readonly width: number;
  readonly medium: keyof typeof EVENT_WIDTH;
  /** Whether the degree of every note stands under it. */
  readonly degrees: boolean;
}

/** A bar with whether its time signature is written. */
export interface SheetBar extends NotatedBar {
  readonly newTime: boolean;
}

/** What all systems of a sheet share. */
export interface Sheet extends SheetOptions {
  readonly passage: Passage;
  /** The signature by its major key; C where no key holds. */
  readonly signature: string;
  readonly headWidth: number;
  readonly widthOf: (bar: NotatedBar) => number;
  /** Tops of what stands in a system, and the height of all of it, in pixels. */
  readonly heights: {
    readonly staff: number;
    readonly tab: number;
    readonly degrees: number;
    readonly all: number;
  };
}

/** One line of staff and tablature. */
export interface System {
  readonly sheet: Sheet;
  readonly bars: readonly SheetBar[];
  /** Whether a note is held over from the system before. */
  readonly tiedIn: boolean;
  readonly from: Beats;
  readonly to: Beats;
}

/** The chord a note is played over. */
export function chordUnder({ chords }: Passage, { beat }: PlayedNote): Chord | null {
  const under = chords.find((one) => one.beat <= beat && beat < one.beat + one.beats);
  return under?.chord ?? null;
}

/** Lines and spaces of the staff from the lowest C up; the staff is written an octave above the sound. */
const staffStep = ({ neck }: Passage, note: PlayedNote): number =>
  (octaveOf(note.note, pitchAt(neck, note)) + 1) * 7 + step(note.note);

const TOP_LINE = 5 * 7 + 3;
const BOTTOM_LINE = 4 * 7 + 2;
/** Room for stems, beams and brackets over the staff, and for the clef's figure under it. */
const STEMS = 16;
/** How far a note rises over the middle of its head, and the sign before one. */
const NOTE_TOP = 8;
const SIGN_TOP = 14;
const CLEF = 22;
/** Room between staff and tablature for what is written over the strings, in pixels. */
const OVER_STRINGS: Partial<Record<TechniqueKind, number>> = {
  'hammer-on': 8,
  'pull-off': 8,
  bend: 14,
};

/** `signed` are the notes that a sign stands before. */
function heightsOf(
  passage: Passage,
  degrees: boolean,
  signed: ReadonlySet<PlayedNote>,
): Sheet['heights'] {
  const steps = passage.notes.map((note) => staffStep(passage, note));
  const tops = passage.notes.map(
    (note, index) => (at(steps, index) - TOP_LINE) * 5 + (signed.has(note) ? SIGN_TOP : NOTE_TOP),
  );
  const above = Math.max(STEMS, ...tops);
  // The clef's figure hangs under the staff.
  const below = Math.max(CLEF, ...steps.map((one) => (BOTTOM_LINE - one) * 5 + 8));
  const kinds = passage.notes.flatMap(({ techniques }) => techniques.map(({ kind }) => kind));
  const overStrings = Math.max(0, ...kinds.map((kind) => OVER_STRINGS[kind] ?? 0));
  const staff = CHORD_LINE + above;
  const tab = staff + STAFF + below + 6 + overStrings;
  const underTab = tab + TAB_LINE * (stringCount(passage.neck) - 1);
  const together = new Map<Beats, number>();
  for (const { beat } of passage.notes) together.set(beat, (together.get(beat) ?? 0) + 1);
  const rows = degrees ? Math.max(1, ...together.values()) : 0;
  return { staff, tab, degrees: underTab + 18, all: underTab + 12 + DEGREE_LINE * rows + 6 };
}

/** The notes of a bar that are struck in it, and not held over. */
const struckIn = ({ events }: NotatedBar): readonly PlayedNote[] =>
  events.flatMap(({ notes, tiedFrom }) => (tiedFrom ? [] : notes));

/** The notes of a bar that are written with an accidental: each where a line or space is not as it was. */
function signedIn(passage: Passage, bar: NotatedBar): readonly PlayedNote[] {
  const tonic = passage.key ? signatureOf(passage.key) : 0;
  /** How a line or space stands: as the signature has it, until it is altered in the bar. */
  const standing = new Map<number, number>();
  const natural = (letter: Note) => {
    // The note of this letter that lies in the seven fifths of the signature.
    const sharps = Math.floor((tonic + 5 - letter) / 7);
    return letter + 7 * sharps;
  };
  return struckIn(bar).filter((note) => {
    const line = staffStep(passage, note);
    if ((standing.get(line) ?? natural(note.note)) === note.note) return false;
    standing.set(line, note.note);
    return true;
  });
}

/** Room the signs before notes take; a double one is wider. */
const signsWidth = (signed: readonly PlayedNote[]): number =>
  signed.reduce((sum, { note }) => sum + (Math.abs(alteration(note)) > 1 ? 1.5 : 1), 0) *
  ACCIDENTAL_WIDTH;

const bentIn = (bar: NotatedBar): number =>
  struckIn(bar).filter(({ techniques }) => techniqueOf(techniques, 'bend') !== undefined).length;

/** A passage in systems as wide as the page; every line is filled. */
export function layOutSheet(passage: Passage, options: SheetOptions): readonly System[] {
  const { width, medium, degrees } = options;
  const each = EVENT_WIDTH[medium];
  const signs = Math.abs(passage.key ? signatureOf(passage.key) : 0);
  const measures = measuresOf(passage);
  const signed = rememberOf((bar: NotatedBar) => signedIn(passage, bar));
  const sheet: Sheet = {
    ...options,
    passage,
    signature: passage.key
      ? noteName(keyOfSignature(signatureOf(passage.key), 'major').tonic)
      : 'C',
    headWidth: HEAD_WIDTH + SIGN_WIDTH * signs,
    widthOf: rememberOf((bar: NotatedBar) => {
      const dots = bar.events.filter(({ value }) => value.dots > 0).length;
      const bends = degrees ? bentIn(bar) : 0;
      const notes = bar.events.length * each + signsWidth(signed(bar)) + dots * DOT_WIDTH;
      const [from, to] = [bar.from, bar.from + bar.length];
      const symbols = passage.chords
        .filter(({ beat }) => beat >= from && beat < to)
        .reduce((sum, { chord }) => sum + nameOf(chord).width + NAME_GAP, NAME_INSET);
      return Math.max(LEAST_BAR, notes + bends * BOTH_ENDS, symbols);
    }),
    heights: heightsOf(passage, degrees, new Set(measures.flatMap(signed))),
  };
  const room = width - 2 * MARGIN;
  const lines: SheetBar[][] = [];
  let used = Infinity;
  let time = '';
  for (const bar of measures) {
    const signature = `${bar.time.beats}/${bar.time.unit}`;
    const newTime = signature !== time;
    time = signature;
    const needed = sheet.widthOf(bar) + (newTime ? TIME_WIDTH : 0);
    if (used + needed > room || (lines.at(-1)?.length ?? 0) >= MOST_BARS) {
      lines.push([]);
      used = sheet.headWidth;
    }
    lines.at(-1)?.push({ ...bar, newTime });
    used += needed;
  }
  return lines.map((bars, line): System => {
    const first = at(bars, 0);
    const next = lines[line + 1]?.[0];
    return {
      sheet,
      bars,
      tiedIn: first.events[0]?.tiedFrom ?? false,
      from: first.from,
      to: next ? next.from : passage.beats,
    };
  });
}
