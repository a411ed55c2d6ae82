/**
 * Song sheets as chart text: ChordPro, chords in brackets within the words, or in a line over them. The words are
 * left out. Where a sheet has no bar lines it does not say how long a chord lasts: each has a bar.
 */
import { CHART_LIMITS } from '../../../chart/syntax';
import { parseChord } from '../../../chords/symbols';
import { type Key, parseKey } from '../../../keys/keys';
import type { Refusal } from '../../result';
import { chartText, type ReadBar } from '../bars';

type SongResult =
  { readonly ok: true; readonly text: string; readonly remarks: readonly string[] } | Refusal;

const DIRECTIVE = /^\s*\{\s*([A-Za-z_]+)(?:-[\w!]+)?\s*(?:[:\s]\s*(.*?))?\s*\}\s*$/u;
/** A name such parts of a song have, alone on a line or in brackets. */
const HEADING =
  /^\s*[[(]?\s*((?:verse|chorus|refrain|bridge|intro|outro|solo|interlude|pre-?chorus|coda|ending|instrumental|strophe|turnaround|vamp|part|section)\b[^\]|:]{0,30})\s*[\])]?\s*:?\s*$/iu;
const FIELD = /^\s*(title|key|tempo|time|capo|artist|bpm)\s*[:=]\s*(.+)$/iu;
const REPEATED = /\(?\s*(?:x\s*(\d{1,2})|(\d{1,2})\s*x)\s*\)?\s*$/iu;
const SECTION_STARTS: Readonly<Record<string, string>> = {
  start_of_verse: 'Verse',
  sov: 'Verse',
  start_of_chorus: 'Chorus',
  soc: 'Chorus',
  start_of_bridge: 'Bridge',
  sob: 'Bridge',
};

interface Reader {
  readonly remarks: Set<string>;
  /** Whether H is a note of it, and B therefore a half step lower. */
  readonly german: boolean;
  readonly bars: ReadBar[];
  heading: string | null;
  title: string | null;
  key: Key | null;
  tempo: number | null;
  time: readonly [beats: number, unit: number];
  /** Whether any of its bars had bar lines, and any had none. */
  measured: boolean;
  unmeasured: boolean;
  /** Where each part begins and ends, by its name, for a chorus that is only named later. */
  readonly parts: Map<string, ReadBar[]>;
  part: string | null;
}

