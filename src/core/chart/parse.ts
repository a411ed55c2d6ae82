/** Reads chart text: headers, sections, bars. */
import { DEFAULT_TIME } from '../time/metre';
import { explainUnreadable, isGerman, isSolFa, parseTyped } from '../chords/symbols';
import { type Key, parseKey } from '../keys/keys';
import { looksLikeDecimal, looksLikeNumeral, parseDecimal, parseNumeral } from '../keys/numerals';
import { applyHeader, HEADER_PATTERN, notAKey } from './headers';
import { type Token, tokenize } from './lexer';
import {
  type Bar,
  CHART_LIMITS,
  type ChartSource,
  type TextPlace,
  type Problem,
  type Section,
  type Slot,
} from './syntax';

type ParseResult =
  | { readonly ok: true; readonly source: ChartSource }
  /** What could be read is kept; a chord that could not is silent. */
  | {
      readonly ok: false;
      readonly problems: readonly Problem[];
      readonly readable: ChartSource;
    };

/** What a text is read with. */
export interface ParseOptions {
  /** Overrules the chart's own `key:` line. */
  readonly key?: Key;
}

type Mutable<T> = { -readonly [P in keyof T]: T[P] };
type SectionDraft = Mutable<Section> & { bars: Bar[] };

interface BarDraft {
  slots: Mutable<Slot>[];
  repeatOf: 1 | 2 | null;
  opensRepeat: boolean;
  endings: readonly number[];
  place: Mutable<TextPlace>;
}

interface Reader {
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

/** Names of notes and numerals in a text that say how others in it are meant. */
interface ForeignNames {
  /** Sol-fa, where `Do` is C. */
  readonly solFa: boolean;
  /** An H, beside which B could be B flat. */
  readonly german: boolean;
  /** Decimal numerals, among which `b7` is a degree. */
  readonly decimal: boolean;
}

/** Whether a text of a line may begin with a foreign name or a figure: most charts have none, and are read once. */
const FOREIGN = /(?<![^\s|:\]])(?:h|sol|r[eé]|mi|fa|la|si|[1-7])/iu;

function namesIn(lines: readonly string[]): ForeignNames {
  const texts = lines
    .map(withoutComment)
    .filter((line) => FOREIGN.test(line) && !HEADER_PATTERN.test(line))
    .flatMap((line, index) => tokenize(line, index, 0))
    .flatMap(({ kind, text }) => (kind === 'text' ? [text] : []));
  return {
    solFa: texts.some(isSolFa),
    german: texts.some(isGerman),
    decimal: texts.some((text) => /^[1-7]/u.test(text)),
  };
}

