/**
 * Plain-text tablature. Above the strings stand the chords and the rhythm: `W H Q E S` for whole to
 * sixteenth, `.` dotted, `t` triplet, `r` before a rest and `~` before a note that is tied on.
 */
import { chordName } from '../../chords/chords';
import { at, range } from '../../lists';
import { makeNeck } from '../../neck/instruments';
import { fretFor, type Neck, openPitch, pitchAt, stringCount } from '../../neck/neck';
import type { Note } from '../../notes/notes';
import { type Midi, parsePitch, pitchName } from '../../notes/pitch';
import { type Articulation, type Passage, type PlayedNote, struck } from '../../phrases/played';
import { beatTicks, type Event, type Measure, measuresOf, type NoteValue } from '../rhythm';
import type { PassageResult } from '../midi/read';
import { simplestPitch } from '../spelling';

const LETTERS: Readonly<Record<NoteValue['type'], string>> = {
  whole: 'W',
  half: 'H',
  quarter: 'Q',
  eighth: 'E',
  '16th': 'S',
};
const TICKS: Readonly<Record<string, number>> = { W: 48, H: 24, Q: 12, E: 6, S: 3 };

function rhythmToken({ value, notes, tiedFrom }: Event): string {
  const mark = notes.length === 0 ? 'r' : tiedFrom ? '~' : '';
  return `${mark}${LETTERS[value.type]}${value.triplet ? 't' : ''}${value.dots > 0 ? '.' : ''}`;
}

/** A fret with how it is played: `7b9`, `h7`, `/5`, `5~`. */
export function fretText({ fret, articulation }: PlayedNote): string {
  switch (articulation?.kind) {
    case 'bend':
      return `${fret}b${fret + articulation.halfSteps}${articulation.release ? `r${fret}` : ''}`;
    case 'hammer-on':
      return `h${fret}`;
    case 'pull-off':
      return `p${fret}`;
    case 'slide':
      return `/${fret}`;
    case 'vibrato':
      return `${fret}~`;
    default:
      return String(fret);
  }
}

/** A bar as columns of text: chords, rhythm, then the strings from the highest. */
function barRows(passage: Passage, { number, ticks, events }: Measure): readonly string[] {
  const strings = stringCount(passage.neck);
  const tick = beatTicks(passage.time.unit);
  const from = (number - 1) * ticks;
  const symbolAt = ({ start, value }: Event) =>
    passage.chords
      .filter(({ beat }) => {
        const offset = Math.round(beat * tick) - from;
        return offset >= start && offset < start + value.ticks;
      })
      .map(({ chord }) => chordName(chord))
      .join(' ');
  const rows = range(0, strings + 2).map((row) => (row < 2 ? ' ' : '-'));
  for (const event of events) {
    const cells = [
      symbolAt(event),
      rhythmToken(event),
      ...range(1, strings + 1).map((string) => {
        const note = event.tiedFrom ? undefined : event.notes.find((one) => one.string === string);
        return note ? fretText(note) : '';
      }),
    ];
    const width = Math.max(2, ...cells.map((cell) => cell.length)) + 1;
    cells.forEach((cell, row) => {
      rows[row] += cell.padEnd(width, row < 2 ? ' ' : '-');
    });
  }
  return rows;
}

const LINE_WIDTH = 96;