/** A chord as Corvel writes it; `N.C.` for none; null for what is no chord. */
function chordOf(written: string, german: boolean): string | null {
  const bare = written
    .trim()
    .replace(/♯/gu, '#')
    .replace(/♭/gu, 'b')
    .replace(/^\((.*)\)$/u, '$1')
    .replace(/[*?!,;…]+$/u, '');
  if (/^n\.?\s?c\.?$/iu.test(bare)) return 'N.C.';
  const translated = german
    ? bare.replace(/(^|\/)(H|B)/gu, (_, before: string, letter: string) =>
        letter === 'H' ? `${before}B` : `${before}Bb`,
      )
    : bare;
  // A small letter for minor, as German sheets write it: a, e.
  const minor = /^([a-g])([#b]?)(7?)$/u.exec(translated);
  const symbol = minor
    ? `${(minor[1] ?? '').toUpperCase()}${minor[2] ?? ''}m${minor[3] ?? ''}`
    : translated;
  return minor && !german ? null : (parseChord(symbol)?.symbol ?? null);
}

const CONTINUES = /^(?:[.\-/~]|%|–)$/u;

const isMeasured = (line: string): boolean => line.includes('|');

/** Words of a line that are chords or signs between them. */
const wordsOf = (line: string): readonly string[] =>
  line
    .replace(REPEATED, '')
    .split(/[\s|:]+/u)
    .filter((word) => word !== '');

/** Whether a line has chords alone. */
function isChordLine(line: string, german: boolean): boolean {
  const words = wordsOf(line);
  const chords = words.filter((word) => chordOf(word, german) !== null);
  const known = words.every(
    (word) => chordOf(word, german) !== null || CONTINUES.test(word) || /^\d+\.$/u.test(word),
  );
  return chords.length > 0 && known;
}

function pushBar(
  reader: Reader,
  chords: readonly string[],
  changed: Partial<ReadBar> = {},
  shares = chords.map((_, index) => index),
  ticks = Math.max(1, chords.length),
): void {
  const bar: ReadBar = {
    number: String(reader.bars.length + 1),
    pickup: false,
    ticks,
    heading: reader.heading,
    key: null,
    opensRepeat: false,
    closesRepeat: null,
    endings: [],
    same: 0,
    chords: chords.map((text, index) => ({ at: shares[index] ?? index, text })),
    ...changed,
  };
  reader.bars.push(bar);
  if (reader.part !== null)
    reader.parts.set(reader.part, [...(reader.parts.get(reader.part) ?? []), bar]);
  reader.heading = null;
}

/** The chords of a line with bar lines: `| C . G . | Am % |: F :| x2`. */
function readMeasured(
  reader: Reader,
  line: string,
  chordsOf: (part: string) => readonly string[],
): void {
  const ending = REPEATED.exec(line);
  const cells = line.replace(REPEATED, '').split('|');
  const from = reader.bars.length;
  let opens = false;
  for (const [index, cell] of cells.entries()) {
    const closes = /:\s*$/u.test(cell) && index < cells.length - 1;
    const opensHere = /^\s*:/u.test(cell) && index > 0;
    const words = chordsOf(cell.replace(/^\s*:|:\s*$/gu, ''));
    if (opensHere) opens = true;
    if (words.length === 0) continue;
    // `:| x3` in the middle of a line.
    const times = words.length === 1 ? /^x(\d{1,2})$/u.exec(words[0] ?? '') : null;
    const before = reader.bars.at(-1);
    if (times && before && before.closesRepeat !== null) {
      reader.bars[reader.bars.length - 1] = { ...before, closesRepeat: Number(times[1]) };
      continue;
    }
    const same = words.filter((word) => word === '%').length;
    if (same > 0 && words.every((word) => CONTINUES.test(word))) {
      pushBar(reader, [], { same: 1, opensRepeat: opens, closesRepeat: closes ? 2 : null });
    } else {
      const chords: string[] = [];
      const shares: number[] = [];
      for (const [place, word] of words.entries()) {
        if (CONTINUES.test(word)) continue;
        const chord = chordOf(word, reader.german);
        if (chord === null) {
          reader.remarks.add(`“${word}” is no chord Corvel reads; it was left out.`);
          continue;
        }
        chords.push(chord);
        shares.push(place);
      }
      if (chords.length === 0) continue;
      pushBar(
        reader,
        chords,
        { opensRepeat: opens, closesRepeat: closes ? 2 : null },
        shares,
        words.length,
      );
    }
    opens = false;
    reader.measured = true;
  }
  repeat(reader, from, ending);
}

/** What is played so often, as a repeat. */
function repeat(reader: Reader, from: number, times: RegExpExecArray | null): void {
  const count = Number(times?.[1] ?? times?.[2] ?? 1);
  const first = reader.bars[from];
  const last = reader.bars.at(-1);
  if (count < 2 || count > CHART_LIMITS.repeats || !first || !last) return;
  // A count after a repeat sign is that repeat's; else the whole line is repeated.
  if (last.closesRepeat === null) reader.bars[from] = { ...first, opensRepeat: true };
  const end = reader.bars.length - 1;
  reader.bars[end] = { ...(reader.bars[end] ?? last), closesRepeat: count };
}

/** The chords in brackets of a line, in order. */
const inBrackets = (line: string): readonly string[] =>
  [...line.matchAll(/\[([^\]]*)\]/gu)].map(([, inside = '']) => inside.trim());

function readChords(reader: Reader, words: readonly string[], line: string): void {
  const from = reader.bars.length;
  for (const word of words) {
    if (word === '' || word.startsWith('*') || CONTINUES.test(word)) continue;
    const chord = chordOf(word, reader.german);
    if (chord === null) reader.remarks.add(`“${word}” is no chord Corvel reads; it was left out.`);
    else {
      pushBar(reader, [chord]);
      reader.unmeasured = true;
    }
  }
  repeat(reader, from, REPEATED.exec(line));
}

function beginPart(reader: Reader, name: string): void {
  reader.heading = name;
  reader.part = name.toLowerCase();
  reader.parts.set(reader.part, []);
}

function readField(reader: Reader, name: string, value: string): void {
  switch (name) {
    case 'title':
    case 't':
      reader.title ??= value;
      break;
    case 'key': {
      const german = reader.german
        ? value
            .replace(/^H/u, 'B')
            .replace(/^B(?!b)(?=\s|m|$)/u, value.startsWith('H') ? 'B' : 'Bb')
        : value;
      reader.key ??= parseKey(german.trim());
      break;
    }
    case 'tempo':
    case 'bpm':
      reader.tempo ??= Number.parseFloat(value) || null;
      break;
    case 'time': {
      const [, beats, unit] = /^(\d+)\s*\/\s*(\d+)/u.exec(value) ?? [];
      if (beats && unit) reader.time = [Number(beats), Number(unit)];
      break;
    }
    case 'capo':
      reader.remarks.add(
        `The sheet asks for a capo on fret ${value.replace(/\D/gu, '') || value}: its chords are kept as they are fingered.`,
      );
      break;
    default:
      break;
  }
}

/** A directive of ChordPro; whether what follows is skipped, or read as a grid. */
function readDirective(
  reader: Reader,
  name: string,
  value: string,
): 'skip' | 'grid' | 'end' | null {
  const lower = name.toLowerCase();
  const starts = SECTION_STARTS[lower];
  const label = /label\s*=\s*"([^"]*)"/u.exec(value)?.[1] ?? value;
  if (starts !== undefined) beginPart(reader, label || starts);
  else if (/^(?:start_of_tab|sot|start_of_(?:abc|ly|svg|textblock))$/u.test(lower)) return 'skip';
  else if (/^(?:start_of_grid|sog)$/u.test(lower)) {
    if (label !== '' && !/^[\d+x]+$/u.test(label)) beginPart(reader, label);
    return 'grid';
  } else if (/^(?:end_of_\w+|eo\w)$/u.test(lower)) return 'end';
  else if (/^start_of_\w+$/u.test(lower)) beginPart(reader, label || lower.slice(9));
  else if (lower === 'chorus') {
    const chorus = [...reader.parts].find(([part]) =>
      part.startsWith(label.toLowerCase() || 'chorus'),
    );
    for (const [index, bar] of (chorus?.[1] ?? []).entries())
      reader.bars.push(index === 0 ? { ...bar, heading: label || 'Chorus' } : bar);
  } else if (/^(?:c|ci|cb|comment|comment_italic|comment_box|highlight)$/u.test(lower)) {
    const heading = HEADING.exec(value)?.[1];
    if (heading !== undefined) beginPart(reader, heading.trim());
  } else if (lower === 'meta') {
    const [field = '', ...rest] = value.split(/\s+/u);
    readField(reader, field.toLowerCase(), rest.join(' '));
  } else readField(reader, lower, value);
  return null;
}

