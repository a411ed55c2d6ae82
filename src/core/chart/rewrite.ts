/** Whole charts rewritten: to another key, to Roman numerals and back. The layout stays as it is. */
import { type Chord, chordNotes, transposeChord } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { type Key, parseKey, signatureTonic, writeKey } from '../keys/keys';
import { parseNumeral, writeNumeral } from '../keys/numerals';
import { degreeName } from '../notes/degrees';
import {
  alteration,
  type Interval,
  intervalBetween,
  type Note,
  noteName,
  parseNote,
  simplify,
  transpose,
} from '../notes/notes';
import { HEADER_PATTERN } from './headers';
import { parseChart } from './parse';
import { withHeader } from './summary';
import type { ChartSource, Slot } from './syntax';

interface Splice {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

function splice(text: string, splices: readonly Splice[]): string {
  let result = '';
  let position = 0;
  for (const { from, to, text: put } of [...splices].sort((a, b) => a.from - b.from)) {
    result += text.slice(position, from) + put;
    position = to;
  }
  return result + text.slice(position);
}

/** The slots that hold a chord, with the key their section is in. */
function slotsOf(source: ChartSource): readonly (Slot & { readonly key: Key | null })[] {
  return source.sections.flatMap((section) =>
    section.bars.flatMap(({ content }) =>
      content.kind === 'slots'
        ? content.slots
            .filter(({ chord }) => chord !== null)
            .map((slot) => ({ ...slot, key: section.key ?? source.key }))
        : [],
    ),
  );
}

const ROOT = /^[A-G](?:bb(?!5)|##|[#b♯♭x𝄪𝄫])?/u;
const BASS = /\/([A-G](?:bb|##|[#b♯♭x𝄪𝄫])?)$/u;

/** Beyond double accidentals, which no text can hold, the enharmonic note. */
const writable = (note: Note): Note => (Math.abs(alteration(note)) > 2 ? simplify(note) : note);

/**
 * A symbol moved by an interval; what follows its root stays as the player wrote it.
 *
 * @example transposeSymbol('Cmaj7/E', degree('2')); // "Dmaj7/F#"
 */
export function transposeSymbol(symbol: string, interval: Interval): string {
  const move = (name: string) => {
    const note = parseNote(name);
    return note === null ? null : writable(transpose(note, interval));
  };
  const root = (name: string) => {
    const moved = move(name);
    if (moved === null) return name;
    // A double flat before a 5 would be read as a flat and a flat fifth: “Bbb5” is B♭ with ♭5.
    const power = symbol.startsWith('5', name.length) && alteration(moved) === -2;
    return noteName(power ? simplify(moved) : moved);
  };
  return symbol.replace(ROOT, root).replace(BASS, (written, bass: string) => {
    const moved = move(bass);
    return moved === null ? written : `/${noteName(moved)}`;
  });
}

/** The `key:` lines of headers and sections, as places of their values. */
function keyPlaces(text: string): readonly Splice[] {
  const places: Splice[] = [];
  let offset = 0;
  for (const line of text.split('\n')) {
    const header = HEADER_PATTERN.exec(line);
    const value =
      header?.[1]?.toLowerCase() === 'key'
        ? header[2]
        : /^\s*\[[^\]]*\][^|]*?\bkey:\s*([^|]*)/iu.exec(line.replace(/\/\/.*$/u, ''))?.[1];
    const written = value?.replace(/\/\/.*$/u, '').trim() ?? '';
    if (written !== '') {
      const from = offset + line.indexOf(written, line.toLowerCase().indexOf('key:') + 4);
      places.push({ from, to: from + written.length, text: written });
    }
    offset += line.length + 1;
  }
  return places;
}

/** A chord as its player wrote it; in letters where it is typed small or by German or sol-fa names. */
const lettered = (written: string, chord: Chord): string =>
  parseChord(written)?.root === chord.root ? written : chord.symbol;

/**
 * Whether a text writes any chord as a degree of its key.
 *
 * @example writesNumerals('key: D\n| ii7 | V7 |'); // true
 */
export function writesNumerals(text: string): boolean {
  const parsed = parseChart(text);
  return parsed.ok && slotsOf(parsed.source).some(({ numeral }) => numeral);
}

function moveText(text: string, interval: Interval): string | null {
  const parsed = parseChart(text);
  if (!parsed.ok) return null;
  const chords = slotsOf(parsed.source).flatMap(({ chord, numeral, place }): readonly Splice[] => {
    const { from, to } = place;
    const written = text.slice(from, to);
    // A numeral says the same in every key.
    if (numeral || !chord) return [];
    return [{ from, to, text: transposeSymbol(lettered(written, chord), interval) }];
  });
  const keys = keyPlaces(text).map((place) => {
    const key = parseKey(place.text);
    const moved = key && { tonic: writable(transpose(key.tonic, interval)), mode: key.mode };
    return { ...place, text: moved ? writeKey(moved) : place.text };
  });
  return splice(text, [...chords, ...keys]);
}

/**
 * The chart in the key whose tonic is `to`, from the key whose tonic is `from`. Every letter keeps
 * its place against the tonic, so that going back gives the very same text. Null while the text
 * cannot be read.
 *
 * @example transposeChart('| C | Am7 |', note('C'), note('D')); // "| D | Bm7 |"
 */
export const transposeChart = (text: string, from: Note, to: Note): string | null =>
  moveText(text, intervalBetween(from, to));

/** Sharps or flats of a key's signature; more than seven are never written. */
const signatureSize = (key: Key): number => Math.abs(signatureTonic(key));

/** The chart so many half steps up, in whichever spelling has the simpler signature or roots. */
export function shiftChart(text: string, halfSteps: number, home: Key | null): string | null {
  const parsed = parseChart(text);
  if (!parsed.ok) return null;
  const up = (((halfSteps * 7) % 12) + 12) % 12;
  const choices = [up, up - 12].map((fifths) => fifths as Interval);
  const burden = (interval: Interval): number =>
    home
      ? signatureSize({ ...home, tonic: transpose(home.tonic, interval) })
      : slotsOf(parsed.source).reduce((sum, { chord }) => sum + rootBurden(chord, interval), 0);
  const [first = choices[0], second = choices[1]] = choices;
  const best = first !== undefined && second !== undefined && burden(first) <= burden(second);
  const interval = best ? first : second;
  return interval === undefined ? null : moveText(text, interval);
}

const rootBurden = (chord: Chord | null, interval: Interval): number =>
  chord === null
    ? 0
    : chordNotes(transposeChord(chord, interval)).reduce(
        (sum, note) => sum + Math.abs(alteration(note)),
        0,
      );

/** A numeral that reads back as the very chord: the usual one, or else the player's own suffix. */
function numeralFor(written: string, chord: Chord, key: Key): string {
  const usual = writeNumeral(chord, key);
  if (parseNumeral(usual, key)?.symbol === written) return usual;
  const bass = chord.bass === null ? '' : `/${degreeName(intervalBetween(chord.root, chord.bass))}`;
  const bare = writeNumeral({ ...chord, bass: null, quality: { ...chord.quality, name: '' } }, key);
  return bare + written.replace(ROOT, '').replace(BASS, '') + bass;
}

/**
 * The chart in Roman numerals against its key (`home` where it states none); null if unreadable.
 *
 * @example toNumerals('key: C\n| Dm7 | G7 |', parseKey('C')); // "key: C\n| ii7 | V7 |"
 */
export function toNumerals(text: string, home: Key): string | null {
  const stated = parseChart(text);
  if (!stated.ok) return null;
  const keyed = stated.source.key ? text : withHeader(text, 'key', writeKey(home));
  const parsed = parseChart(keyed);
  if (!parsed.ok) return null;
  return splice(
    keyed,
    slotsOf(parsed.source).flatMap(({ chord, key, numeral, place }): readonly Splice[] => {
      if (!chord || !key || numeral) return [];
      const { from, to } = place;
      return [{ from, to, text: numeralFor(lettered(keyed.slice(from, to), chord), chord, key) }];
    }),
  );
}

/** The symbol of a numeral, with the suffix as it was written where that is a chord's own. */
function symbolFor(written: string, chord: Chord): string {
  const suffix = /^[b♭#♯]*[IV]+(?![iv])(.*?)(?:\/[b#]{0,2}[1-7])?$/u.exec(written)?.[1];
  const bass = chord.bass === null ? '' : `/${noteName(chord.bass)}`;
  const spelled = noteName(chord.root) + (suffix ?? '') + bass;
  const read = suffix === undefined ? null : parseChord(spelled);
  return read && read.root === chord.root && read.quality.name === chord.quality.name
    ? spelled
    : chord.symbol;
}

/**
 * The chart in chord symbols; null while the text cannot be read.
 *
 * @example toSymbols('key: D\n| ii7 | V7 |'); // "key: D\n| Em7 | A7 |"
 */
export function toSymbols(text: string): string | null {
  const parsed = parseChart(text);
  if (!parsed.ok) return null;
  return splice(
    text,
    slotsOf(parsed.source).flatMap(({ chord, numeral, place: { from, to } }): readonly Splice[] => {
      return chord && numeral ? [{ from, to, text: symbolFor(text.slice(from, to), chord) }] : [];
    }),
  );
}
