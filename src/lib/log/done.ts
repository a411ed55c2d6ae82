/** What was done of a session: its blocks, held against what is in the log since it was begun. */
import { type Block, DRILLS, LICK } from '$core/log/blocks';
import { sameZone } from '$core/neck/neck';
import type { StoredStint } from './messages';

export interface DoneBlock {
  readonly block: Block;
  /** Minutes played of it; 0 where it was not. */
  readonly minutes: number;
  /** Targets that were asked for and landed; null where nobody listened. */
  readonly asked: number | null;
  readonly landed: number | null;
}

/** Cards and licks are of no one zone: the log has the zone they happened to be in. */
const anywhere = new Set([DRILLS, LICK]);

function isOf(stint: StoredStint, { chart, exercise, zone }: Block): boolean {
  if (stint.exercise !== exercise) return false;
  if (anywhere.has(exercise)) return true;
  return stint.chart === chart && sameZone(stint.zone, zone);
}

/** What was done of each block since a time in milliseconds. */
export const doneOf = (
  blocks: readonly Block[],
  stints: readonly StoredStint[],
  begun: number,
): readonly DoneBlock[] =>
  blocks.map((block) => {
    // A stint's moment is kept in whole seconds.
    const own = stints.filter((stint) => stint.time >= begun - 1_000 && isOf(stint, block));
    const counted = own.filter(({ asked }) => asked !== null);
    const sum = (of: 'asked' | 'landed') =>
      counted.length === 0 ? null : counted.reduce((all, one) => all + (one[of] ?? 0), 0);
    return {
      block,
      minutes: own.reduce((all, one) => all + one.minutes, 0),
      asked: sum('asked'),
      landed: sum('landed'),
    };
  });
