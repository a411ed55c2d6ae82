/** How a beat is divided. */
export const SUBDIVISIONS = ['quarters', 'eighths', 'triplets', 'sixteenths'] as const;
export type Subdivision = (typeof SUBDIVISIONS)[number];

/** Notes to a beat. */
export const PER_BEAT: Readonly<Record<Subdivision, number>> = {
  quarters: 1,
  eighths: 2,
  triplets: 3,
  sixteenths: 4,
};
