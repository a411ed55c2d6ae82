/** The pages' calls to the server about charts. Every failure is a value with a sentence. */
import type { z } from 'zod';
import { conflictAnswer, saveAnswer } from './messages';

export interface StoredText {
  readonly text: string;
  readonly plan: string;
  readonly revision: number;
}

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'conflict'; readonly current: StoredText }
  /** The server could not be reached or is not well: try again. */
  | { readonly kind: 'away' }
  | { readonly kind: 'refused'; readonly message: string };

const JSON_HEADERS = { 'content-type': 'application/json' } as const;

async function call(path: string, method: string, body?: unknown): Promise<Response | null> {
  try {
    return await fetch(path, {
      method,
      ...(body === undefined ? {} : { headers: JSON_HEADERS, body: JSON.stringify(body) }),
    });
  } catch {
    return null;
  }
}

async function read<T>(response: Response, schema: z.ZodType<T>): Promise<T | null> {
  const parsed = schema.safeParse(await response.json().catch(() => null));
  return parsed.success ? parsed.data : null;
}

async function messageOf(response: Response): Promise<string> {
  const body: unknown = await response.json().catch(() => null);
  const error = (body as { error?: { message?: unknown } } | null)?.error;
  return typeof error?.message === 'string' ? error.message : 'The server refused this.';
}

/** Saves an edit made on `stored.revision`. */
export async function saveChart(id: string, stored: StoredText): Promise<SaveOutcome> {
  const response = await call(`/api/charts/${id}`, 'PUT', stored);
  if (response === null || response.status >= 500) return { kind: 'away' };
  if (response.ok) {
    const answer = await read(response, saveAnswer);
    return answer ? { kind: 'saved', revision: answer.revision } : { kind: 'away' };
  }
  if (response.status === 409) {
    const answer = await read(response, conflictAnswer);
    return answer ? { kind: 'conflict', current: answer.current } : { kind: 'away' };
  }
  return { kind: 'refused', message: await messageOf(response) };
}

/** Makes a chart; its id, or null when the server is away. */
export async function createChart(text: string, plan?: string): Promise<string | null> {
  const response = await call('/api/charts', 'POST', { text, ...(plan ? { plan } : {}) });
  if (!response?.ok) return null;
  const { id } = (await response.json()) as { id: string };
  return id;
}

const succeeds = async (path: string, method: string, body?: unknown): Promise<boolean> =>
  (await call(path, method, body))?.ok ?? false;

export const renameChart = (id: string, title: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}`, 'PATCH', { title });

export const deleteChart = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}`, 'DELETE');

export const restoreChart = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}/restore`, 'POST');

export const duplicateChart = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}/duplicate`, 'POST');

export const addDemoCharts = (): Promise<boolean> => succeeds('/api/charts/demo', 'POST');
