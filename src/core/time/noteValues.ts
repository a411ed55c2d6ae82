/** Note values as notation writes them. */
import { quarterOf } from './metre';
import { BEAT, type Beats } from './units';

/** A note value, and how notation writes it. */
export interface NoteValue {
  /** How long it lasts where a quarter note is a beat. */
  readonly inQuarters: Beats;
  /** MusicXML's name; the usual letter in plain tab. */
  readonly type: 'whole' | 'half' | 'quarter' | 'eighth' | '16th' | '32nd';
  readonly dots: 0 | 1;
  /** Three in the time of two. */
  readonly triplet: boolean;
}

const plain = (type: NoteValue['type'], inQuarters: Beats): NoteValue => ({
  type,
  inQuarters,
  dots: 0,
  triplet: false,
});
const dotted = (type: NoteValue['type'], inQuarters: Beats): NoteValue => ({
  type,
  inQuarters,
  dots: 1,
  triplet: false,
});
const triplet = (type: NoteValue['type'], inQuarters: Beats): NoteValue => ({
  type,
  inQuarters,
  dots: 0,
  triplet: true,
});

/** The longest first. */
const VALUES: readonly NoteValue[] = [
  plain('whole', 4 * BEAT),
  dotted('half', 3 * BEAT),
  plain('half', 2 * BEAT),
  dotted('quarter', (3 * BEAT) / 2),
  plain('quarter', BEAT),
  dotted('eighth', (3 * BEAT) / 4),
  triplet('quarter', (2 * BEAT) / 3),
  plain('eighth', BEAT / 2),
  triplet('eighth', BEAT / 3),
  plain('16th', BEAT / 4),
  triplet('16th', BEAT / 6),
  triplet('32nd', BEAT / 12),
];

/** So many of the shortest that is written are a quarter note: sixteenths and triplets of them. */
export const PER_QUARTER = 12;

/**
 * The shortest that is written, where beats are counted in a unit: moments are written at multiples of it.
 *
 * @example BEAT / shortestOf(4); // 12
 */
export const shortestOf = (unit: number): Beats => quarterOf(unit) / PER_QUARTER;

/** How many of the shortest a length on paper is. */
export const inShortest = (length: Beats, unit: number): number => length / shortestOf(unit);

/**
 * The nearest moment that can be written, where beats are counted in a unit.
 *
 * @example inBeats(onPaper(0.26 * BEAT, 4)); // 0.25
 */
export const onPaper = (beat: Beats, unit: number): Beats =>
  Math.round(beat / shortestOf(unit)) * shortestOf(unit);

/** How long a value lasts where beats are counted in a unit. */
export const lengthOf = ({ inQuarters }: NoteValue, unit: number): Beats => (inQuarters * unit) / 4;

/**
 * The values that together fill a stretch of a bar: within a quarter, or from one on. It begins and ends at multiples
 * of {@link shortestOf} the unit.
 *
 * @example valuesFor(0, (5 * BEAT) / 4, 4).map(({ type }) => type); // ["quarter","16th"]
 */
export function valuesFor(start: Beats, length: Beats, unit: number): readonly NoteValue[] {
  const values: NoteValue[] = [];
  const quarter = quarterOf(unit);
  let from = start;
  let left = length;
  while (left > 0) {
    const room = from % quarter === 0 ? left : Math.min(left, quarter - (from % quarter));
    // On a triplet's place only triplets lead back to the beat.
    const offGrid = from % (quarter / 4) !== 0;
    const value = VALUES.find((one) => lengthOf(one, unit) <= room && (!offGrid || one.triplet));
    if (!value) break;
    values.push(value);
    from += lengthOf(value, unit);
    left -= lengthOf(value, unit);
  }
  return values;
}
