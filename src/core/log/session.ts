/**
 * The next session: minutes filled with something solid to warm up, what is shaky at a tempo it was
 * clean at, one new thing next to something known, and a form to play freely; in one zone or two.
 */
import { at } from '../lists';
import type { Zone } from '../neck/neck';
import type { Extent } from '../time/extent';
import { DAY } from '../time/moments';
import { TEMPO_RANGE } from '../time/tempo';
import type { BeatsPerMinute } from '../time/units';
import {
  cellKey,
  type Chartable,
  coverageOf,
  FREE,
  ladderZone,
  lately,
  type Minutes,
  type Practised,
  RULES,
  RUNGS,
  shareOf,
  type Stint,
} from './stints';
import { counted } from '../words';

/** Cards of a chart: they have no tempo, and a screen of their own. */
export const DRILLS = 'drills';

/** The exercise of the log that is a lick. */
export const LICK = 'lick';

/** The exercise of the log that is a sheet of the player’s. */
export const SHEET = 'sheet';

/** A part of a session: what is practised, where and for how long. */
export interface Block {
  readonly minutes: Minutes;
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly extent: Extent;
  /** The chord a short extent begins with. */
  readonly index?: number;
  readonly tempo: BeatsPerMinute;
  readonly reason: string;
}

/** A chart to practise, with what a session needs to know of it. */
export interface PracticeChart extends Chartable {
  readonly title: string;
  readonly tempo: BeatsPerMinute;
  /** The chord before the change most worth practising. */
  readonly change: number;
}

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

/** Shares of the minutes, and how tempos move: by a few beats a minute after two alike. */
const SHARES = { warm: 0.15, shaky: 0.35, fresh: 0.25, free: 0.25 } as const;
const TEMPO = { step: 4, under: 0.92, first: 0.7, clean: 0.9 } as const;
/** An empty log: shares of a chart's tempo, from the first block to the last. */
const BEGINNING = { warm: 0.6, fresh: 0.66, free: 0.75 } as const;
/**
 * How far the tempo drops for what is shaky: part of the way down to a slow one (a share of the chart's, or
 * of the last one, where that is lower), by how far from clean it was: a fifth landed is half of the way,
 * three quarters a tenth.
 */
const DROP = { slow: 0.6, lower: 0.75, way: 1.4 } as const;

/** What was played within so many milliseconds is left to rest. */
const RESTED = 12 * 60 * 60_000;

const bounded = (bpm: number): BeatsPerMinute =>
  Math.round(Math.max(TEMPO_RANGE.low, Math.min(TEMPO_RANGE.high, bpm)));

/** The tempo a thing is to be practised at: as it went the last two times. */
export function tempoFor(stints: readonly Stint[], chart: BeatsPerMinute): BeatsPerMinute {
  const last = stints.at(-1);
  if (!last) return bounded(chart * TEMPO.first);
  const [before, latest] = stints.slice(-2).map(shareOf);
  const two = stints.length >= 2 ? [before, latest] : [];
  if (two.length === 2 && two.every((one) => (one ?? 0) >= TEMPO.clean))
    return bounded(last.tempo + TEMPO.step);
  if (two.length === 2 && two.every((one) => (one ?? 1) < RULES.shaky))
    return bounded(last.tempo - TEMPO.step);
  return bounded(last.tempo);
}

/**
 * For what is shaky: slower by how badly it went of late, and at the most as fast as it was clean. What is
 * stale is a little slower than it was.
 */
function steadyTempo(stints: readonly Stint[], chart: BeatsPerMinute): BeatsPerMinute {
  const clean = stints
    .filter((one) => (shareOf(one) ?? 0) >= TEMPO.clean)
    .map(({ tempo }) => tempo);
  const last = stints.at(-1)?.tempo ?? chart * TEMPO.first;
  const share = lately(stints);
  const next =
    share === null || share >= RULES.shaky
      ? tempoFor(stints, chart) * (clean.length > 0 ? 1 : TEMPO.under)
      : last -
        ((TEMPO.clean - share) / DROP.way) *
          (last - Math.min(DROP.slow * chart, DROP.lower * last));
  return bounded(clean.length > 0 ? Math.min(next, Math.max(...clean)) : next);
}

const wasClean = (stints: readonly Stint[]): boolean =>
  stints.some((one) => (shareOf(one) ?? 0) >= TEMPO.clean);

const sameZone = (a: Zone, b: Zone): boolean => a.low === b.low && a.high === b.high;
const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Whole minutes by shares, each one at least, together as many as there are. */
function shared(minutes: Minutes, shares: readonly number[]): readonly Minutes[] {
  const sum = shares.reduce((all, one) => all + one, 0);
  const whole = shares.map((one) => Math.max(1, Math.floor((minutes * one) / sum)));
  for (let over = whole.reduce((all, one) => all + one, 0) - minutes; over > 0; over--) {
    const most = whole.indexOf(Math.max(...whole));
    whole[most] = at(whole, most) - 1;
  }
  const rest = minutes - whole.reduce((all, one) => all + one, 0);
  const largest = shares.indexOf(Math.max(...shares));
  whole[largest] = at(whole, largest) + rest;
  return whole;
}

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

