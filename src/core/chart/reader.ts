/** What has been read of a chart's text so far, and how bars are added to it. */
import type { Key } from '../keys/keys';
import type { ForeignNames } from './foreignNames';
import type { Token } from './lexer';
import {
  type Bar,
  CHART_LIMITS,
  type ChartSource,
  type Problem,
  type Section,
  type Slot,
  type TextPlace,
} from './syntax';

type Mutable<T> = { -readonly [P in keyof T]: T[P] };
type SectionDraft = Mutable<Section> & { bars: Bar[] };

interface BarDraft {
  slots: Mutable<Slot>[];
  repeatOf: 1 | 2 | null;
  opensRepeat: boolean;
  endings: readonly number[];
  place: Mutable<TextPlace>;
}

/** A text that is being read. */
export interface Reader {
  readonly problems: Problem[];
  readonly headers: Mutable<Omit<ChartSource, 'sections'>>;
  readonly sections: SectionDraft[];
  readonly keyGiven: Key | undefined;
  bar: BarDraft | null;
  /** Chords written so far; past what can be played the rest is not read. */
  written: number;
  /** A repeat sign or ending that waits for its bar to begin. */
  opensNext: boolean;
  endingsNext: readonly number[];
  names: ForeignNames;
}

/** Notes a problem at its place; past so many none is noted any more. */
export function complain(reader: Reader, place: TextPlace, token: string, message: string): void {
  if (reader.problems.length >= CHART_LIMITS.problems) return;
  const { from, to, line, column } = place;
  reader.problems.push({ message, token, from, to, line, column });
}

function currentSection(reader: Reader, place: TextPlace): SectionDraft {
  const last = reader.sections.at(-1);
  if (last) return last;
  const section: SectionDraft = { name: null, repeats: 1, key: null, bars: [], place };
  reader.sections.push(section);
  return section;
}

/** The bar that is being read, begun where there is none. */
export function startBar(reader: Reader, token: Token): BarDraft {
  if (reader.bar === null) {
    const { from, to, line, column } = token;
    reader.bar = {
      slots: [],
      repeatOf: null,
      opensRepeat: reader.opensNext,
      endings: reader.endingsNext,
      place: { from, to, line, column },
    };
    reader.opensNext = false;
    reader.endingsNext = [];
  }
  reader.bar.place.to = token.to;
  return reader.bar;
}

/** Puts the bar that is being read into its section, if there is one. */
export function endBar(reader: Reader): void {
  const draft = reader.bar;
  if (draft === null) return;
  reader.bar = null;
  currentSection(reader, draft.place).bars.push({
    content:
      draft.repeatOf === null
        ? { kind: 'slots', slots: draft.slots }
        : { kind: 'repeat', bars: draft.repeatOf },
    opensRepeat: draft.opensRepeat,
    closesRepeat: null,
    endings: draft.endings,
    place: draft.place,
  });
}

/** The key that numerals are read in: the section's, the reader's own, or the chart's. */
export function keyInForce(reader: Reader): Key | null {
  return reader.sections.at(-1)?.key ?? reader.keyGiven ?? reader.headers.key;
}
