/**
 * The next session: minutes filled with something solid to warm up, what is shaky at a tempo it was
 * clean at, one new thing next to something known, and a form to play freely; in one zone or two.
 */
import { at } from '../lists';
import { sameZone, type Zone } from '../neck/neck';
import type { Extent } from '../time/extent';
import { DAY } from '../time/moments';
import type { BeatsPerMinute } from '../time/units';
import { type Block, DRILLS, LICK, shared, SHEET } from './blocks';
import { freshFrom } from './fresh';
import type { PracticeChart } from './practice';
import {
  cellKey,
  coverageOf,
  FREE,
  lately,
  type Minutes,
  type Practised,
  type Stint,
} from './stints';
import { BEGINNING, bounded, steadyTempo, TEMPO, tempoFor, wasClean } from './tempos';
import { counted } from '../words';

interface SessionRequest {
  readonly charts: readonly PracticeChart[];
  /** Exercises in the order in which they are learnt. */
  readonly exercises: readonly string[];
  readonly history: readonly Stint[];
  readonly minutes: Minutes;
  readonly now: number;
  /** Things not wanted today, by {@link cellKey}. */
  readonly skipped?: ReadonlySet<string>;
  /** What an exercise is called, where a sentence names it. */
  readonly nameOf?: (exercise: string) => string;
}

/** What to practise now, and why. */
export interface Session {
  readonly blocks: readonly Block[];
  readonly coverage: readonly Practised[];
}

/** Shares of the minutes. */
const SHARES = { warm: 0.15, shaky: 0.35, fresh: 0.25, free: 0.25 } as const;
/** What was played within so many milliseconds is left to rest. */
const RESTED = 12 * 60 * 60_000;

const percent = (share: number): string => `${Math.round(100 * share)} %`;

interface Wanted {
  readonly cell: Practised;
  readonly exercise?: string;
  readonly share: number;
  readonly extent: Extent;
  readonly tempo: BeatsPerMinute;
  readonly reason: string;
}