const lettersOf = (text: string): readonly string[] => [...inBrackets(text), ...text.split(/\s+/u)];

/** Whether chords on H stand in it, as German sheets have them. */
const isGerman = (text: string): boolean =>
  lettersOf(text).some((word) => /^H(?:m|7|m7|maj7|sus4|dim)?(?:\/[A-H][#b]?)?$/u.test(word));

/** Whether a text looks like a song sheet rather than a chart. */
export function isSong(text: string): boolean {
  const german = isGerman(text);
  const lines = text.split(/\r?\n/u);
  if (lines.some((line) => DIRECTIVE.test(line))) return true;
  const bracketed = lines.some((line) =>
    inBrackets(line).some(
      (inside) =>
        chordOf(inside, german) !== null && line.replace(/\[[^\]]*\]/gu, '').trim() !== '',
    ),
  );
  return bracketed || lines.some((line) => !isMeasured(line) && isChordLine(line, german));
}

/** Reads a song sheet as chart text. */
export function readSong(text: string): SongResult {
  const german = isGerman(text);
  const reader: Reader = {
    remarks: new Set<string>(),
    german,
    bars: [],
    heading: null,
    title: null,
    key: null,
    tempo: null,
    time: [4, 4],
    measured: false,
    unmeasured: false,
    parts: new Map(),
    part: null,
  };
  let within: 'skip' | 'grid' | null = null;
  const lines = text.split(/\r?\n/u);
  for (const [index, line] of lines.entries()) {
    if (line.trim() === '' || /^\s*#/u.test(line)) continue;
    const directive = DIRECTIVE.exec(line);
    if (directive) {
      const next = readDirective(reader, directive[1] ?? '', directive[2] ?? '');
      if (next === 'end') within = null;
      else if (next !== null) within = next;
      continue;
    }
    if (within === 'skip') continue;
    if (within === 'grid') {
      readMeasured(reader, line, (cell) => cell.split(/\s+/u).filter((word) => word !== ''));
      continue;
    }
    const field = FIELD.exec(line);
    const heading = HEADING.exec(line)?.[1];
    if (field && !isChordLine(line, german)) {
      readField(reader, (field[1] ?? '').toLowerCase(), (field[2] ?? '').trim());
    } else if (heading !== undefined && chordOf(heading, german) === null) {
      beginPart(reader, heading.trim());
    } else if (line.includes('[')) {
      if (isMeasured(line)) readMeasured(reader, line, inBrackets);
      else readChords(reader, inBrackets(line), line);
    } else if (isChordLine(line, german)) {
      if (isMeasured(line))
        readMeasured(reader, line, (cell) => cell.split(/\s+/u).filter((word) => word !== ''));
      else readChords(reader, wordsOf(line), line);
    } else if (
      reader.title === null &&
      reader.bars.length === 0 &&
      lines.slice(0, index).every((one) => one.trim() === '')
    ) {
      reader.title = line.trim();
    }
  }
  if (reader.bars.length === 0)
    return { ok: false, message: 'This song sheet holds no chords to make a chart of.' };
  if (reader.bars.length > CHART_LIMITS.bars)
    return { ok: false, message: `A chart holds at most ${CHART_LIMITS.bars} bars.` };
  if (reader.unmeasured)
    reader.remarks.add(
      'A song sheet does not say how long a chord lasts: each has a bar. Put together those that share one.',
    );
  if (german) reader.remarks.add('H is read as B, and B as B flat, as German sheets mean them.');
  const { title, key, tempo } = reader;
  const [beats, unit] = reader.time;
  const headers = { title, key, beats, unit, tempo, feel: null, idiom: null };
  return {
    ok: true,
    text: chartText(reader.remarks, reader.bars, headers),
    remarks: [...reader.remarks],
  };
}
