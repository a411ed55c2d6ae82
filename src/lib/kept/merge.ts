/** Two changes of one thing, made apart from each other. */
import { dequal } from 'dequal/lite';

export type Fields = Readonly<Record<string, unknown>>;

interface Merged {
  readonly fields: Fields;
  /** The names of what both have changed, and not to the same. */
  readonly disputed: readonly string[];
}

/** Fields with entries of their own, each of which is changed by itself; any other is changed as a whole. */
const COLLECTIONS: ReadonlySet<string> = new Set(['patterns', 'pedals', 'latencies']);

const isRecord = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The names a field may have on any side: entries of a record that only the others have made stay. */
const namesOf = (...sides: readonly Fields[]): readonly string[] => [
  ...new Set(sides.flatMap((side) => Object.keys(side))),
];

function mergeNames(
  names: readonly string[],
  base: Fields | null,
  mine: Fields,
  theirs: Fields,
): Merged {
  const fields: Record<string, unknown> = {};
  const disputed: string[] = [];
  for (const name of names) {
    const [own, other] = [mine[name], theirs[name]];
    const before = base?.[name];
    const changedHere = base === null || !dequal(own, before);
    const changedThere = base === null || !dequal(other, before);
    const inParts = COLLECTIONS.has(name) && changedHere && changedThere;
    if (inParts && isRecord(own) && isRecord(other) && isRecord(before)) {
      const inside = mergeNames(namesOf(own, other), before, own, other);
      fields[name] = inside.fields;
      if (inside.disputed.length > 0) disputed.push(name);
      continue;
    }
    const value = changedHere ? own : other;
    if (value !== undefined) fields[name] = value;
    if (changedHere && changedThere && !dequal(own, other)) disputed.push(name);
  }
  return { fields, disputed };
}

/**
 * What both have made of `base`, field by field, and entry by entry where a field is a collection: what only one has
 * changed is as that one has it, what both have changed is mine, and named. Without a base all that differs is
 * disputed.
 */
export const merge = (base: Fields | null, mine: Fields, theirs: Fields): Merged =>
  mergeNames(namesOf(mine, base ?? {}), base, mine, theirs);
