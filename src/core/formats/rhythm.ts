/** Durations as notation writes them: split at bar lines and beats, and tied where they must be. */
import { at } from '../lists';
import type { Passage, PlayedNote } from '../phrases/played';

/** Ticks of a quarter note: enough for sixteenths and for triplets. */
export const QUARTER = 12;

export interface NoteValue {
  readonly ticks: number;
  /** MusicXML's name; the usual letter in plain tab. */
  readonly type: 'whole' | 'half' | 'quarter' | 'eighth' | '16th';
  readonly dots: 0 | 1;
  /** Three in the time of two. */
  readonly triplet: boolean;
}

const VALUES: readonly NoteValue[] = [
  { ticks: 48, type: 'whole', dots: 0, triplet: false },
  { ticks: 36, type: 'half', dots: 1, triplet: false },
  { ticks: 24, type: 'half', dots: 0, triplet: false },
  { ticks: 18, type: 'quarter', dots: 1, triplet: false },
  { ticks: 12, type: 'quarter', dots: 0, triplet: false },
  { ticks: 9, type: 'eighth', dots: 1, triplet: false },
  { ticks: 8, type: 'quarter', dots: 0, triplet: true },
  { ticks: 6, type: 'eighth', dots: 0, triplet: false },
  { ticks: 4, type: 'eighth', dots: 0, triplet: true },
  { ticks: 3, type: '16th', dots: 0, triplet: false },
  { ticks: 2, type: '16th', dots: 0, triplet: true },
];

/** Ticks of a beat in a time signature. */
export const beatTicks = (unit: number): number => (QUARTER * 4) / unit;

/** The values that together fill a stretch of a bar: within a beat, or from one beat on. */
export function valuesFor(start: number, length: number): readonly NoteValue[] {
  const values: NoteValue[] = [];
  let from = start;
  let left = length;
  while (left > 0) {
    const room = from % QUARTER === 0 ? left : Math.min(left, QUARTER - (from % QUARTER));
    const value = VALUES.find(({ ticks, triplet }) => {
      // On a triplet's place only triplets lead back to the beat.
      const offGrid = from % 3 !== 0;
      return ticks <= room && (!offGrid || triplet) && (triplet || from % 3 === 0);
    });
    // Finer than a triplet sixteenth: nothing writes it.
    if (!value) break;
    values.push(value);
    from += value.ticks;
    left -= value.ticks;
  }
  return values;
}

/** What sounds or rests in a bar: notes of one moment, or none, for some value. */
export interface Event {
  readonly value: NoteValue;
  /** Ticks after the bar's beginning. */
  readonly start: number;
  readonly notes: readonly PlayedNote[];
  /** Whether it goes on from the event before, and into the one after. */
  readonly tiedFrom: boolean;
  readonly tiedTo: boolean;
}

export interface Measure {
  /** From 1. */
  readonly number: number;
  readonly ticks: number;
  readonly events: readonly Event[];
}

interface Sounding {
  readonly start: number;
  readonly end: number;
  readonly notes: readonly PlayedNote[];
}

/** Notes by moment, each ended where the next begins. */
function soundings({ notes, time }: Passage): readonly Sounding[] {
  const tick = beatTicks(time.unit);
  const moments: { start: number; end: number; notes: PlayedNote[] }[] = [];
  for (const note of notes) {
    const start = Math.round(note.beat * tick);
    const end = Math.max(start + 1, Math.round((note.beat + note.beats) * tick));
    const last = moments.at(-1);
    if (last?.start === start) {
      last.notes.push(note);
      last.end = Math.max(last.end, end);
    } else {
      if (last) last.end = Math.min(last.end, start);
      moments.push({ start, end, notes: [note] });
    }
  }
  return moments;
}

/** A passage bar by bar, as notation writes it. */
export function measuresOf(passage: Passage): readonly Measure[] {
  const { time, beats } = passage;
  const bar = time.beats * beatTicks(time.unit);
  const count = Math.max(1, Math.ceil(beats / time.beats - 1e-6));
  const all = soundings(passage);
  let which = 0;
  return Array.from({ length: count }, (_, index): Measure => {
    const from = index * bar;
    const to = from + bar;
    const events: Event[] = [];
    const add = (start: number, end: number, sounding: Sounding | null) => {
      let place = start;
      const values = valuesFor(start - from, end - start);
      for (const [order, value] of values.entries()) {
        const first = order === 0 && sounding?.start === start;
        const last = order === values.length - 1 && sounding !== null && sounding.end <= end;
        events.push({
          value,
          start: place - from,
          notes: sounding?.notes ?? [],
          tiedFrom: sounding !== null && !first,
          tiedTo: sounding !== null && !last,
        });
        place += value.ticks;
      }
    };
    let place = from;
    while (which < all.length && at(all, which).start < to) {
      const sounding = at(all, which);
      const start = Math.max(from, sounding.start);
      if (start > place) add(place, start, null);
      const end = Math.min(to, sounding.end);
      add(start, end, sounding);
      place = end;
      if (sounding.end > to) break;
      which += 1;
    }
    if (place < to) add(place, to, null);
    return { number: index + 1, ticks: bar, events };
  });
}
