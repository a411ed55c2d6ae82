/**
 * Which modes over which chord, as a table: the usual first choice of chord-scale teaching and its
 * alternatives, after Nettles and Graf, "The Chord Scale Theory and Jazz Harmony" (1997), and for
 * the melodic minor Levine, "The Jazz Theory Book" (1995). Its words stand in `modeWords.ts`.
 */

/** What a chart does around a chord, beyond what follows it. */
export const SETTINGS = [
  /** The whole chart is this one chord. */
  'vamp',
  /** One of two major chords a half step apart, back and forth: the lower and the upper one. */
  'lower of two',
  'upper of two',
  /** A minor seventh among minor sevenths that no one key holds. */
  'parallel',
  /** The chart's other chords hold the minor key's natural sixth rather than its flat one. */
  'natural sixth',
  /** A major key whose chart has the major chord on the flat seventh. */
  'flat seventh',
  /** A major key whose chart has a major chord on the flat third or sixth, from the parallel minor. */
  'flat third or sixth',
  /** Prepared by the half-diminished chord a fifth above: a minor ii–V, whatever comes. */
  'after half-diminished',
  /** The next bar or beat still has this chord. */
  'stays',
  /** All its notes lie in the key the chart states. */
  'in the stated key',
] as const;
export type Setting = (typeof SETTINGS)[number];

/** Where a chord goes: its root down a fifth, or not. */
export type Goal = 'fifth to major' | 'fifth to minor' | 'elsewhere' | 'nowhere';

/** Why a mode is offered, beyond how it sounds. */
export type ModeReason =
  | 'sound'
  | 'home dominant'
  | 'dominant at rest'
  | 'does not fall a fifth'
  | 'leads to minor'
  | 'minor ii–V'
  | 'raises the seventh'
  | 'a fifth up'
  | 'key’s own'
  | 'flat seventh'
  | 'lower of two';

/** A mode that a rule offers, with its reason. */
export interface ModeOffer {
  readonly mode: string;
  readonly reason: ModeReason;
  /** On the chord's fifth rather than its root. */
  readonly onFifth?: boolean;
}

/** A row: every condition that is stated must hold. */
export interface ModeRule {
  /** Qualities by name, families, or `triad` for any chord of three tones. */
  readonly is: readonly string[];
  readonly triad?: boolean;
  /** Half steps of the root above the key's tonic. */
  readonly on?: readonly number[];
  readonly key?: 'major' | 'minor' | 'none';
  readonly goes?: readonly Goal[];
  readonly setting?: Setting;
  readonly blues?: boolean;
  /** The default first. */
  readonly offers: readonly ModeOffer[];
}

const as =
  (reason: ModeReason) =>
  (...modes: readonly string[]): readonly ModeOffer[] =>
    modes.map((mode) => ({ mode, reason }));

const sounds = as('sound');

const TONIC = [0];
const DOMINANT = [7];
const HOME_DOMINANTS = [0, 5, 7];

const BLUES_SOUNDS = sounds('blended blues', 'major blues', 'minor blues');
const LEADING_TO_MAJOR = sounds(
  'mixolydian',
  'lydian dominant',
  'altered',
  'half-whole diminished',
);
const LEADING_TO_MINOR = [
  ...as('leads to minor')('phrygian dominant'),
  ...sounds('altered', 'half-whole diminished', 'mixolydian b6'),
];
const IN_MINOR_CADENCE = [
  ...as('minor ii–V')('phrygian dominant'),
  ...sounds('altered', 'half-whole diminished', 'mixolydian'),
];
const KEYS_OWN_DOMINANT = [
  ...as('key’s own')('mixolydian'),
  ...sounds('lydian dominant', 'altered'),
];
const AUGMENTED_DOMINANT = sounds('whole tone', 'altered', 'mixolydian b6');
const AT_REST = sounds('ionian', 'lydian', 'major pentatonic');
const PLAIN_FIFTH = [
  ...as('leads to minor')('phrygian dominant'),
  ...sounds('altered', 'mixolydian b6'),
];

/** Rows for chords of one family. */
const rulesOf = (family: string, rules: readonly Omit<ModeRule, 'is'>[]): readonly ModeRule[] =>
  rules.map((rule) => ({ is: [family], ...rule }));

