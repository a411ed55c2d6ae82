/** Remembering what pure functions answered: the core's only caches, none of which grows for ever. */

/** Most answers held by a word; then all are forgotten, since the usual ones soon come again. */
const LIMIT = 512;

/**
 * Remembers answers by a word that says all they depend on.
 *
 * @example const qualityOf = rememberBy((text: string) => text, readQuality);
 */
export function rememberBy<A extends readonly unknown[], V>(
  word: (...given: A) => string,
  make: (...given: A) => V,
): (...given: A) => V {
  const known = new Map<string, { readonly value: V }>();
  return (...given) => {
    const id = word(...given);
    const found = known.get(id);
    if (found) return found.value;
    const value = make(...given);
    if (known.size >= LIMIT) known.clear();
    known.set(id, { value });
    return value;
  };
}

/** Remembers the answer for an object for as long as that object is in use. */
export function rememberOf<K extends object, V>(make: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, { readonly value: V }>();
  return (of) => {
    const found = known.get(of);
    if (found) return found.value;
    const value = make(of);
    known.set(of, { value });
    return value;
  };
}
