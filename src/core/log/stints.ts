/** What was practised: stints, and what they say of each exercise of each chart in each zone. */
import { group } from '../lists';
import type { Zone } from '../neck/neck';
import { DAY, dayOf, type Milliseconds, type Moment, timeOf } from '../time/moments';
import type { BeatsPerMinute } from '../time/units';

export type Minutes = number;

/** A stretch of practice on one thing. */
export interface Stint {
  readonly at: Moment;
  /** The same in milliseconds, where that is known already: reading ten thousand of them takes its time. */
  readonly time?: Milliseconds | undefined;
  /** The chart's id. */
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly tempo: BeatsPerMinute;
  readonly minutes: Minutes;
  /** Targets asked for and landed, where it is known. */
  readonly asked?: number | undefined;
  readonly landed?: number | undefined;
}

/** Playing freely, which no exercise is. */
export const FREE = 'free';

/**
 * The rungs of a chart's ladder, each opened by the one before: the tones that say the changes, the neck joined
 * up, lines that leave room, and the form itself.
 */
export const RUNGS: readonly string[] = [
  ...['roots', 'thirds', 'guide-tones', 'own', 'connecting', 'line-gaps', 'call-and-response'],
  FREE,
];

/** How well something is known. */
export const STATES = ['untouched', 'new', 'shaky', 'stale', 'solid'] as const;
export type State = (typeof STATES)[number];

/** An exercise over a chart in a zone. */
export interface Cell {
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly minutes: Minutes;
  readonly last: Moment | null;
  readonly state: State;
}

/** A cell with what was practised of it, the oldest first. */
export interface Practised extends Cell {
  readonly stints: readonly Stint[];
  /** When it was last practised; before all time where it never was. */
  readonly lastTime: Milliseconds;
}

/** Shares landed, days, and how many stints are of late. */
export const RULES = { shaky: 0.75, solid: 0.9, solidDays: 3, late: 3, staleDays: 21 } as const;

/** The share of its targets that landed; null where nobody knows. */
export const shareOf = ({ asked, landed }: Stint): number | null =>
  asked === undefined || landed === undefined || asked <= 0 ? null : Math.min(1, landed / asked);

/** The share landed of late: of the last few stints whose targets were counted. */
export function lately(stints: readonly Stint[]): number | null {
  const counted = stints.filter((stint) => shareOf(stint) !== null).slice(-RULES.late);
  const asked = counted.reduce((sum, one) => sum + (one.asked ?? 0), 0);
  const landed = counted.reduce((sum, one) => sum + Math.min(one.asked ?? 0, one.landed ?? 0), 0);
  return asked === 0 ? null : landed / asked;
}

/** Days on which nine tenths of the targets landed. */
function goodDays(stints: readonly Stint[]): number {
  let days = 0;
  for (const [, ofDay] of group(stints, ({ at }) => dayOf(at))) {
    const asked = ofDay.reduce(
      (sum, one) => sum + (shareOf(one) === null ? 0 : (one.asked ?? 0)),
      0,
    );
    const landed = ofDay.reduce(
      (sum, one) => sum + (shareOf(one) === null ? 0 : Math.min(one.asked ?? 0, one.landed ?? 0)),
      0,
    );
    if (asked > 0 && landed / asked >= RULES.solid) days += 1;
  }
  return days;
}

/** What stints of one thing say of it; the oldest first. A clock set back makes nothing stale. */
export function stateOf(stints: readonly Stint[], now: Milliseconds): State {
  const last = stints.at(-1);
  if (!last) return 'untouched';
  if (now - timeOf(last.at) > RULES.staleDays * DAY) return 'stale';
  const share = lately(stints);
  if (share !== null && share < RULES.shaky) return 'shaky';
  return goodDays(stints) >= RULES.solidDays ? 'solid' : 'new';
}

const zoneKey = ({ low, high }: Zone): string => `${low}-${high}`;

/** The key of a cell in maps and addresses. */
export const cellKey = (chart: string, exercise: string, zone: Zone): string =>
  `${chart}\n${exercise}\n${zoneKey(zone)}`;

/** A chart that can be practised, and the zones of its key. */
export interface Chartable {
  readonly id: string;
  readonly zones: readonly Zone[];
}

/** Every exercise of every chart in every zone, and whatever else was practised. */
export function coverageOf(
  charts: readonly Chartable[],
  exercises: readonly string[],
  history: readonly Stint[],
  now: number,
): readonly Practised[] {
  const timed = history
    .map((stint) => ({ stint, time: stint.time ?? timeOf(stint.at) }))
    .filter(({ time }) => Number.isFinite(time))
    .sort((a, b) => a.time - b.time);
  const known = new Set(charts.map(({ id }) => id));
  const practised = group(
    timed.filter(({ stint }) => known.has(stint.chart)),
    ({ stint: { chart, exercise, zone } }) => cellKey(chart, exercise, zone),
  );
  const seen = new Set<string>();
  const cells: Practised[] = [];
  const add = (chart: string, exercise: string, zone: Zone) => {
    const key = cellKey(chart, exercise, zone);
    if (seen.has(key)) return;
    seen.add(key);
    const own = practised.get(key) ?? [];
    const stints = own.map(({ stint }) => stint);
    // A plain literal: a large book has ten thousand cells.
    cells.push({
      chart,
      exercise,
      zone,
      stints,
      lastTime: own.at(-1)?.time ?? -Infinity,
      minutes: stints.reduce((sum, { minutes }) => sum + minutes, 0),
      last: stints.at(-1)?.at ?? null,
      state: stateOf(stints, now),
    });
  };
  for (const { id, zones } of charts)
    for (const exercise of exercises) for (const zone of zones) add(id, exercise, zone);
  for (const [, [first]] of practised)
    if (first) add(first.stint.chart, first.stint.exercise, first.stint.zone);
  return cells;
}

/** The zone of a chart's ladder: where a rung was played last, else anything of it, else its first. */
export function ladderZone(
  id: string,
  zones: readonly Zone[],
  cells: readonly Practised[],
): Zone | null {
  const own = cells
    .filter(({ chart, stints }) => chart === id && stints.length > 0)
    .toSorted((a, b) => b.lastTime - a.lastTime);
  const rung = own.find(({ exercise }) => RUNGS.includes(exercise) && exercise !== FREE);
  return (rung ?? own[0])?.zone ?? zones[0] ?? null;
}