/** Chords whose own alterations choose the mode, or where they stand, whatever the key. */
const BY_QUALITY: readonly ModeRule[] = [
  // A sharp ninth that stays is a blues sound and no tension.
  { is: ['7#9'], setting: 'vamp', offers: sounds('half-whole diminished', 'altered') },
  {
    is: ['7alt', '7#9', '7(b9,#9)'],
    offers: sounds('altered', 'half-whole diminished', 'whole tone', 'phrygian dominant'),
  },
  { is: ['7#5', '9#5'], offers: AUGMENTED_DOMINANT },
  { is: ['aug'], on: DOMINANT, offers: AUGMENTED_DOMINANT },
  { is: ['aug'], goes: ['fifth to major', 'fifth to minor'], offers: AUGMENTED_DOMINANT },
  { is: ['aug'], offers: sounds('lydian augmented', 'ionian #5', 'whole tone') },
  {
    is: ['7b5', '9b5', '7#11', '9#11', '13#11'],
    offers: sounds('lydian dominant', 'mixolydian', 'altered'),
  },
  { is: ['7b13', '9b13'], offers: sounds('mixolydian b6', 'altered', 'phrygian dominant') },
  {
    is: ['7(b9,b13)', '7b9'],
    offers: sounds('phrygian dominant', 'altered', 'half-whole diminished', 'mixolydian b6'),
  },
  {
    is: ['13b9', '7(b9,#11)'],
    offers: sounds('half-whole diminished', 'altered', 'mixolydian b2'),
  },
  { is: ['maj7#11', 'maj9#11'], offers: sounds('lydian', 'lydian augmented') },
  { is: ['maj7#5'], offers: sounds('lydian augmented', 'ionian #5', 'whole tone') },
  {
    is: ['m6', 'm69', 'm(maj7)', 'm(maj9)'],
    offers: sounds('melodic minor', 'harmonic minor', 'dorian'),
  },
  { is: ['dim'], offers: sounds('locrian natural 2', 'whole-half diminished', 'locrian') },
  { is: ['dim7'], offers: sounds('whole-half diminished', 'altered bb7', 'locrian') },
  {
    is: ['dominant', 'major'],
    setting: 'lower of two',
    offers: as('lower of two')('phrygian dominant', 'phrygian'),
  },
];

const DOMINANTS = rulesOf('dominant', [
  { setting: 'upper of two', offers: sounds('lydian dominant', 'mixolydian') },
  { setting: 'vamp', offers: [...as('dominant at rest')('mixolydian'), ...BLUES_SOUNDS] },
  {
    blues: true,
    on: HOME_DOMINANTS,
    setting: 'stays',
    offers: [...as('home dominant')('mixolydian'), ...BLUES_SOUNDS],
  },
  { goes: ['fifth to minor'], offers: LEADING_TO_MINOR },
  { goes: ['fifth to major'], setting: 'after half-diminished', offers: IN_MINOR_CADENCE },
  {
    blues: true,
    goes: ['fifth to major'],
    offers: [
      ...sounds('mixolydian', 'altered', 'half-whole diminished', 'phrygian dominant'),
      ...BLUES_SOUNDS,
    ],
  },
  { goes: ['fifth to major'], offers: LEADING_TO_MAJOR },
  { key: 'minor', on: DOMINANT, offers: LEADING_TO_MINOR },
  {
    blues: true,
    on: HOME_DOMINANTS,
    offers: [...as('home dominant')('mixolydian'), ...BLUES_SOUNDS],
  },
  { on: DOMINANT, offers: LEADING_TO_MAJOR },
  { key: 'minor', on: [10], offers: KEYS_OWN_DOMINANT },
  { setting: 'in the stated key', offers: KEYS_OWN_DOMINANT },
  { key: 'none', goes: ['nowhere'], offers: LEADING_TO_MAJOR },
  {
    offers: [...as('does not fall a fifth')('lydian dominant'), ...sounds('mixolydian', 'altered')],
  },
]);

const SUSPENDED: readonly ModeRule[] = [
  { is: ['maj7sus2', 'maj7sus4'], offers: sounds('lydian', 'ionian') },
  {
    is: ['suspended'],
    offers: [
      ...sounds('mixolydian'),
      { mode: 'dorian', reason: 'a fifth up', onFifth: true },
      ...sounds('aeolian', 'phrygian'),
    ],
  },
];