/** A session that fills some minutes; nothing where there is no chart or no minute. */
export function nextSession(request: SessionRequest): Session {
  const { charts, exercises, history, minutes, now, nameOf = (name) => name } = request;
  const { skipped } = request;
  const coverage = coverageOf(charts, exercises, history, now);
  const chartOf = new Map(charts.map((chart) => [chart.id, chart]));
  const byKey = new Map(
    coverage.map((cell) => [cellKey(cell.chart, cell.exercise, cell.zone), cell]),
  );
  const first = coverage[0];
  if (!first || minutes < 1) return { blocks: [], coverage };

  const tempoOf = ({ chart }: Practised) => chartOf.get(chart)?.tempo ?? 100;
  const age = ({ lastTime }: Practised) => now - lastTime;
  const days = (cell: Practised) => Math.max(0, Math.round(age(cell) / DAY));
  const ago = (cell: Practised) => {
    const count = days(cell);
    return count === 0 ? 'today' : count === 1 ? 'yesterday' : `${count} days ago`;
  };
  const isSkipped = ({ chart, exercise, zone }: Practised) =>
    skipped?.has(cellKey(chart, exercise, zone)) ?? false;
  const touched = coverage.filter(
    (cell) => cell.stints.length > 0 && cell.exercise !== FREE && !isSkipped(cell),
  );

  // What is shaky comes first, for the zone of the session is its zone; then what has gone stale.
  const weak = (cell: Practised) => lately(cell.stints) ?? 0.8;
  const weakest = touched
    .filter(({ state }) => state === 'shaky')
    .toSorted((a, b) => weak(a) - weak(b) || age(a) - age(b));
  const stale = touched
    .filter(({ state }) => state === 'stale')
    .toSorted((a, b) => age(a) - age(b));
  // What was begun and is not solid yet: the nearer to it, and the longer not played, the sooner.
  const underWay = touched
    .filter(({ state, lastTime }) => state === 'new' && now - lastTime > RESTED)
    .toSorted((a, b) => b.stints.length - a.stints.length || age(b) - age(a));
  const lead = weakest[0] ?? underWay[0] ?? stale[0] ?? null;
  const latest = touched.toSorted((a, b) => age(a) - age(b))[0] ?? null;
  const home = lead ?? latest ?? first;

  const zones: Zone[] = [home.zone];
  const fits = (cell: Practised) =>
    !isSkipped(cell) && (zones.some((one) => sameZone(one, cell.zone)) || zones.length < 2);
  const visit = ({ zone }: Practised) => {
    if (!zones.some((one) => sameZone(one, zone))) zones.push(zone);
  };

  const wanted: Wanted[] = [];
  const taken = new Set<Practised>();
  const want = (one: Wanted) => {
    wanted.push(one);
    taken.add(one.cell);
    visit(one.cell);
  };

  const solid = touched
    .filter((cell) => cell.state === 'solid' && fits(cell))
    .toSorted(
      (a, b) =>
        Number(sameZone(b.zone, home.zone)) - Number(sameZone(a.zone, home.zone)) ||
        age(b) - age(a),
    )[0];
  const warm = solid ?? (touched.length > 0 ? null : first);
  if (warm && minutes >= 4)
    want({
      cell: warm,
      share: SHARES.warm,
      extent: solid ? 'form' : 'chord',
      tempo: bounded(solid ? tempoFor(warm.stints, tempoOf(warm)) : tempoOf(warm) * BEGINNING.warm),
      reason: solid
        ? `To warm up, something solid, last played ${ago(warm)}.`
        : 'No exercise is in the log yet: begin with one chord at a time, slowly.',
    });

  const repairs = [...weakest, ...stale, ...underWay].filter((cell) => !taken.has(cell));
  const room = minutes >= 45 ? 3 : minutes >= 15 ? 2 : 1;
  let repaired = 0;
  for (const cell of repairs) {
    if (repaired >= room) break;
    if (!fits(cell)) continue;
    const share = lately(cell.stints);
    const isDrill = cell.exercise === DRILLS;
    const whole = isDrill || cell.exercise === LICK || cell.exercise === SHEET;
    want({
      cell,
      share: SHARES.shaky / Math.min(room, repairs.length),
      extent: whole ? 'form' : cell.state === 'shaky' ? 'two chords' : 'section',
      tempo:
        cell.state === 'new'
          ? tempoFor(cell.stints, tempoOf(cell))
          : steadyTempo(cell.stints, tempoOf(cell)),
      reason:
        cell.state === 'shaky'
          ? `This is shaky: ${percent(share ?? 0)} of its ${isDrill ? 'cards right' : 'targets landed'} lately.${isDrill ? '' : ` Two chords at a time, ${wasClean(cell.stints) ? 'at a tempo it was clean at' : 'slower'}.`}`
          : cell.state === 'stale'
            ? `This has not been played for ${counted(days(cell), 'day')}: bring it back${isDrill ? '' : ', a little slower'}.`
            : `This was last played ${ago(cell)} and is not solid yet: once more, so that it stays.`,
    });
    repaired += 1;
  }

  const fresh = freshFrom(home, touched, byKey, chartOf, exercises, fits);
  const starting = touched.length === 0;
  if (fresh && minutes >= 3 && !taken.has(fresh.cell))
    want({
      cell: fresh.cell,
      share: SHARES.fresh,
      extent: 'two chords',
      tempo: bounded(fresh.tempo * (starting ? BEGINNING.fresh : TEMPO.under)),
      reason: `New: ${nameOf(fresh.cell.exercise)}, ${fresh.why}.`,
    });

  const playing = wanted[0]?.cell ?? home;
  if (minutes >= 3 || wanted.length === 0) {
    const chart = chartOf.get(home.chart);
    want({
      cell: home,
      exercise: FREE,
      share: SHARES.free,
      extent: 'form',
      tempo: bounded((chart?.tempo ?? tempoOf(playing)) * (starting ? BEGINNING.free : 1)),
      reason: `Put the drills away and play over ${chart?.title ?? 'the form'}.`,
    });
  }

  const kept = wanted.slice(0, Math.max(1, Math.floor(minutes)));
  const whole = shared(
    Math.floor(minutes),
    kept.map(({ share }) => share),
  );
  const part = minutes - Math.floor(minutes);
  return {
    coverage,
    blocks: kept.map(({ cell, exercise, extent, tempo, reason }, place) => ({
      minutes: at(whole, place) + (place === kept.length - 1 ? part : 0),
      chart: cell.chart,
      exercise: exercise ?? cell.exercise,
      zone: cell.zone,
      extent,
      ...(extent === 'form' ? {} : { index: chartOf.get(cell.chart)?.change ?? 0 }),
      // Cards have no tempo: the chart's stands for it.
      tempo: cell.exercise === DRILLS && !exercise ? bounded(tempoOf(cell)) : tempo,
      reason,
    })),
  };
}
