/** The exercises of the drill book. */
export const EXERCISES = [
  'ascending',
  'descending',
  'alternating',
  'zone-shift',
  'arpeggio-up-scale-down',
  'degrees',
  'five-notes',
  'root-to-ninth',
  'approach-arpeggio',
  'enclosures',
  'roots',
  'thirds',
  'guide-tones',
  'targets',
  'shape-shift',
  'continuous',
  'one-octave',
  'one-string-set',
  'in-thirds',
  'in-fourths',
  'in-sixths',
  'groups',
  'connecting',
  'connecting-strings',
  'pentatonic-triads',
  'inversions',
  'triads',
  'moving-voices',
  'double-stops',
  'moving-third',
  'switch',
  'call-and-response',
  'melody',
  'melody-varied',
  'line',
  'line-gaps',
  'own',
] as const;
export type ExerciseKind = (typeof EXERCISES)[number];

/** The exercises that are lines, made by chance and better the more of them are tried. */
export const LINE_KINDS: ReadonlySet<ExerciseKind> = new Set<ExerciseKind>([
  ...([
    'line',
    'line-gaps',
    'call-and-response',
    'switch',
    'moving-third',
    'melody-varied',
  ] as const),
  ...(['triads', 'double-stops'] as const),
]);
/** The exercises that need the melody of the chart. */
export const MELODY_KINDS: ReadonlySet<ExerciseKind> = new Set<ExerciseKind>([
  ...(['melody', 'melody-varied'] as const),
]);
/** The lines that are played in a style; a melody has its own. */
export const STYLED_KINDS: ReadonlySet<ExerciseKind> = new Set(
  [...LINE_KINDS].filter((kind) => !MELODY_KINDS.has(kind)),
);

/** The tones of a chord that an exercise may be asked to begin on. */
export const BEGINNINGS = ['1', '3', '5', '7'] as const;
export type Beginning = (typeof BEGINNINGS)[number];
/** How a player's own pattern is played: as it is typed, backward, or the one and the other over chords in turn. */
export const DIRECTIONS = ['forward', 'backward', 'by turns'] as const;
export type Direction = (typeof DIRECTIONS)[number];
/** The exercises that begin on a root over every chord, or on the tone asked for. */
export const BEGINNING_KINDS: ReadonlySet<ExerciseKind> = new Set<ExerciseKind>([
  ...(['ascending', 'descending', 'zone-shift', 'arpeggio-up-scale-down', 'degrees'] as const),
  ...(['five-notes', 'one-octave'] as const),
]);

/** The longest text of a pattern, and the most items in it. */
export const PATTERN_LIMITS = { characters: 300, items: 64 } as const;
