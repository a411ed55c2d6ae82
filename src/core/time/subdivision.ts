/** How time is divided into notes of one length. */
export const SUBDIVISIONS = ['quarters', 'eighths', 'triplets', 'sixteenths'] as const;
export type Subdivision = (typeof SUBDIVISIONS)[number];

const PER_QUARTER: Readonly<Record<Subdivision, number>> = {
  quarters: 1,
  eighths: 2,
  triplets: 3,
  sixteenths: 4,
};

/** Notes to a beat of a time signature's unit: eighths are one to a beat of 12/8, two of 4/4. */
export const notesPerBeat = (subdivision: Subdivision, unit: number): number =>
  (PER_QUARTER[subdivision] * 4) / unit;
