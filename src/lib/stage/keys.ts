/** In which key each pass of a loop comes. */
import { modulo, range } from '$core/lists';
import { seeded } from '$core/random';
import type { KeyWay } from '$lib/study/playing';

/** Half steps of each pass above the one before. A fourth up is a fifth down: round the fourths. */
const STEPS: Readonly<Record<Exclude<KeyWay, 'same' | 'random'>, number>> = {
  'half steps': 1,
  fourths: 5,
  'whole steps': 2,
};

/** All twelve keys in an order drawn by a seed; the first is the chart's own. */
function drawn(seed: number): readonly number[] {
  const chance = seeded(seed);
  const keys = [...range(1, 12)];
  for (let last = keys.length - 1; last > 0; last--) {
    const other = Math.floor(chance() * (last + 1));
    [keys[last], keys[other]] = [keys[other] ?? 0, keys[last] ?? 0];
  }
  return [0, ...keys];
}

/**
 * Half steps above the chart's key in a pass, 0–11. By whole steps six keys come round: then the
 * other six. At random none comes again before all have been.
 *
 * @example [0, 1, 2].map((pass) => shiftOf('fourths', pass, 1)) // [0, 5, 10]
 */
export function shiftOf(way: KeyWay, pass: number, seed: number): number {
  if (way === 'same') return 0;
  const round = Math.floor(pass / 12);
  if (way === 'random') return drawn(seed + round)[modulo(pass, 12)] ?? 0;
  const other = way === 'whole steps' ? Math.floor(pass / 6) % 2 : 0;
  return modulo(STEPS[way] * pass + other, 12);
}
