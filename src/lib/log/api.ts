/** The log over HTTP. */
import { idOfNew, messageOf, reached, succeeds } from '$lib/ui/server';
import type { StintContent } from './messages';
import { logWritten } from './today.svelte';

/** What the server made of a change of the log; what was played today is looked up anew. */
async function changed<T>(answer: Promise<T>): Promise<T> {
  const made = await answer;
  logWritten();
  return made;
}

/** Adds a stint; its id, or null where the server does not take it. */
export const addStint = (stint: StintContent): Promise<string | null> =>
  changed(idOfNew('/api/stints', stint));

export const changeStint = (id: string, stint: StintContent): Promise<boolean> =>
  changed(succeeds(`/api/stints/${id}`, 'PUT', stint));
export const deleteStint = (id: string): Promise<boolean> =>
  changed(succeeds(`/api/stints/${id}`, 'DELETE'));
export const restoreStint = (id: string): Promise<boolean> =>
  changed(succeeds(`/api/stints/${id}/restore`, 'POST'));

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
  const response = await reached('/api/stints', 'PUT', content);
  if (!response) return 'The server does not answer. Nothing was changed.';
  if (!response.ok) return messageOf(response);
  const { added, known } = (await response.json()) as { added: number; known: number };
  return `${added} stints added; ${known} were there already.`;
}
