/** The tempo a thing is practised at next: as it went the last two times, slower where it is shaky. */
import { TEMPO_RANGE } from '../time/tempo';
import type { BeatsPerMinute } from '../time/units';
import { lately, RULES, shareOf, type Stint } from './stints';

/** How tempos move: by a few beats a minute after two alike; the others are shares of a chart's, and of targets. */
export const TEMPO = { step: 4, under: 0.92, first: 0.7, clean: 0.9 } as const;
/** An empty log: shares of a chart's tempo, from the first block to the last. */
export const BEGINNING = { warm: 0.6, fresh: 0.66, free: 0.75 } as const;
/**
 * How far the tempo drops for what is shaky: part of the way down to a slow one (a share of the chart's, or
 * of the last one, where that is lower), by how far from clean it was: a fifth landed is half of the way,
 * three quarters a tenth.
 */
const DROP = { slow: 0.6, lower: 0.75, way: 1.4 } as const;

/** Whole beats a minute, within what can be played. */
export const bounded = (bpm: number): BeatsPerMinute =>
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
export function steadyTempo(stints: readonly Stint[], chart: BeatsPerMinute): BeatsPerMinute {
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

export const wasClean = (stints: readonly Stint[]): boolean =>
  stints.some((one) => (shareOf(one) ?? 0) >= TEMPO.clean);
