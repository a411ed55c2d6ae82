/** The pages' calls to the server about charts. Every failure is a value with a sentence. */
import type * as z from 'zod/mini';
import { callServer, make, messageOf, succeeds } from '$lib/ui/server';
import { conflictAnswer, saveAnswer, storedAnswer } from './messages';
import type { View } from './view';

export interface StoredText {
  readonly text: string;
  readonly plan: string;
  readonly revision: number;
}

type SaveOutcome =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'conflict'; readonly current: StoredText }
  /** The server could not be reached or is not well: try again. */
  | { readonly kind: 'away'; readonly message: string | null }
  /** It did not answer in time; perhaps it has saved. */
  | { readonly kind: 'waiting' }
  /** It asks for its passcode again. */
  | { readonly kind: 'locked' }
  | { readonly kind: 'refused'; readonly message: string };

async function read<T>(response: Response, schema: z.ZodMiniType<T>): Promise<T | null> {
  const parsed = schema.safeParse(await response.json().catch(() => null));
  return parsed.success ? parsed.data : null;
}

const UNREACHED: SaveOutcome = { kind: 'away', message: null };

/** Saves an edit made on `stored.revision`. */
export async function saveChart(id: string, stored: StoredText): Promise<SaveOutcome> {
  const response = await callServer(`/api/charts/${id}`, 'PUT', stored);
  if (response === 'late') return { kind: 'waiting' };
  if (response === null) return UNREACHED;
  if (response.status >= 500) return { kind: 'away', message: await messageOf(response) };
  if (response.status === 401) return { kind: 'locked' };
  if (response.ok) {
    const answer = await read(response, saveAnswer);
    return answer ? { kind: 'saved', revision: answer.revision } : UNREACHED;
  }
  if (response.status === 409) {
    const answer = await read(response, conflictAnswer);
    return answer ? { kind: 'conflict', current: answer.current } : UNREACHED;
  }
  return { kind: 'refused', message: await messageOf(response) };
}

/** How the server has a chart; null where it cannot be had. */
export async function findChart(id: string): Promise<StoredText | null> {
  const response = await callServer(`/api/charts/${id}`, 'GET');
  return response instanceof Response && response.ok ? await read(response, storedAnswer) : null;
}

/** Makes a chart; its id, or null when the server is away. */
export const createChart = (text: string, plan = '{}'): Promise<string | null> =>
  make('/api/charts', { text, plan });

/** Keeps how a chart is looked at; whether that succeeds is of no moment to the player. */
export const saveView = (id: string, view: View): Promise<boolean> =>
  succeeds(`/api/charts/${id}/view`, 'PUT', view);

/** Says that a chart was opened, for the order of the Book. */
export const markOpened = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}/opened`, 'POST');

export const renameChart = (id: string, title: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}`, 'PATCH', { title });

export const deleteChart = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}`, 'DELETE');

export const restoreChart = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}/restore`, 'POST');

export const duplicateChart = (id: string): Promise<boolean> =>
  succeeds(`/api/charts/${id}/duplicate`, 'POST');

export const addDemoCharts = (): Promise<boolean> => succeeds('/api/charts/demo', 'POST');
