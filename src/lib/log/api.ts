/** The log over HTTP. */
import { acknowledgedAt } from '$lib/kept/acknowledged';
import { send, type Sent, waitingAt, waitingBelow } from '$lib/kept/outbox.svelte';
import { messageOf, reached, succeeds } from '$lib/ui/server';
import { type StintContent, stintSchema, type StoredStint } from './messages';
import { logWritten, STINTS } from './today.svelte';
import { counted } from '$core/words';

/** What the server made of a change that does not wait for it; what was played today is looked up anew. */
async function changed<T>(answer: Promise<T>): Promise<T> {
  const made = await answer;
  logWritten();
  return made;
}

/** What of a stint its writer says: the rest is the server's. */
export const contentOf = (stint: StoredStint): StintContent => stintSchema.parse(stint);

/** Keeps a stint, made on what stood there; a new one is made on nothing, under an id of its own. */
export const keepStint = (
  id: string,
  stint: StintContent,
  was: StoredStint | null = null,
): Promise<Sent> =>
  send({
    path: `${STINTS}/${id}`,
    fields: stint,
    what: 'The log entry',
    revision: was?.revision ?? 0,
    base: was && contentOf(was),
  });

/** A stint with what is newer than the page: what waits for the server, and what it has acknowledged since. */
function asKnown(stint: StoredStint): StoredStint {
  const path = `${STINTS}/${stint.id}`;
  const waits = waitingAt(path)?.fields;
  const kept = acknowledgedAt(path);
  const fields = waits ?? (kept && kept.revision > stint.revision ? kept.fields : null);
  const read = fields && stintSchema.safeParse(fields);
  return read?.success ? { ...stint, ...read.data } : stint;
}

/** Stints as a page has them, with what is newer and what is not on it yet; the newest first. */
export function withWaiting(stints: readonly StoredStint[]): readonly StoredStint[] {
  const ids = new Set(stints.map(({ id }) => id));
  const added = waitingBelow(`${STINTS}/`).flatMap(({ path, fields }) => {
    const read = stintSchema.safeParse(fields);
    const id = path.slice(STINTS.length + 1);
    return read.success && !ids.has(id)
      ? [{ ...read.data, id, time: Date.parse(read.data.at), revision: 0 }]
      : [];
  });
  return [...added, ...stints.map(asKnown)].sort((a, b) => b.time - a.time);
}

/** The stints next before one; null where the server does not answer. */
export async function olderStints(last: StoredStint): Promise<readonly StoredStint[] | null> {
  const response = await reached(`${STINTS}?before=${last.time},${last.id}`, 'GET');
  return response?.ok ? ((await response.json()) as readonly StoredStint[]) : null;
}

/** Whether a stint waits for the server. */
export const isWaiting = (id: string): boolean => waitingAt(`${STINTS}/${id}`) !== null;

export const deleteStint = (id: string): Promise<boolean> =>
  changed(succeeds(`${STINTS}/${id}`, 'DELETE'));
export const restoreStint = (id: string): Promise<boolean> =>
  changed(succeeds(`${STINTS}/${id}/restore`, 'POST'));

/** Takes a log that was written out; a sentence of what became of it. */
export async function importLog(file: File): Promise<string> {
  const text = await file.text();
  let content: unknown;
  if (/\.csv$/iu.test(file.name)) {
    const { readCsv } = await import('./csv');
    const read = readCsv(text);
    if (!read.ok) return read.message;
    content = { stints: read.stints };
  } else {
    try {
      content = JSON.parse(text);
    } catch {
      return `${file.name} is not a log in JSON or CSV.`;
    }
  }
  const response = await reached(STINTS, 'PUT', content);
  if (!response) return 'The server does not answer. Nothing was changed.';
  if (!response.ok) return messageOf(response);
  const { added, known } = (await response.json()) as { added: number; known: number };
  return `${counted(added, 'entry', 'entries')} added; ${known} ${known === 1 ? 'was' : 'were'} there already.`;
}