function complain(reader: Reader, place: TextPlace, token: string, message: string): void {
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

function startBar(reader: Reader, token: Token): BarDraft {
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

function endBar(reader: Reader): void {
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

function closeRepeat(reader: Reader, token: Token): void {
  endBar(reader);
  const bars = reader.sections.at(-1)?.bars;
  const last = bars?.at(-1);
  if (!bars || !last) {
    complain(reader, token, token.text, 'A repeat ends here, but no bar comes before it.');
    return;
  }
  bars[bars.length - 1] = { ...last, closesRepeat: 2 };
  if (token.text.endsWith(':')) reader.opensNext = true;
}

function countRepeats(reader: Reader, token: Token, previous: Token | undefined): void {
  const count = Number(token.text.slice(1));
  if (count < 1 || count > CHART_LIMITS.repeats) {
    const message = `A repeat count is between 1 and ${CHART_LIMITS.repeats}.`;
    complain(reader, token, token.text, message);
    return;
  }
  const section = reader.sections.at(-1);
  const last = section?.bars.at(-1);
  if (previous?.kind === 'close-repeat' && section && last) {
    section.bars[section.bars.length - 1] = { ...last, closesRepeat: count };
  } else if (previous?.kind === 'bracket' && section && section.bars.length === 0) {
    section.repeats = count;
  } else {
    complain(
      reader,
      token,
      token.text,
      `“${token.text}” counts repeats: it stands after “:|” or after a section’s name.`,
    );
  }
}

function readEndings(text: string): readonly number[] | null {
  if (!/^\d+(?:\s*[,-]\s*\d+)*$/u.test(text)) return null;
  const endings = text.split(',').flatMap((part) => {
    const [from = 0, to = from] = part.split('-').map(Number);
    return to - from > CHART_LIMITS.repeats
      ? []
      : Array.from({ length: to - from + 1 }, (_, index) => from + index);
  });
  const sensible = endings.every((ending) => ending >= 1 && ending <= CHART_LIMITS.repeats);
  return sensible && endings.length > 0 ? endings : null;
}

function readBracket(reader: Reader, token: Token, startsLine: boolean): void {
  if (!token.text.endsWith(']')) {
    complain(reader, token, token.text, 'This bracket is not closed: write [A] or [1].');
    return;
  }
  const name = token.text.slice(1, -1).trim();
  if (/^[\d\s,-]+$/u.test(name)) {
    const endings = readEndings(name);
    if (endings === null) {
      complain(reader, token, token.text, `“${token.text}” is not an ending: write [1] or [1,2].`);
    } else if (reader.bar !== null) {
      complain(reader, token, token.text, 'An ending begins at a bar line, before its chords.');
    } else {
      reader.endingsNext = endings;
    }
    return;
  }
  if (!startsLine) {
    complain(reader, token, token.text, 'A section’s name stands at the start of a line.');
    return;
  }
  if (name === '') {
    complain(reader, token, token.text, 'A section needs a name between its brackets.');
    return;
  }
  endBar(reader);
  const { from, to, line, column } = token;
  const place = { from, to, line, column };
  reader.sections.push({ name, repeats: 1, key: null, bars: [], place });
}

function keyInForce(reader: Reader): Key | null {
  return reader.sections.at(-1)?.key ?? reader.keyGiven ?? reader.headers.key;
}

const SILENCE = /^N\.?C\.?$/iu;
const NOTHING = { chord: null, numeral: false };

/** The chord of a text, null for none and, after complaining, for what cannot be read. */
function readChord(reader: Reader, token: Token): Pick<Slot, 'chord' | 'numeral'> {
  const { text } = token;
  if (SILENCE.test(text)) return NOTHING;
  const { solFa, german, decimal } = reader.names;
  const figure = looksLikeDecimal(text);
  const chord = decimal && figure ? null : parseTyped(text, solFa);
  if (chord && german && /^b(?![b♭#♯])/iu.test(text)) {
    const rest = text.slice(1);
    const message = `This chart writes H, so “${text}” could be B or B flat: write H${rest} or Bb${rest}.`;
    complain(reader, token, text, message);
    return NOTHING;
  }
  if (chord) return { chord, numeral: false };
  if (figure || looksLikeNumeral(text)) {
    const key = keyInForce(reader);
    if (key === null) {
      const example = 'write a line “key: Eb” above the chart';
      const kind = figure ? 'a degree of a key' : 'a Roman numeral';
      complain(reader, token, text, `“${text}” is ${kind}: ${example}.`);
      return NOTHING;
    }
    const read = figure ? parseDecimal(text, key) : parseNumeral(text, key);
    if (read) return { chord: read, numeral: true };
  }
  complain(reader, token, text, explainUnreadable(text));
  return NOTHING;
}

function readSlot(reader: Reader, token: Token): void {
  if (reader.bar !== null && reader.bar.repeatOf !== null) {
    complain(reader, token, token.text, 'A bar with % holds nothing else.');
    return;
  }
  if (token.kind === 'share') {
    const slot = reader.bar?.slots.at(-1);
    if (slot) slot.shares += 1;
    else complain(reader, token, token.text, 'A slash needs a chord before it in the same bar.');
    if (reader.bar) reader.bar.place.to = token.to;
    return;
  }
  if (token.kind === 'same') {
    const holdsChords = reader.bar !== null;
    const bar = startBar(reader, token);
    if (holdsChords) complain(reader, token, token.text, 'A bar with % holds nothing else.');
    else bar.repeatOf = token.text === '%' ? 1 : 2;
    return;
  }
  const read = readChord(reader, token);
  const bar = startBar(reader, token);
  const { from, to, line, column } = token;
  reader.written += 1;
  // One that cannot be read keeps its place, so that what can be read is shown in time.
  bar.slots.push({ ...read, shares: 1, place: { from, to, line, column } });
}

function readToken(reader: Reader, tokens: readonly Token[], index: number): void {
  const token = tokens[index];
  if (!token) return;
  const previous = tokens[index - 1];
  switch (token.kind) {
    case 'bar':
    case 'open-repeat': {
      const nothingBetween = previous?.kind === 'bar' || previous?.kind === 'open-repeat';
      if (nothingBetween && token.kind === 'bar') {
        const message = 'This bar is empty: write a chord, % for the bar before, or N.C.';
        complain(reader, token, token.text, message);
      }
      endBar(reader);
      if (token.kind === 'open-repeat') reader.opensNext = true;
      return;
    }
    case 'close-repeat':
      return closeRepeat(reader, token);
    case 'count':
      return countRepeats(reader, token, previous);
    case 'key':
      return readSectionKey(reader, token);
    case 'bracket':
      return readBracket(reader, token, index === 0);
    default:
      return readSlot(reader, token);
  }
}

function readSectionKey(reader: Reader, token: Token): void {
  const section = reader.sections.at(-1);
  const text = token.text.slice('key:'.length).trim();
  const key = parseKey(text);
  if (!section || section.bars.length > 0 || reader.bar !== null) {
    complain(
      reader,
      token,
      token.text.trim(),
      'A key area stands after a section’s name: [B] key: Ab.',
    );
  } else if (key === null) {
    complain(reader, token, text, notAKey(text));
  } else {
    section.key = key;
  }
}

function readBars(reader: Reader, line: string, number: number, offset: number): void {
  const tokens = tokenize(line, number, offset);
  for (const [index, token] of tokens.entries()) {
    readToken(reader, tokens, index);
    if (reader.written <= CHART_LIMITS.chords) continue;
    complain(reader, token, token.text, `A form has at most ${CHART_LIMITS.chords} chords.`);
    break;
  }
  endBar(reader);
}

const withoutComment = (line: string): string =>
  line.trimStart().startsWith('#') ? '' : line.replace(/\/\/.*$/u, '');

function readLine(reader: Reader, raw: string, number: number, offset: number): void {
  if (reader.written > CHART_LIMITS.chords) return;
  const line = withoutComment(raw);
  if (line.trim() === '') return;
  const header = HEADER_PATTERN.exec(line);
  if (!header) {
    readBars(reader, line, number, offset);
    return;
  }
  const [whole = '', name = '', value = ''] = header;
  const column = whole.length - value.length + 1;
  const from = offset + column - 1;
  const place = { from, to: offset + line.trimEnd().length, line: number, column };
  if (reader.sections.length > 0) {
    const message = `The line “${name}:” belongs above the first bar.`;
    complain(reader, { ...place, from: offset, column: 1 }, name, message);
    return;
  }
  const problem = applyHeader(reader.headers, name.toLowerCase(), value.trim());
  if (problem !== null) complain(reader, place, value.trim() || name, problem);
}

function checkRepeats(reader: Reader): void {
  for (const section of reader.sections) {
    let open: Bar | null = null;
    for (const bar of section.bars) {
      if (bar.opensRepeat && open) break;
      if (bar.opensRepeat) open = bar;
      if (bar.closesRepeat !== null) open = null;
    }
    const message = 'This repeat is never closed: end it with “:|”.';
    if (open) complain(reader, open.place, '|:', message);
  }
  if (reader.opensNext || reader.endingsNext.length > 0) {
    const last = reader.sections.at(-1);
    const place = last?.bars.at(-1)?.place ?? last?.place;
    if (place)
      complain(reader, place, '', 'A repeat or an ending begins here, but no bar follows.');
  }
}

/**
 * Reads a whole chart text. Every problem is reported, in the order of the text.
 *
 * @example parseChart('| C | F G |').source.sections[0].bars.length; // 2
 */
export function parseChart(text: string, options: ParseOptions = {}): ParseResult {
  const reader: Reader = {
    problems: [],
    headers: { title: '', key: null, time: DEFAULT_TIME, tempo: null, feel: null, idiom: null },
    sections: [],
    keyGiven: options.key,
    bar: null,
    written: 0,
    opensNext: false,
    endingsNext: [],
    names: { solFa: false, german: false, decimal: false },
  };
  const start = { from: 0, to: 0, line: 1, column: 1 };
  if (text.length > CHART_LIMITS.characters) {
    const message = `A chart holds at most ${CHART_LIMITS.characters} characters; this one has ${text.length}.`;
    return {
      ok: false,
      problems: [{ ...start, message, token: '' }],
      readable: { ...reader.headers, sections: [] },
    };
  }
  const lines = text.split('\n');
  reader.names = namesIn(lines);
  let offset = 0;
  lines.forEach((line, index) => {
    readLine(reader, line.replace(/\r$/u, ''), index + 1, offset);
    offset += line.length + 1;
  });
  checkRepeats(reader);
  const sections = reader.sections.filter((section) => section.bars.length > 0);
  if (sections.length === 0 && reader.problems.length === 0) {
    const message = 'There are no bars yet: write chords between bar lines, like | Am7 | D9 |.';
    complain(reader, start, '', message);
  }
  const source = { ...reader.headers, key: options.key ?? reader.headers.key, sections };
  return reader.problems.length > 0
    ? { ok: false, problems: reader.problems, readable: source }
    : { ok: true, source };
}
