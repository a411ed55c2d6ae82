/** What a server's memory comes to while it is used as players use it. */
import { setTimeout as sleep } from 'node:timers/promises';
import { megabytesOf, type TestServer } from '../browser/harness';
import { send } from './writes';

/** Saves a second of a player who edits; pages and questions come beside them. */
const SAVES = 4;
/** Seconds between two archives of the whole book. */
const ARCHIVED = 300;

interface MemoryResult {
  readonly requests: number;
  readonly failed: number;
  /** Megabytes after each of so many equal parts of the time. */
  readonly memory: readonly number[];
}

/** Every second a page, a question and some saves; now and then an archive. */
export async function useForLong(
  { url, pid }: TestServer,
  seconds: number,
  parts: number,
): Promise<MemoryResult> {
  let requests = 0;
  let failed = 0;
  const ask = async (path: string, method = 'GET', body?: object) => {
    const answer = await (body ? send(url + path, method, body) : fetch(url + path, { method }));
    const bytes = await answer.arrayBuffer();
    requests += 1;
    if (!answer.ok) failed += 1;
    return bytes;
  };
  const readJson = (bytes: ArrayBuffer): unknown => JSON.parse(new TextDecoder().decode(bytes));
  const text = '| Dm7 | G7 | C△7 | A7 |';
  const { id } = readJson(await ask('/api/charts', 'POST', { text })) as { readonly id: string };
  const screens = ['', '/play', '/practice', '/shapes', '/region'].map(
    (one) => `/plan/${id}${one}`,
  );
  const pages = ['/', '/licks', '/log', '/drills', ...screens];
  let revision = 1;
  const memory: number[] = [];
  const began = Date.now();
  for (let second = 0; second < seconds; second++) {
    await ask(pages[second % pages.length] ?? '/');
    await ask('/api/engine/chart', 'POST', { chart: `${text} // ${second}` });
    for (let save = 0; save < SAVES; save++) {
      const body = { revision, text: `${text} // ${second} ${save}`, plan: '{}' };
      const saved = readJson(await ask(`/api/charts/${id}`, 'PUT', body));
      ({ revision } = saved as { readonly revision: number });
    }
    if (second % ARCHIVED === 0) await ask('/api/archive');
    if ((second + 1) % Math.ceil(seconds / parts) === 0) memory.push(megabytesOf(pid()));
    await sleep(Math.max(0, began + (second + 1) * 1_000 - Date.now()));
  }
  return { requests, failed, memory };
}
