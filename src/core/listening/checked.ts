/**
 * What was played of a written line: each of its notes as written, or how it was not; the notes are
 * paired by the least costly alignment in order (Needleman and Wunsch, 1970).
 */
import { at, range } from '../lists';
import type { Midi } from '../notes/pitch';
import { ON_TIME } from '../phrases/landing';
import { BEAT, type Beats, inBeats } from '../time/units';
import { counted, list } from '../words';
import type { TakenNote } from './take';

/** A note of a line as it is meant to sound. */
export interface AskedNote {
  readonly beat: Beats;
  readonly midi: Midi;
  /** Half steps it is bent by; 0 where it is not. */
  readonly bent: number;
}

const NOTE_VERDICTS = [
  'as written',
  'early',
  'late',
  'bent otherwise',
  'another octave',
  'another note',
  'missed',
] as const;
type NoteVerdict = (typeof NOTE_VERDICTS)[number];

interface CheckedNote {
  /** Index of the note that was asked for. */
  readonly index: number;
  readonly verdict: NoteVerdict;
  readonly heard: TakenNote | null;
  /** How long after its moment it began, below 0 before it; null where it was missed. */
  readonly beatsLate: Beats | null;
}

/** What was played, held against what is written. */
export interface Checked {
  readonly notes: readonly CheckedNote[];
  readonly right: number;
  /** Notes that were played and not written. */
  readonly extra: number;
}

/** What a pair costs, and a note left alone: less than a wrong note in its place and one too many. */
const COSTS = { octave: 0.5, note: 1.2, step: 0.05, beat: 0.5, alone: 1.1 } as const;
/** Further from its moment a note is no answer to it. */
const FAR: Beats = (3 * BEAT) / 2;
/** Bent so many half steps otherwise is another bend. */
const BEND = 0.75;

function costOf(asked: AskedNote, heard: TakenNote): number {
  const late = Math.abs(heard.beat - asked.beat);
  if (late > FAR) return Infinity;
  const away = Math.abs(heard.midi - asked.midi);
  const pitch =
    away === 0 ? 0 : away % 12 === 0 ? COSTS.octave : COSTS.note + COSTS.step * Math.min(12, away);
  return pitch + COSTS.beat * inBeats(late);
}

/** For each note asked for, the place of the one heard for it; null where there is none. */
function pairs(asked: readonly AskedNote[], heard: readonly TakenNote[]): (number | null)[] {
  const width = heard.length + 1;
  const cost = new Float64Array((asked.length + 1) * width);
  const cell = (row: number, column: number) => cost[row * width + column] ?? Infinity;
  const paired = (row: number, column: number) =>
    cell(row - 1, column - 1) + costOf(at(asked, row - 1), at(heard, column - 1));
  for (const row of range(0, asked.length + 1))
    for (const column of range(0, width))
      cost[row * width + column] =
        row === 0
          ? column * COSTS.alone
          : column === 0
            ? row * COSTS.alone
            : Math.min(
                paired(row, column),
                cell(row - 1, column) + COSTS.alone,
                cell(row, column - 1) + COSTS.alone,
              );
  const found: (number | null)[] = asked.map(() => null);
  let [row, column] = [asked.length, heard.length];
  while (row > 0 && column > 0) {
    if (cell(row, column) === paired(row, column)) {
      found[row - 1] = column - 1;
      row -= 1;
      column -= 1;
    } else if (cell(row, column) === cell(row - 1, column) + COSTS.alone) row -= 1;
    else column -= 1;
  }
  return found;
}

function verdictOf(asked: AskedNote, heard: TakenNote): NoteVerdict {
  const away = heard.midi - asked.midi;
  const late = heard.beat - asked.beat;
  if (away !== 0) return away % 12 === 0 ? 'another octave' : 'another note';
  if (late < -ON_TIME) return 'early';
  if (late > ON_TIME) return 'late';
  return Math.abs(heard.bent - asked.bent) >= BEND ? 'bent otherwise' : 'as written';
}

/** A written line held against what was heard of it, both in time from its beginning. */
export function checkLine(asked: readonly AskedNote[], heard: readonly TakenNote[]): Checked {
  const ordered = heard.toSorted((a, b) => a.beat - b.beat);
  const found = pairs(asked, ordered);
  const notes = asked.map((one, index): CheckedNote => {
    const place = at(found, index);
    const note = place === null ? null : at(ordered, place);
    return {
      index,
      verdict: note ? verdictOf(one, note) : 'missed',
      heard: note,
      beatsLate: note ? note.beat - one.beat : null,
    };
  });
  return {
    notes,
    right: notes.filter(({ verdict }) => verdict === 'as written').length,
    extra: ordered.length - found.filter((place) => place !== null).length,
  };
}

/** How it went, and what to play next. */
export function checkedSays({ notes, right, extra }: Checked): string {
  if (notes.length === 0) return 'There is nothing written to check.';
  if (notes.every(({ verdict }) => verdict === 'missed') && extra === 0)
    return 'Nothing was heard. Play it once more, a little louder.';
  const more = extra === 0 ? '' : ` ${extra === 1 ? 'One note' : `${extra} notes`} too many.`;
  if (right === notes.length)
    return `${right === 1 ? 'The note is' : `All ${right} notes are`} as written.${more || ' A little faster, or from memory.'}`;
  const parts = NOTE_VERDICTS.slice(1).flatMap((verdict) => {
    const count = notes.filter((note) => note.verdict === verdict).length;
    return count === 0 ? [] : [`${count} ${verdict}`];
  });
  return `${right} of ${counted(notes.length, 'note')} as written; ${list(parts)}.${more}`;
}
