/** What an exercise is made with, the same in Practice, in a kept sheet and on the stage. */
import type { PracticeSheet } from './plan';

export type MadeWith = Pick<
  PracticeSheet,
  | 'subdivision'
  | 'strings'
  | 'group'
  | 'seed'
  | 'style'
  | 'octave'
  | 'pattern'
  | 'begin'
  | 'direction'
>;

/** Only that of something that has more. */
export const madeWith = ({
  subdivision,
  strings,
  group,
  seed,
  style,
  octave,
  pattern,
  begin,
  direction,
}: MadeWith): MadeWith => ({
  subdivision,
  strings: [...strings],
  group,
  seed,
  style,
  octave,
  pattern,
  begin,
  direction,
});
