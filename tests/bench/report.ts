/** The rows the benchmark prints: a figure, what it may be, and whether it is. */
import { existsSync, readFileSync } from 'node:fs';

export interface Figure {
  readonly what: string;
  readonly value: number;
  readonly unit: string;
  /** The figure stays at or below `most`, or reaches `least`; neither when it only informs. */
  readonly most?: number;
  readonly least?: number;
}

export const median = (values: readonly number[]): number => quantile(values, 0.5);

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}

/** Milliseconds of one call: the median of `rounds` after a warm-up. */
export function time(work: () => unknown, rounds = 40): number {
  for (let round = 0; round < 5; round++) work();
  const spent = Array.from({ length: rounds }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return median(spent);
}

/** Calls a second, over a quarter of a second of `work`, which makes `calls` of them. */
export function rate(work: () => unknown, calls: number): number {
  work();
  const start = performance.now();
  let made = 0;
  while (performance.now() - start < 250) {
    work();
    made += calls;
  }
  return (made * 1000) / (performance.now() - start);
}

const shown = (value: number): string =>
  value >= 1000
    ? Math.round(value).toLocaleString('en')
    : value.toPrecision(value < 1 ? 2 : 3).replace(/\.0+$/u, '');

export function printRow(figure: Figure): void {
  const { what, value, unit, most, least } = figure;
  const bound = most === undefined ? least : most;
  const sign = most === undefined ? '≥' : '≤';
  const budget = bound === undefined ? '' : `${sign} ${shown(bound)} ${unit}`;
  const holds = value <= (most ?? Infinity) && value >= (least ?? -Infinity);
  const verdict = bound === undefined ? '' : holds ? 'within' : 'OVER';
  const cells = [what.padEnd(58), `${shown(value)} ${unit}`.padStart(16), budget.padStart(16)];
  console.log(`${cells.join('  ')}  ${verdict}`.trimEnd());
}

interface ProcessorTimes {
  readonly busy: number;
  readonly stolen: number;
}

/** What a shared machine gave to others while it had work here; null where it does not say. */
export function processorTimes(): ProcessorTimes | null {
  if (!existsSync('/proc/stat')) return null;
  const [user = 0, nice = 0, system = 0, , , irq = 0, soft = 0, stolen = 0] =
    readFileSync('/proc/stat', 'utf8').split('\n', 1)[0]?.split(/\s+/u).slice(1).map(Number) ?? [];
  return { busy: user + nice + system + irq + soft + stolen, stolen };
}
