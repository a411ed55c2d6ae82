/** The drill book: every exercise by name, with its goal in one sentence. */
import type { ExerciseKind } from './kinds';

interface ExerciseWords {
  readonly name: string;
  readonly goal: string;
}

/** Title, goal and instructions of every exercise. */
export const EXERCISE_WORDS: Readonly<Record<ExerciseKind, ExerciseWords>> = {
  ascending: {
    name: 'Ascending',
    goal: 'Climb from the lowest root over each chord, so that every change begins at home.',
  },
  descending: {
    name: 'Descending',
    goal: 'Come down from the highest root over each chord.',
  },
  alternating: {
    name: 'Up and down by chord',
    goal: 'Up over one chord and down over the next, without going back to begin.',
  },
  'zone-shift': {
    name: 'A zone for each chord',
    goal: 'Move one zone up the neck with every chord, then down again.',
  },
  'arpeggio-up-scale-down': {
    name: 'Arpeggio up, scale down',
    goal: 'Climb the chord tones and come down the scale into the next chord.',
  },
  degrees: {
    name: 'From each degree',
    goal: 'Begin the arpeggio on 1, then 3, then 5, then 7, so that no inversion stays strange.',
  },
  'five-notes': {
    name: 'First five notes',
    goal: 'Know the first five notes above every root.',
  },
  'root-to-ninth': {
    name: 'Root to ninth',
    goal: 'Stack thirds from the root to the ninth of every chord.',
  },
  'approach-arpeggio': {
    name: 'Approach, then arpeggio',
    goal: 'Slide into each root from a half step below and climb the arpeggio.',
  },
  enclosures: {
    name: 'Enclosures',
    goal: 'Surround each target from above and below before you land on it.',
  },
  roots: {
    name: 'Roots in time',
    goal: 'Play the root of each chord exactly where the chord begins.',
  },
  thirds: {
    name: 'Thirds in time',
    goal: 'Play the third of each chord where the chord begins: it says whether the chord is major or minor.',
  },
  'guide-tones': {
    name: 'Guide tones in time',
    goal: 'Play third and seventh of each chord, always on the shorter way to the next.',
  },
  targets: {
    name: 'Held targets',
    goal: 'Hold one note of each chord, and hear how little it takes to say the changes.',
  },
  'shape-shift': {
    name: 'A shape, shifted',
    goal: 'Carry one small motif through the chords, from the root of each.',
  },
  continuous: {
    name: 'Continuous eighths',
    goal: 'Keep going at the change: the nearest note of the new chord, in the same direction.',
  },
  'one-octave': {
    name: 'One octave',
    goal: 'Stay within the octave above each root.',
  },
  'one-string-set': {
    name: 'One set of strings',
    goal: 'Find every chord on the same three strings.',
  },
  'in-thirds': {
    name: 'In thirds',
    goal: 'Play every other note, so that the collection sings in thirds instead of running.',
  },
  'in-fourths': {
    name: 'In fourths',
    goal: 'Leap over two notes each time, for the open sound of fourths.',
  },
  'in-sixths': {
    name: 'In sixths',
    goal: 'Leap to the sixth above each note and back to the next, across a string.',
  },
  groups: {
    name: 'In groups',
    goal: 'Play so many notes in a row from each note in turn, and let the accents move.',
  },
  connecting: {
    name: 'Connecting runs',
    goal: 'Carry each pentatonic diagonally out of its box into the next: with time enough, up through all five and back another way.',
  },
  'connecting-strings': {
    name: 'Connecting, string by string',
    goal: 'Join all five boxes on one string at a time: up one string, down the next.',
  },
  'pentatonic-triads': {
    name: 'Triads inside a pentatonic',
    goal: 'Hear the two triads that a pentatonic holds: up one and down the other.',
  },
  inversions: {
    name: 'Inversions along the strings',
    goal: 'Climb each chord’s inversions along one set of strings, and know the next before you need it.',
  },
  triads: {
    name: 'Round the triads',
    goal: 'Play round the nearest inversion of each triad on one set of strings, with the notes beside it.',
  },
  'moving-voices': {
    name: 'Only what moves',
    goal: 'Play only the notes that move from triad to triad, as a melody: what is held is not played again.',
  },
  'double-stops': {
    name: 'Double stops',
    goal: 'Move in thirds and sixths out of the chord shapes under the hand.',
  },
  'moving-third': {
    name: 'The moving third',
    goal: 'Follow the third of each chord as it falls or holds into the next: that is where the change is heard.',
  },
  switch: {
    name: 'One sound, then home',
    goal: 'Cover ii and V with the chord on IV, and move to I where you choose.',
  },
  'call-and-response': {
    name: 'Call and response',
    goal: 'Two bars are played, two are yours: answer what you heard.',
  },
  melody: {
    name: 'The melody',
    goal: 'Know the tune under this hand, so that you can always come back to it.',
  },
  'melody-varied': {
    name: 'The melody, varied',
    goal: 'Move its rhythm, fill its gaps, ornament it, and return to it.',
  },
  line: {
    name: 'A line through the targets',
    goal: 'Lead from target to target by step and arpeggio, as a solo would.',
  },
  'line-gaps': {
    name: 'A line with gaps',
    goal: 'Play the line where it is written, and fill every second bar yourself.',
  },
  own: {
    name: 'Your own pattern',
    goal: 'Play the pattern you typed on every chord, wherever your hand is.',
  },
};
