/** The words a lick is described by, as they are typed: its chords in one line, its tags in one. */
import { LICK_LIMITS } from '$core/licks/lick';

/** A line of chart text that is no bars: `key: C`. */
const HEAD = /^[a-z]+:/u;
/** Stands for the end of a line; nothing of a chart is written so. */
const END = '↵';

/**
 * The bars of chart text in one line, as `withBars` reads them back.
 *
 * @example barsOf('key: C\n| Dm7 | G7 |\n| C | % |'); // "| Dm7 | G7 | ↵ | C | % |"
 */
export const barsOf = (chart: string): string =>
  chart
    .split('\n')
    .filter((line) => line.trim() !== '' && !HEAD.test(line))
    .join(` ${END} `);

/**
 * Chart text with other bars, its heads as they were; bar lines are added where none were typed.
 *
 * @example withBars('key: C\n| C |', 'Dm7'); // "key: C\n| Dm7 |"
 */
export function withBars(chart: string, typed: string): string {
  const heads = chart.split('\n').filter((line) => HEAD.test(line));
  const bars = typed.split(END).map((line) => line.trim());
  const only = typed.includes('|') ? bars : [`| ${bars.join(' ')} |`];
  return [...heads, ...only].join('\n');
}

/**
 * Tags from what is typed with commas between them, each once.
 *
 * @example tagsIn('blues, slow, , blues'); // ["blues","slow"]
 */
export const tagsIn = (typed: string): readonly string[] =>
  [
    ...new Set(
      typed
        .split(',')
        .map((word) => word.trim().slice(0, LICK_LIMITS.tag))
        .filter((word) => word !== ''),
    ),
  ].slice(0, LICK_LIMITS.tags);
