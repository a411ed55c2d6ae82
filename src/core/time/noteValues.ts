/** Note values as notation writes them. */
import { QUARTER, type Ticks } from './units';

/** A note value: its length, and how notation writes it. */
export interface NoteValue {
  readonly ticks: Ticks;
  /** MusicXML's name; the usual letter in plain tab. */
  readonly type: 'whole' | 'half' | 'quarter' | 'eighth' | '16th' | '32nd';
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
  { ticks: 1, type: '32nd', dots: 0, triplet: true },
];

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
    if (!value) break;
    values.push(value);
    from += value.ticks;
    left -= value.ticks;
  }
  return values;
}
