/** What a route costs, part by part: one table, in whole points, each part named in words. */

/** What the cost of a route is made of. */
export const ROUTE_PARTS = [
  'degree',
  'movement',
  'hand',
  'strings',
  'zone',
  'register',
  'position',
  'contour',
  'repetition',
] as const;
export type RoutePart = (typeof ROUTE_PARTS)[number];

export type RouteCosts = Readonly<Record<RoutePart, number>>;

/** What each part is about, for the player. */
export const PART_WORDS: Readonly<Record<RoutePart, string>> = {
  degree: 'targets other than the preferred ones',
  movement: 'distance in pitch from target to target',
  hand: 'distance along the neck',
  strings: 'strings skipped',
  zone: 'places outside the zone',
  register: 'very low or very high notes',
  position: 'places far up or down the neck',
  contour: 'straying from the shape asked for',
  repetition: 'the same place again over another chord',
};

/** What each part costs. */
export const ROUTE_WEIGHTS = {
  /** For each place down the list of preferred degrees. */
  preference: 3,
  /** For a chord tone not on the list, and for a note of the choice that is none. */
  otherTone: 8,
  otherNote: 12,
  /** How much the degree counts, by intent. */
  intent: { outline: 2, lean: 1, coast: 0 },
  /** By half steps moved: a half step speaks, a held note is next best, leaps are dear. */
  movement: [2, 0, 1, 4, 6, 9, 14, 16],
  /** For each half step of a leap beyond those. */
  leap: 3,
  /** For each fret the hand has to leave its position, and within it. */
  shift: 3,
  /** For each string skipped. */
  skip: 2,
  /** For each fret outside the zone. */
  outside: 10,
  /** For each two half steps outside the middle of the instrument. */
  register: 1,
  /** For each two frets beyond the middle of the neck, where nothing else decides. */
  position: 1,
  /** For each two half steps away from the contour asked for. */
  contour: 3,
  /** For the same place again though the chord has changed. */
  again: 3,
} as const;

/** Frets a hand covers without moving. */
export const HAND_FRETS = 4;

/** Half steps above the lowest open string between which notes cost nothing extra. */
export const MIDDLE_REGISTER = { low: 12, high: 36 } as const;

/** Frets above the capo between which no place is out of the way. */
export const MIDDLE_FRETS = { low: 2, high: 12 } as const;