const MAJORS = rulesOf('major', [
  { setting: 'upper of two', offers: sounds('lydian', 'ionian') },
  {
    on: TONIC,
    setting: 'flat seventh',
    offers: [...sounds('ionian'), ...as('flat seventh')('mixolydian'), ...sounds('lydian')],
  },
  { key: 'major', on: TONIC, offers: AT_REST },
  { key: 'none', offers: AT_REST },
  { triad: true, key: 'minor', on: DOMINANT, offers: PLAIN_FIFTH },
  { triad: true, goes: ['fifth to minor'], offers: PLAIN_FIFTH },
  {
    triad: true,
    key: 'minor',
    on: [10],
    offers: [...as('key’s own')('mixolydian'), ...sounds('lydian', 'ionian')],
  },
  // The melodic minor's own IV: its seventh is the key's third.
  {
    triad: true,
    key: 'minor',
    on: [5],
    offers: [...as('key’s own')('mixolydian'), ...sounds('lydian dominant')],
  },
  // The relative major of a minor key rests as a tonic does.
  { key: 'minor', on: [3], offers: sounds('ionian', 'lydian') },
  { on: TONIC, offers: AT_REST },
  { triad: true, on: DOMINANT, offers: sounds('mixolydian', 'ionian') },
  { on: DOMINANT, offers: AT_REST },
  {
    triad: true,
    on: [1, 2, 4, 6, 8, 9, 11],
    goes: ['fifth to major'],
    offers: sounds('mixolydian', 'ionian'),
  },
  // Beside the ♭III or ♭VI it is the parallel minor's own ♭VII.
  {
    triad: true,
    key: 'major',
    on: [10],
    setting: 'flat third or sixth',
    offers: sounds('mixolydian', 'lydian', 'ionian'),
  },
  { triad: true, key: 'major', on: [10], offers: sounds('lydian', 'mixolydian') },
  // The V of vi, wherever it goes.
  { triad: true, key: 'major', on: [4], offers: PLAIN_FIFTH },
  { offers: sounds('lydian', 'ionian') },
]);

const MINORS = rulesOf('minor', [
  { setting: 'vamp', offers: sounds('dorian', 'aeolian') },
  { setting: 'parallel', offers: sounds('dorian', 'aeolian') },
  // The ii has no other.
  { key: 'major', on: [2], offers: sounds('dorian') },
  { key: 'major', on: [4], offers: sounds('phrygian', 'dorian') },
  { key: 'major', on: [9], offers: sounds('aeolian', 'dorian') },
  {
    triad: true,
    key: 'minor',
    on: TONIC,
    setting: 'natural sixth',
    offers: sounds('dorian', 'aeolian', 'melodic minor', 'harmonic minor'),
  },
  {
    key: 'minor',
    on: TONIC,
    setting: 'natural sixth',
    offers: [
      ...sounds('dorian', 'aeolian'),
      ...as('raises the seventh')('melodic minor', 'harmonic minor'),
    ],
  },
  {
    triad: true,
    key: 'minor',
    on: TONIC,
    offers: sounds('aeolian', 'dorian', 'harmonic minor', 'melodic minor'),
  },
  {
    key: 'minor',
    on: TONIC,
    offers: [
      ...sounds('aeolian', 'dorian'),
      ...as('raises the seventh')('harmonic minor', 'melodic minor'),
    ],
  },
  { key: 'minor', on: DOMINANT, offers: sounds('phrygian', 'dorian') },
  { offers: sounds('dorian', 'aeolian') },
]);

const OTHERS: readonly ModeRule[] = [
  { is: ['half-diminished'], offers: sounds('locrian natural 2', 'locrian', 'locrian natural 6') },
  { is: ['diminished'], offers: sounds('whole-half diminished', 'altered bb7', 'locrian') },
  { is: ['augmented'], offers: sounds('lydian augmented', 'ionian #5', 'whole tone') },
  { is: ['power'], key: 'minor', on: TONIC, offers: sounds('aeolian', 'dorian', 'mixolydian') },
  {
    is: ['power'],
    key: 'major',
    on: TONIC,
    offers: sounds('ionian', 'mixolydian', 'aeolian', 'dorian'),
  },
  { is: ['power'], offers: sounds('mixolydian', 'aeolian', 'dorian') },
];

/** The first row that fits is the answer. */
export const MODE_RULES: readonly ModeRule[] = [
  ...BY_QUALITY,
  ...DOMINANTS,
  ...SUSPENDED,
  ...MAJORS,
  ...MINORS,
  ...OTHERS,
];
