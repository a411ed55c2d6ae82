/** Calls from the pages to the server. Every failure is a value. */
import { freshId } from './ids';

const JSON_HEADERS = { 'content-type': 'application/json' } as const;

/** Largest request that may outlive its page, in bytes; browsers allow 64 KiB in all. */
const KEEPALIVE_LIMIT = 60_000;

/** Longest wait for an answer, in milliseconds. */
const PATIENCE = 10_000;

/** What the server answers; `late` where it did not in time, null where it could not be reached. */
export async function callServer(
  path: string,
  method: string,
  body?: unknown,
): Promise<Response | 'late' | null> {
  const text = body === undefined ? '' : JSON.stringify(body);
  const keepalive = new TextEncoder().encode(text).length <= KEEPALIVE_LIMIT;
  try {
    const response = await fetch(path, {
      method,
      keepalive,
      signal: AbortSignal.timeout(PATIENCE),
      ...(body === undefined ? {} : { headers: JSON_HEADERS, body: text }),
    });
    // An answer that breaks off has not come: what it says is known whole, or not at all.
    const said = await response.arrayBuffer();
    const { status, statusText, headers } = response;
    return new Response(said.byteLength === 0 ? null : said, { status, statusText, headers });
  } catch (error) {
    return error instanceof DOMException && error.name === 'TimeoutError' ? 'late' : null;
  }
}

/** What the server answers; null where it did not, for whatever reason. */
export async function reached(
  path: string,
  method: string,
  body?: unknown,
): Promise<Response | null> {
  const response = await callServer(path, method, body);
  return response === 'late' ? null : response;
}

export const succeeds = async (path: string, method: string, body?: unknown): Promise<boolean> =>
  (await reached(path, method, body))?.ok ?? false;

/** Ids of what was to be made and may have been, though no answer came. */
const making = new Map<string, string>();

/**
 * Makes something below a path; its id, or null where the server does not answer or refuses. It is asked
 * again under the same id, so that what arrived without an answer is not made twice.
 */
export async function make(path: string, content: object): Promise<string | null> {
  const what = `${path} ${JSON.stringify(content)}`;
  const id = making.get(what) ?? freshId();
  making.set(what, id);
  const response = await reached(`${path}/${id}`, 'PUT', { revision: 0, ...content });
  if (response === null || response.status >= 500) return null;
  making.delete(what);
  // What another has changed meanwhile is there as well.
  return response.ok || response.status === 409 ? id : null;
}

/** Why the server refuses, as it says it. */
export async function messageOf(response: Response): Promise<string> {
  const body: unknown = await response.json().catch(() => null);
  const error = (body as { error?: { message?: unknown } } | null)?.error;
  return typeof error?.message === 'string' ? error.message : 'The server refused this.';
}
