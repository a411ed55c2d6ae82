/** How time is divided into notes of one length. */
import { BEAT, type Beats } from './units';

export const SUBDIVISIONS = ['quarters', 'eighths', 'triplets', 'sixteenths'] as const;
export type Subdivision = (typeof SUBDIVISIONS)[number];

const PER_QUARTER: Readonly<Record<Subdivision, number>> = {
  quarters: 1,
  eighths: 2,
  triplets: 3,
  sixteenths: 4,
};

/**
 * How long one of those notes lasts, where beats are counted in a unit: an eighth is a beat of 12/8, half of one of 4/4.
 *
 * @example
 * inBeats(noteLength('eighths', 4)); // 0.5
 * inBeats(noteLength('eighths', 8)); // 1
 */
export const noteLength = (subdivision: Subdivision, unit: number): Beats =>
  (BEAT * unit) / (4 * PER_QUARTER[subdivision]);