/** The passage as text. */
export function writeTab(passage: Passage): string {
  const { title, time, tempo, neck } = passage;
  const strings = stringCount(neck);
  const names = range(1, strings + 1).map((string) => {
    const midi = openPitch(neck, string);
    return pitchName(simplestPitch(midi), midi);
  });
  const indent = Math.max(...names.map(({ length }) => length));
  const heads = ['', '', ...names].map((name) => name.padStart(indent));
  const bars = measuresOf(passage).map((measure) => barRows(passage, measure));
  const systems: string[][] = [];
  let system: string[] | null = null;
  for (const bar of bars) {
    const width = at(bar, 0).length + 1;
    if (system === null || at(system, 0).length + width > LINE_WIDTH) {
      system = heads.map((head, row) => head + (row < 2 ? ' ' : '|'));
      systems.push(system);
    }
    for (const [row, text] of bar.entries()) system[row] += text + (row < 2 ? ' ' : '|');
  }
  const head = [
    title,
    `${time.beats}/${time.unit}${tempo === null ? '' : `, ${tempo} bpm`}${neck.capo > 0 ? `, capo ${neck.capo}` : ''}`,
  ];
  const body = systems.map((rows) => rows.map((row) => row.trimEnd()).join('\n'));
  return `${[head.join('\n'), ...body].join('\n\n')}\n`;
}

