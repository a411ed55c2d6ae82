/** Plain-text tablature read: by its rhythm letters where they stand, else by its columns. */
import { parseKey } from '../../../keys/keys';
import { at } from '../../../lists';
import { makeNeck } from '../../../neck/instruments';
import { fretFor, type Neck, pitchAt, stringCount } from '../../../neck/neck';
import type { Note } from '../../../notes/notes';
import { type Midi, parsePitch } from '../../../notes/pitch';
import { simplestPitch } from '../../../notes/spelling';
import { inTime, PLAIN_PASSAGE, type PlayedNote, struck } from '../../../phrases/passage';
import {
  bendBy,
  GRACE_BEATS,
  inOrder,
  type Technique,
  techniqueOf,
} from '../../../phrases/techniques';
import { readFeel } from '../../../time/feel';
import { barOf, type MetreChange, quarterOf, TIME_UNITS } from '../../../time/metre';
import { type PassageResult, refused } from '../../result';
import { counted } from '../../../words';
import { BEAT, type Beats, inBeats } from '../../../time/units';

/** Values by their letters, where a quarter note is a beat. */
const VALUES: Readonly<Record<string, Beats>> = {
  W: 4 * BEAT,
  H: 2 * BEAT,
  Q: BEAT,
  E: BEAT / 2,
  S: BEAT / 4,
  T: BEAT / 8,
};
const STRING_LINE = /^\s*([A-Ga-g][#b]?-?\d?)\s*\|(.*)$/u;
const TOKEN = /(r|~)?([WHQEST])(t)?(\.)?/gu;

/** String lines that stand together, with the rhythm above them. */
interface Lines {
  readonly names: string[];
  readonly strings: string[];
  readonly rhythm: string;
  readonly indent: number;
}

interface System extends Lines {
  readonly frets: readonly StandingFret[];
}

/** Blocks of string lines, each with the line above it. */
function systemsOf(text: string): readonly System[] {
  const lines = text.split(/\r?\n/u);
  const blocks: Lines[] = [];
  let block: Lines | null = null;
  for (const [index, line] of lines.entries()) {
    const match = STRING_LINE.exec(line);
    if (!match) {
      block = null;
      continue;
    }
    const indent = line.indexOf('|') + 1;
    if (block === null) {
      block = { names: [], strings: [], rhythm: lines[index - 1] ?? '', indent };
      blocks.push(block);
    }
    block.names.push(match[1] ?? '');
    block.strings.push(line.slice(indent));
  }
  return blocks
    .filter(({ strings }) => strings.length >= LEAST_STRINGS)
    .map((one) => ({ ...one, frets: fretsOf(one) }));
}

const LEAST_STRINGS = 4;

/** A fret with its signs, as {@link fretText} writes it and as tab is commonly written. */
const FRET =
  /([ghp]*)(?:\((\d{1,2})\)[/\\]|([/\\]))?(x)?(\d{1,2})?(?:(b)(\d{1,2})?(?:(r)\d{0,2})?)?(?:[/\\]\((\d{1,2})\))?([~v]+)?(\*)?/gu;

interface StandingFret {
  readonly string: number;
  readonly column: number;
  readonly fret: number;
  readonly techniques: readonly Technique[];
}

const WHOLE_STEP = 2;

function readFret(match: RegExpExecArray): Omit<StandingFret, 'string' | 'column'> | null {
  const [, joins = '', from, slide, mute, digits, bend, bent, release, to, shaken, ring] = match;
  if (digits === undefined && mute === undefined) return null;
  const fret = Number(digits ?? 0);
  const techniques: Technique[] = [];
  if (joins.includes('g')) techniques.push({ kind: 'grace' });
  if (joins.includes('h')) techniques.push({ kind: 'hammer-on' });
  if (joins.includes('p')) techniques.push({ kind: 'pull-off' });
  if (from !== undefined) techniques.push({ kind: 'slide', from: Number(from) });
  else if (to !== undefined) techniques.push({ kind: 'slide', to: Number(to) });
  else if (slide !== undefined) techniques.push({ kind: 'slide' });
  if (bend !== undefined) {
    const size = bent === undefined ? WHOLE_STEP : Number(bent) - fret;
    if (size > 0) techniques.push(bendBy(size, release !== undefined));
  }
  if (shaken !== undefined) techniques.push({ kind: 'vibrato' });
  if (mute !== undefined) techniques.push({ kind: 'mute' });
  if (ring !== undefined) techniques.push({ kind: 'let-ring' });
  return { fret, techniques: inOrder(techniques) };
}

/** Every fret of a system, by column; at one column from the highest string. */
function fretsOf({ strings }: Lines): readonly StandingFret[] {
  const found = strings.flatMap((line, index) =>
    [...line.matchAll(FRET)].flatMap((match) => {
      const read = readFret(match);
      return read ? [{ string: index + 1, column: match.index, ...read }] : [];
    }),
  );
  return found.sort((a, b) => a.column - b.column || a.string - b.string);
}

/** Bars of a system as column spans. */
function barSpans({ strings }: System): readonly (readonly [from: number, to: number])[] {
  const first = at(strings, 0);
  const walls = [...first].flatMap((sign, column) => (sign === '|' ? [column] : []));
  return walls.map((wall, index): readonly [number, number] => [
    index === 0 ? 0 : at(walls, index - 1) + 1,
    wall,
  ]);
}

interface Moment {
  readonly column: number;
  readonly beats: Beats;
  readonly kind: 'note' | 'rest' | 'tied';
}

/** The rhythm written above a bar; null where there is none. */
function writtenRhythm(
  { rhythm, indent }: System,
  [from, to]: readonly [number, number],
  unit: number,
): readonly Moment[] | null {
  const text = rhythm.slice(indent + from, indent + to);
  if (/[^\sWHQESTrt~.]/u.test(text) || text.trim() === '') return null;
  return [...text.matchAll(TOKEN)].map((match): Moment => {
    const [, mark, letter = 'Q', triplet, dot] = match;
    const plain = ((VALUES[letter] ?? BEAT) * unit) / 4;
    const beats = triplet ? (plain * 2) / 3 : dot ? (plain * 3) / 2 : plain;
    const kind = mark === 'r' ? 'rest' : mark === '~' ? 'tied' : 'note';
    return { column: from + match.index, beats, kind };
  });
}

/** Without a rhythm, columns stand for time: each note lasts until the next. */
function guessedRhythm(
  { frets }: System,
  [from, to]: readonly [number, number],
  bar: Beats,
  unit: number,
): readonly Moment[] {
  const columns = [
    ...new Set(
      frets.filter(({ column }) => column >= from && column < to).map(({ column }) => column),
    ),
  ];
  const width = Math.max(1, to - from);
  const grid = quarterOf(unit) / 4;
  const beatOf = (column: number) => Math.round(((column - from) / width) * (bar / grid)) * grid;
  const moments: Moment[] = [];
  let place = 0;
  for (const [index, column] of columns.entries()) {
    // A dash before the first note is the bar line's, not a rest.
    const start = index === 0 && column - from <= 2 ? 0 : Math.max(place, beatOf(column));
    if (start > place) moments.push({ column: -1, beats: start - place, kind: 'rest' });
    const next = columns[index + 1];
    const end = next === undefined ? bar : Math.max(start + grid, beatOf(next));
    moments.push({ column, beats: end - start, kind: 'note' });
    place = end;
  }
  return moments;
}

function headerOf(text: string) {
  const [first = '', second = ''] = text.split(/\r?\n/u);
  const said = (pattern: RegExp): string | undefined => pattern.exec(second)?.[1];
  const time = /(\d{1,2})\/(\d{1,2})/u.exec(second);
  const beats = Number(time?.[1] ?? 4);
  const unit = Number(time?.[2] ?? 4);
  const tempo = said(/(\d{2,3}) bpm/u);
  const key = said(/key of ([^,]+)/u);
  return {
    title: STRING_LINE.test(first) ? '' : first.trim(),
    time: beats >= 1 && TIME_UNITS.includes(unit) ? { beats, unit } : { beats: 4, unit: 4 },
    tempo: tempo === undefined ? null : Number(tempo),
    key: key === undefined ? null : parseKey(key),
    feel: readFeel(said(/feel: (.+)$/u) ?? null),
    capo: Number(said(/capo (\d{1,2})/u) ?? 0),
  };
}

/** The neck the string names speak of; the given one where they leave the octave open. */
function neckOf({ names }: System, neck: Neck, capo: number): Neck {
  const pitched = [...names].reverse();
  if (pitched.every((name) => parsePitch(name) !== null)) {
    const made = makeNeck({ tuning: pitched, frets: neck.frets, capo });
    if (made.ok) return made.neck;
  }
  return neck;
}

/** Frets that stand before a moment's, on columns of their own: its grace notes. */
const gracesBefore = ({ frets }: System, column: number, floor: number): readonly StandingFret[] =>
  frets.filter(
    (one) => one.column >= floor && one.column < column && techniqueOf(one.techniques, 'grace'),
  );

/** Reads tablature; the rhythm by its letters where they stand, else by the columns. */
export function readTab(
  text: string,
  given: Neck,
  spell: (midi: Midi, beat: Beats) => Note = simplestPitch,
): PassageResult {
  const systems = systemsOf(text);
  const [first] = systems;
  if (!first) return refused('There is no tablature in this text.');
  const { title, time, tempo, key, feel, capo } = headerOf(text);
  const neck = neckOf(first, given, capo);
  if (first.strings.length !== stringCount(neck)) {
    return refused(
      `This tablature has ${counted(first.strings.length, 'string')}, the instrument ${stringCount(neck)}.`,
    );
  }
  const notes: PlayedNote[] = [];
  const metreChanges: MetreChange[] = [];
  const bars = systems.flatMap((system) => barSpans(system).map((span) => ({ system, span })));
  let bar = barOf(time);
  let start = 0;
  let pickUp = 0;
  for (const [which, { system, span }] of bars.entries()) {
    const written = writtenRhythm(system, span, time.unit);
    const moments = written ?? guessedRhythm(system, span, bar, time.unit);
    const filled = written?.reduce((sum, { beats }) => sum + beats, 0) ?? bar;
    if (which === 0 && filled < bar && bars.length > 1) {
      pickUp = filled;
      start = -filled;
    } else if (filled !== bar && filled > 0 && filled % BEAT === 0) {
      bar = filled;
      metreChanges.push({ beat: start, time: { ...time, beats: inBeats(filled) } });
    }
    let place = start;
    let floor = span[0];
    for (const { column, beats: length, kind } of moments) {
      if (kind === 'tied') {
        const last = notes.at(-1);
        for (const [index, note] of notes.entries()) {
          if (last && note.beat === last.beat) {
            notes[index] = { ...note, beats: note.beats + length };
          }
        }
      } else if (kind === 'note') {
        const graces = gracesBefore(system, column, floor);
        const standing = system.frets.filter((one) => one.column === column);
        for (const [order, one] of [...graces, ...standing].entries()) {
          const { string, fret, techniques } = one;
          const midi = pitchAt(neck, { string, fret });
          if (fretFor(neck, string, midi) === null)
            return refused(`Fret ${fret} lies off the neck.`);
          const early = Math.max(0, graces.length - order) * GRACE_BEATS;
          const beat = place - early;
          const beats = early > 0 ? GRACE_BEATS : length;
          notes.push(
            struck({ beat, beats, string, fret, note: spell(midi, beat), chord: null, techniques }),
          );
        }
      }
      if (column >= 0) floor = column + 1;
      place += length;
    }
    start += which === 0 && pickUp > 0 ? pickUp : bar;
  }
  if (notes.length === 0) return refused('This tablature holds no notes.');
  return {
    ok: true,
    passage: {
      ...PLAIN_PASSAGE,
      title,
      key,
      time,
      metreChanges,
      feel,
      tempo,
      neck,
      pickUp,
      beats: start,
      notes: inTime(notes),
    },
    remarks: [],
  };
}
