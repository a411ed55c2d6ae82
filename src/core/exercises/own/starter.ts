/** Patterns to begin with: a name and the text a player would type. */
export interface NamedPattern {
  readonly name: string;
  readonly text: string;
}

/** What is played before anything is typed. */
export const FIRST_PATTERN = '1 2 3 5';

/** Patterns a shelf begins with. */
export const STARTER_PATTERNS: readonly NamedPattern[] = [
  { name: 'Root, second, third, fifth', text: FIRST_PATTERN },
  { name: 'Down the seventh chord', text: '5 3 1 7' },
  { name: 'Arpeggio with a leap down', text: '1 ~3 5 7' },
  { name: 'From the third to the ninth', text: '3 5 7 9' },
  { name: 'The root enclosed', text: '(2 7)1 3 5 7' },
  { name: 'Arpeggio from a half step below', text: '<1 3 5 7' },
  { name: 'The third from below, then home', text: '<3 2 1 ~5' },
  { name: 'Long and two short', text: '1:q 3:e 5:e' },
  { name: 'Rest on the beat', text: 'r 5 3 1' },
  { name: 'Sixth up and down the chord', text: '1 ^6 5 3' },
  { name: 'Dominant chords only', text: 'on 7: <3 5 6 ^1' },
  { name: 'Without going back to begin', text: '… 1 2 3 5' },
];