/**
 * The blocks with one of them longer: the time is taken from those after it, a minute at a time from the
 * longest; where none has more than a minute the session is longer.
 */
export function lengthened(blocks: readonly Block[], place: number, by: Minutes): readonly Block[] {
  const minutes = blocks.map((block) => block.minutes);
  if (!blocks[place]) return blocks;
  minutes[place] = at(minutes, place) + by;
  for (let taken = 0; taken < by; taken++) {
    const later = minutes.slice(place + 1);
    const most = Math.max(...later);
    if (!(most >= 2)) break;
    minutes[place + 1 + later.indexOf(most)] = most - 1;
  }
  return blocks.map((block, index) => ({ ...block, minutes: at(minutes, index) }));
}

/** One new thing next to something known: the next exercise here, or the same in the zone beside. */
function freshFrom(
  home: Practised,
  touched: readonly Practised[],
  byKey: ReadonlyMap<string, Practised>,
  charts: ReadonlyMap<string, PracticeChart>,
  exercises: readonly string[],
  fits: (cell: Practised) => boolean,
) {
  const known = touched
    .filter(({ state }) => state === 'solid' || state === 'new')
    .toSorted(
      (a, b) =>
        Number(b.state === 'solid') - Number(a.state === 'solid') ||
        Number(sameZone(b.zone, home.zone)) - Number(sameZone(a.zone, home.zone)) ||
        b.stints.length - a.stints.length,
    );
  const at0 = (chart: string, exercise: string | undefined, zone: Zone | undefined) => {
    const cell = exercise && zone ? byKey.get(cellKey(chart, exercise, zone)) : undefined;
    return cell?.state === 'untouched' && fits(cell) ? cell : null;
  };
  // A rung of the ladder is opened by the one before it.
  const opened = (chart: string, exercise: string, zone: Zone) => {
    const before = RUNGS[RUNGS.indexOf(exercise) - 1];
    return (
      before === undefined ||
      !exercises.includes(before) ||
      byKey.get(cellKey(chart, before, zone))?.state === 'solid'
    );
  };
  // The ladder comes first, where it was climbed last.
  const ladder = ladderZone(home.chart, charts.get(home.chart)?.zones ?? [], touched) ?? home.zone;
  const rung = exercises
    .filter((exercise) => RUNGS.includes(exercise) && opened(home.chart, exercise, ladder))
    .map((exercise) => at0(home.chart, exercise, ladder))
    .find((cell) => cell !== null);
  if (rung && touched.length > 0) {
    const before = RUNGS[RUNGS.indexOf(rung.exercise) - 1];
    const below =
      before === undefined ? undefined : byKey.get(cellKey(home.chart, before, ladder))?.stints;
    return {
      cell: rung,
      // As the ladder says it: nothing of it was played yet.
      tempo: tempoFor([], charts.get(home.chart)?.tempo ?? 100) / TEMPO.under,
      why:
        below && below.length > 0
          ? 'the next rung of its ladder, now that the one before is solid'
          : 'the first rung of its ladder',
    };
  }
  for (const one of known) {
    const zones = charts.get(one.chart)?.zones ?? [];
    const place = zones.findIndex((zone) => sameZone(zone, one.zone));
    const chartTempo = charts.get(one.chart)?.tempo ?? 100;
    const played = one.exercise === DRILLS ? undefined : one.stints.at(-1)?.tempo;
    const tempo = played ?? chartTempo * TEMPO.first;
    const following = exercises
      .slice(exercises.indexOf(one.exercise) + 1)
      .filter((exercise) => opened(one.chart, exercise, one.zone))
      .map((exercise) => at0(one.chart, exercise, one.zone))
      .find((cell) => cell !== null);
    const beside =
      at0(one.chart, one.exercise, zones[place + 1]) ??
      at0(one.chart, one.exercise, zones[place - 1]);
    const found = one.state === 'solid' ? (beside ?? following) : (following ?? beside);
    if (!found) continue;
    const why =
      found === beside
        ? 'the zone beside one where you play it'
        : 'the next exercise in a zone you know';
    return { cell: found, tempo, why };
  }
  // Nothing lies beside what is known: the first thing of all that was never played.
  const tempo = charts.get(home.chart)?.tempo ?? 100;
  if (touched.length === 0) {
    const next = exercises
      .slice(1)
      .filter((exercise) => opened(home.chart, exercise, home.zone))
      .map((exercise) => at0(home.chart, exercise, home.zone))
      .find((cell) => cell !== null);
    return next ? { cell: next, tempo, why: 'in the same zone' } : null;
  }
  const untouched = [...byKey.values()].filter((cell) => cell.state === 'untouched' && fits(cell));
  const cell =
    untouched.find((one) => one.chart === home.chart && sameZone(one.zone, home.zone)) ??
    untouched.find((one) => one.chart === home.chart) ??
    untouched[0];
  return cell
    ? {
        cell,
        tempo: (charts.get(cell.chart)?.tempo ?? 100) * TEMPO.first,
        why: 'never played so far',
      }
    : null;
}
