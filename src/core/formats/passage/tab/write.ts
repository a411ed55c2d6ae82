/**
 * Plain-text tablature. Above the strings stand the chords and the rhythm: `W H Q E S T` for whole to
 * thirty-second, `.` dotted, `t` triplet, `r` before a rest and `~` before a note that is tied on.
 */
import { chordName } from '../../../chords/chords';
import { writeKey } from '../../../keys/keys';
import { at, range } from '../../../lists';
import { openPitch, stringCount } from '../../../neck/neck';
import { pitchName } from '../../../notes/pitch';
import { simplestPitch } from '../../../notes/spelling';
import { measuresOf, type NotatedBar, type NotatedEvent } from '../../../phrases/measures';
import type { Passage, PlayedNote } from '../../../phrases/passage';
import { type Technique, techniqueOf } from '../../../phrases/techniques';
import { type NoteValue, onPaper } from '../../../time/noteValues';
import type { Written } from '../../result';

const LETTERS: Readonly<Record<NoteValue['type'], string>> = {
  whole: 'W',
  half: 'H',
  quarter: 'Q',
  eighth: 'E',
  '16th': 'S',
  '32nd': 'T',
};

function rhythmToken({ value, notes, tiedFrom }: NotatedEvent): string {
  const mark = notes.length === 0 ? 'r' : tiedFrom ? '~' : '';
  return `${mark}${LETTERS[value.type]}${value.triplet ? 't' : ''}${value.dots > 0 ? '.' : ''}`;
}

/** A slide from or to a fret of its own stands beside the note's, in parentheses. */
function slideText(slide: Extract<Technique, { kind: 'slide' }>, fret: number) {
  const sign = (goal: number, start: number) => (goal < start ? '\\' : '/');
  if (slide.from !== undefined) return { before: `(${slide.from})${sign(fret, slide.from)}` };
  if (slide.to !== undefined) return { after: `${sign(slide.to, fret)}(${slide.to})` };
  return { before: '/' };
}

/**
 * A fret with how it is played: `7b9r7`, `h7`, `/5`, `(3)/5`, `5~`, `x5`, `g4`, `5*`.
 *
 * @example fretText({ fret: 7, techniques: [{ kind: 'bend', by: 2 }] }); // "7b9"
 */
export function fretText({ fret, techniques }: Pick<PlayedNote, 'fret' | 'techniques'>): string {
  const has = (kind: Technique['kind']) => techniqueOf(techniques, kind) !== undefined;
  const bend = techniqueOf(techniques, 'bend');
  const slide = techniqueOf(techniques, 'slide');
  const { before = '', after = '' } = slide ? slideText(slide, fret) : {};
  return [
    has('grace') ? 'g' : '',
    has('hammer-on') ? 'h' : '',
    has('pull-off') ? 'p' : '',
    before,
    has('mute') ? 'x' : '',
    fret,
    bend ? `b${fret + bend.by}${bend.release ? `r${fret}` : ''}` : '',
    after,
    has('vibrato') ? '~' : '',
    has('let-ring') ? '*' : '',
  ].join('');
}

const LEGEND: readonly (readonly [kind: Technique['kind'], words: string])[] = [
  ['grace', 'g grace note'],
  ['hammer-on', 'h hammer-on'],
  ['pull-off', 'p pull-off'],
  ['slide', '/ \\ slide'],
  ['bend', 'b bend to a fret’s pitch, r its release'],
  ['vibrato', '~ vibrato'],
  ['mute', 'x muted'],
  ['let-ring', '* let ring'],
];

/** A bar as columns of text: chords, rhythm, then the strings from the highest. */
function barRows(passage: Passage, { from, events }: NotatedBar): readonly string[] {
  const strings = stringCount(passage.neck);
  const symbolAt = ({ start, length }: NotatedEvent) =>
    passage.chords
      .filter(({ beat }) => {
        const offset = onPaper(beat, passage.time.unit) - from;
        return offset >= start && offset < start + length;
      })
      .map(({ chord }) => chordName(chord))
      .join(' ');
  const rows = range(0, strings + 2).map((row) => (row < 2 ? ' ' : '-'));
  const column = (cells: readonly string[]) => {
    const width = Math.max(2, ...cells.map((cell) => cell.length)) + 1;
    cells.forEach((cell, row) => {
      rows[row] += cell.padEnd(width, row < 2 ? ' ' : '-');
    });
  };
  const onStrings = (notes: readonly PlayedNote[]) =>
    range(1, strings + 1).map((string) => {
      const note = notes.find((one) => one.string === string);
      return note ? fretText(note) : '';
    });
  for (const event of events) {
    for (const grace of event.graces) column(['', '', ...onStrings([grace])]);
    column([symbolAt(event), rhythmToken(event), ...onStrings(event.tiedFrom ? [] : event.notes)]);
  }
  return rows;
}

const LINE_WIDTH = 96;

/** The second line: time, tempo, key, feel, capo. */
function headLine({ time, tempo, key, feel, neck }: Passage): string {
  return [
    `${time.beats}/${time.unit}`,
    tempo === null ? null : `${tempo} bpm`,
    key ? `key of ${writeKey(key)}` : null,
    neck.capo > 0 ? `capo ${neck.capo}` : null,
    feel ? `feel: ${feel.name}` : null,
  ]
    .filter((part) => part !== null)
    .join(', ');
}

/** The passage as text. Where the metre changes only the length of the bars tells. */
export function writeTab(passage: Passage): Written<string> {
  const { title, neck, notes } = passage;
  const strings = stringCount(neck);
  const names = range(1, strings + 1).map((string) => {
    const midi = openPitch(neck, string);
    return pitchName(simplestPitch(midi), midi);
  });
  const indent = Math.max(...names.map(({ length }) => length));
  const heads = ['', '', ...names].map((name) => name.padStart(indent));
  const bars = measuresOf(passage).map((bar) => barRows(passage, bar));
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
  const body = systems.map((rows) => rows.map((row) => row.trimEnd()).join('\n'));
  const legend = LEGEND.filter(([kind]) =>
    notes.some(({ techniques }) => techniqueOf(techniques, kind)),
  ).map(([, words]) => words);
  const foot = legend.length > 0 ? [`Signs: ${legend.join(', ')}.`] : [];
  const content = `${[`${title}\n${headLine(passage)}`, ...body, ...foot].join('\n\n')}\n`;
  return { content, remarks: [] };
}