const STRING_LINE = /^\s*([A-Ga-g][#b]?-?\d?)\s*\|(.*)$/u;
const TOKEN = /(r|~)?([WHQES])(t)?(\.)?/gu;

interface System {
  readonly names: string[];
  readonly strings: string[];
  readonly rhythm: string;
  readonly indent: number;
}

/** Blocks of string lines, each with the line above it. */
function systemsOf(text: string): readonly System[] {
  const lines = text.split(/\r?\n/u);
  const systems: System[] = [];
  let system: System | null = null;
  for (const [index, line] of lines.entries()) {
    const match = STRING_LINE.exec(line);
    if (!match) {
      system = null;
      continue;
    }
    const indent = line.indexOf('|') + 1;
    if (system === null) {
      system = { names: [], strings: [], rhythm: lines[index - 1] ?? '', indent };
      systems.push(system);
    }
    system.names.push(match[1] ?? '');
    system.strings.push(line.slice(indent));
  }
  return systems.filter(({ strings }) => strings.length >= 4);
}

const FRET = /^(?:([hp/])?(\d{1,2}))(?:b(\d{1,2}))?(r\d{1,2})?(~)?/u;

function readFret(
  text: string,
): { readonly fret: number; readonly articulation: Articulation | null } | null {
  const match = FRET.exec(text);
  if (!match) return null;
  const [, sign, digits, bent, release, shake] = match;
  const fret = Number(digits);
  if (bent !== undefined) {
    const size = Number(bent) - fret;
    if (size >= 1 && size <= 3) {
      const halfSteps = size as 1 | 2 | 3;
      return { fret, articulation: { kind: 'bend', halfSteps, release: release !== undefined } };
    }
  }
  if (shake !== undefined) return { fret, articulation: { kind: 'vibrato' } };
  const kind = { h: 'hammer-on', p: 'pull-off', '/': 'slide' }[sign ?? ''];
  return { fret, articulation: kind ? ({ kind } as Articulation) : null };
}

/** Frets standing at a column of a system, string by string from the highest. */
function fretsAt(system: System, column: number) {
  return system.strings.flatMap((line, index) => {
    const starts = /[\dhp/]/u.test(line[column] ?? '') && !/[\dbr]/u.test(line[column - 1] ?? '');
    const read = starts ? readFret(line.slice(column)) : null;
    return read ? [{ string: index + 1, ...read }] : [];
  });
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
  readonly ticks: number;
  readonly kind: 'note' | 'rest' | 'tied';
}

/** The rhythm written above a bar; null where there is none. */
function writtenRhythm({ rhythm, indent }: System, [from, to]: readonly [number, number]) {
  const text = rhythm.slice(indent + from, indent + to);
  if (/[^\sWHQESrt~.]/u.test(text) || text.trim() === '') return null;
  return [...text.matchAll(TOKEN)].map((match): Moment => {
    const [, mark, letter = 'Q', triplet, dot] = match;
    const plain = TICKS[letter] ?? 12;
    const ticks = triplet ? (plain * 2) / 3 : dot ? plain * 1.5 : plain;
    const kind = mark === 'r' ? 'rest' : mark === '~' ? 'tied' : 'note';
    return { column: from + match.index, ticks, kind };
  });
}

/** Without a rhythm, columns stand for time: each note lasts until the next. */
function guessedRhythm(system: System, [from, to]: readonly [number, number], barTicks: number) {
  const columns = range(from, to).filter((column) => fretsAt(system, column).length > 0);
  const width = Math.max(1, to - from);
  const grid = 3;
  const tickOf = (column: number) =>
    Math.round(((column - from) / width) * (barTicks / grid)) * grid;
  const moments: Moment[] = [];
  let place = 0;
  for (const [index, column] of columns.entries()) {
    // A dash before the first note is the bar line's, not a rest.
    const start = index === 0 && column - from <= 2 ? 0 : Math.max(place, tickOf(column));
    if (start > place) moments.push({ column: -1, ticks: start - place, kind: 'rest' });
    const next = columns[index + 1];
    const end = next === undefined ? barTicks : Math.max(start + grid, tickOf(next));
    moments.push({ column, ticks: end - start, kind: 'note' });
    place = end;
  }
  return moments;
}

function headerOf(text: string) {
  const [first = '', second = ''] = text.split(/\r?\n/u);
  const time = /(\d{1,2})\/(\d{1,2})/u.exec(second);
  const tempo = /(\d{2,3}) bpm/u.exec(second);
  const capo = /capo (\d{1,2})/u.exec(second);
  return {
    title: STRING_LINE.test(first) ? '' : first.trim(),
    time: { beats: Number(time?.[1] ?? 4), unit: Number(time?.[2] ?? 4) },
    tempo: tempo ? Number(tempo[1]) : null,
    capo: Number(capo?.[1] ?? 0),
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

/** Reads tablature; the rhythm by its letters where they stand, else by the columns. */
export function readTab(
  text: string,
  given: Neck,
  spell: (midi: Midi, beat: number) => Note = simplestPitch,
): PassageResult {
  const systems = systemsOf(text);
  const [first] = systems;
  if (!first) return { ok: false, message: 'There is no tablature in this text.' };
  const { title, time, tempo, capo } = headerOf(text);
  const neck = neckOf(first, given, capo);
  if (first.strings.length !== stringCount(neck)) {
    const message = `This tablature has ${first.strings.length} strings, the instrument ${stringCount(neck)}.`;
    return { ok: false, message };
  }
  const tick = beatTicks(time.unit);
  const bar = time.beats * tick;
  const notes: PlayedNote[] = [];
  let start = 0;
  for (const system of systems) {
    for (const span of barSpans(system)) {
      const moments = writtenRhythm(system, span) ?? guessedRhythm(system, span, bar);
      let place = start;
      for (const { column, ticks, kind } of moments) {
        if (kind === 'tied') {
          const last = notes.at(-1);
          for (const [index, note] of notes.entries()) {
            if (last && note.beat === last.beat) {
              notes[index] = { ...note, beats: note.beats + ticks / tick };
            }
          }
        } else if (kind === 'note') {
          for (const { string, fret, articulation } of fretsAt(system, column)) {
            const midi = pitchAt(neck, { string, fret });
            if (fretFor(neck, string, midi) === null) {
              return { ok: false, message: `Fret ${fret} lies off the neck.` };
            }
            const beat = place / tick;
            const timing = { beat, beats: ticks / tick };
            const note = spell(midi, beat);
            notes.push({ ...struck({ ...timing, string, fret, note, chord: null }), articulation });
          }
        }
        place += ticks;
      }
      start += bar;
    }
  }
  if (notes.length === 0) return { ok: false, message: 'This tablature holds no notes.' };
  const sorted = notes.sort((a, b) => a.beat - b.beat || b.string - a.string);
  const beats = start / tick;
  return { ok: true, passage: { title, time, tempo, beats, neck, chords: [], notes: sorted } };
}
