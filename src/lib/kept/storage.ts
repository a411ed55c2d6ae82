/** What this browser keeps; a browser that keeps nothing, or has no room, is no error. */

/** Whether this browser keeps anything beyond the page: where site data is blocked, `app.html` stands in. */
export const keepsAnything = (): boolean =>
  typeof Storage === 'undefined' || localStorage instanceof Storage;

/** Whether it was kept. */
export function keep(key: string, value: unknown): boolean {
  try {
    localStorage.setItem(key, JSON.stringify(value));
    return keepsAnything();
  } catch {
    return false;
  }
}

/** What was kept; null where there is nothing that can be read. */
export function kept(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as unknown;
  } catch {
    return null;
  }
}

export function letGo(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Nothing was kept.
  }
}

/** The keys that begin so. */
export function keysOf(prefix: string): readonly string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  } catch {
    return [];
  }
}

/** Runs something while no other page of this browser runs the same; at once where a browser cannot tell. */
export function alone<T>(name: string, work: () => Promise<T>): Promise<T> {
  const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
  return locks ? locks.request(`corvel:${name}`, work) : work();
}
