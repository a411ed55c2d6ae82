/** Sounds that wait for the server: too large for the store of texts. */
import { createStore, del, get, set, type UseStore } from 'idb-keyval';

let store: UseStore | null = null;
const sounds = (): UseStore => (store ??= createStore('corvel-sounds', 'waiting'));

/** Where the browser keeps none, as long as the page lives. */
const held = new Map<string, Blob>();

/** Whether it was kept beyond this page. */
export async function keepSound(key: string, sound: Blob): Promise<boolean> {
  try {
    await set(key, sound, sounds());
    return true;
  } catch {
    held.set(key, sound);
    return false;
  }
}

export async function soundOf(key: string): Promise<Blob | null> {
  const own = held.get(key);
  if (own) return own;
  try {
    return (await get<Blob>(key, sounds())) ?? null;
  } catch {
    return null;
  }
}

export async function dropSound(key: string): Promise<void> {
  held.delete(key);
  try {
    await del(key, sounds());
  } catch {
    // None was kept.
  }
}
