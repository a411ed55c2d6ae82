/** What a session has that is new. */
import { sameZone, type Zone } from '../neck/neck';
import type { PracticeChart } from './practice';
import { DRILLS } from './blocks';
import { cellKey, ladderZone, type Practised, RUNGS } from './stints';
import { TEMPO, tempoFor } from './tempos';

/** One new thing next to something known: the next exercise here, or the same in the zone beside. */
export function freshFrom(
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
