/** Drawing by chance, the same for the same source. */
import { at } from '../lists';

/** A source of numbers from 0 up to, not including, 1. */
export type Chance = () => number;

/** Whether the next number falls into a share of all. */
export const drawn = (chance: Chance, share: number): boolean => chance() < share;

/** One of a list, by the next number. */
export const oneOf = <T>(items: readonly T[], chance: Chance): T =>
  at(items, Math.floor(chance() * items.length));

/** Items with what each weighs when one is drawn. */
export type Weights<T> = readonly (readonly [T, number])[];

/** Named items with what each weighs, as a table writes them. */
export const byName = <T extends string>(weights: Readonly<Record<T, number>>): Weights<T> =>
  Object.entries<number>(weights) as [T, number][];

/** Numbers with what each weighs, the lowest first. */
export const byNumber = (weights: Readonly<Record<number, number>>): Weights<number> =>
  Object.entries<number>(weights)
    .map(([item, weight]) => [Number(item), weight] as const)
    .sort(([one], [other]) => one - other);

/** One of some items, each as likely as it weighs. */
export function weighed<T>(items: Weights<T>, chance: Chance): T {
  const whole = items.reduce((sum, [, weight]) => sum + weight, 0);
  let left = chance() * whole;
  for (const [item, weight] of items) {
    left -= weight;
    if (left < 0) return item;
  }
  return at(items, items.length - 1)[0];
}
