/** Reads chart text: headers, sections, bars. */
import { DEFAULT_TIME } from '../time/metre';
import { explainUnreadable, parseTyped } from '../chords/symbols';
import { type Key, parseKey } from '../keys/keys';
import { looksLikeDecimal, looksLikeNumeral, parseDecimal, parseNumeral } from '../keys/numerals';
import { namesIn, withoutComment } from './foreignNames';
import { applyHeader, HEADER_PATTERN, notAKey } from './headers';
import { type Token, tokenize } from './lexer';
import { complain, endBar, keyInForce, type Reader, startBar } from './reader';
import { checkRepeats, closeRepeat, countRepeats, readBracket } from './repeats';
import { CHART_LIMITS, type ChartSource, type Problem, type Slot } from './syntax';

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
