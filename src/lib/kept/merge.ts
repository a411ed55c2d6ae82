/** Two changes of one thing, made apart from each other. */
import { dequal } from 'dequal/lite';

export type Fields = Readonly<Record<string, unknown>>;

interface Merged {
  readonly fields: Fields;
  /** The names of what both have changed, and not to the same. */
  readonly disputed: readonly string[];
}

/**
 * What both have made of `base`, field by field: what only one has changed is as that one has it, what both
 * have changed is mine, and named. Without a base all that differs is disputed.
 */
export function merge(base: Fields | null, mine: Fields, theirs: Fields): Merged {
  const fields: Record<string, unknown> = {};
  const disputed: string[] = [];
  for (const name of new Set([...Object.keys(mine), ...Object.keys(base ?? {})])) {
    const [own, other] = [mine[name], theirs[name]];
    const changedHere = base === null || !dequal(own, base[name]);
    const changedThere = base === null || !dequal(other, base[name]);
    fields[name] = changedHere ? own : other;
    if (changedHere && changedThere && !dequal(own, other)) disputed.push(name);
  }
  return { fields, disputed };
}
