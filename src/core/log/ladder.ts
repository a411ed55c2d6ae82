/** The ladder of a chart: from its first exercise to playing freely, a rung at a time in one zone. */
import { sameZone, type Zone } from '../neck/neck';
import type { BeatsPerMinute } from '../time/units';
import type { PracticeChart } from './practice';
import { ladderZone, type Practised, RUNGS, type State } from './stints';
import { tempoFor } from './tempos';

/** A step of the ladder: an exercise at a tempo. */
export interface Rung {
  readonly exercise: string;
  readonly state: State;
  /** Whether the one before is solid, or this was played already; the player may jump all the same. */
  readonly opened: boolean;
  readonly tempo: BeatsPerMinute;
}

/** The rungs of a zone, from the easiest on. */
export interface Ladder {
  readonly zone: Zone;
  readonly rungs: readonly Rung[];
  /** The rung to play now: the first that is not solid; the last where all are. */
  readonly now: number;
}

/**
 * Where a chart stands on its ladder, in {@link ladderZone}; null where a chart
 * has no zones. `cells` is what was practised of it, whatever else is among them.
 */
export function ladderOf(
  { id, tempo, zones }: Pick<PracticeChart, 'id' | 'tempo' | 'zones'>,
  cells: readonly Practised[],
): Ladder | null {
  const own = cells.filter(({ chart, stints }) => chart === id && stints.length > 0);
  const zone = ladderZone(id, zones, own);
  if (!zone) return null;
  let before: State = 'solid';
  const rungs = RUNGS.map((exercise): Rung => {
    const cell = own.find((one) => one.exercise === exercise && sameZone(one.zone, zone));
    const state = cell?.state ?? 'untouched';
    const opened = before === 'solid' || cell !== undefined;
    before = state;
    return { exercise, state, opened, tempo: tempoFor(cell?.stints ?? [], tempo) };
  });
  const open = rungs.findIndex(({ state }) => state !== 'solid');
  return { zone, rungs, now: open < 0 ? rungs.length - 1 : open };
}
