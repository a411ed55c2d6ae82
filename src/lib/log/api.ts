/** The log over HTTP. */
import type { StintContent } from './messages';

const JSON_TYPE = { 'content-type': 'application/json' };

const send = (path: string, method: string, body?: unknown): Promise<Response | null> =>
  fetch(path, {
    method,
    keepalive: true,
    ...(body === undefined ? {} : { headers: JSON_TYPE, body: JSON.stringify(body) }),
  }).catch(() => null);

const succeeds = async (path: string, method: string, body?: unknown): Promise<boolean> =>
  (await send(path, method, body))?.ok ?? false;

/** Adds a stint; its id, or null where the server does not take it. */
export async function addStint(stint: StintContent): Promise<string | null> {
  const response = await send('/api/stints', 'POST', stint);
  if (!response?.ok) return null;
  return ((await response.json()) as { id: string }).id;
}

export const changeStint = (id: string, stint: StintContent): Promise<boolean> =>
  succeeds(`/api/stints/${id}`, 'PUT', stint);
export const deleteStint = (id: string): Promise<boolean> =>
  succeeds(`/api/stints/${id}`, 'DELETE');
export const restoreStint = (id: string): Promise<boolean> =>
  succeeds(`/api/stints/${id}/restore`, 'POST');

/** Takes a log that was written out; a sentence of what became of it. */
export async function importLog(file: File): Promise<string> {
  let content: unknown;
  try {
    content = JSON.parse(await file.text());
  } catch {
    return `${file.name} is not a log in JSON.`;
  }
  const response = await send('/api/stints', 'PUT', content);
  if (!response) return 'The server does not answer. Nothing was changed.';
  const answer = (await response.json()) as {
    added?: number;
    known?: number;
    error?: { message: string };
  };
  if (!response.ok) return answer.error?.message ?? 'This log could not be read.';
  return `${answer.added ?? 0} stints added; ${answer.known ?? 0} were there already.`;
}
