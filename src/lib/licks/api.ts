/** The pages' calls to the server about licks. Every failure is a value. */
import type { Lick } from '$core/licks/lick';
import {
  licksAnswer,
  lickConflict,
  type LickPlaceShown,
  placesAnswer,
  type PutRequest,
  type StoredLick,
} from './messages';

export type LickOutcome =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'conflict'; readonly current: StoredLick }
  | { readonly kind: 'away' }
  | { readonly kind: 'refused'; readonly message: string };

async function call(path: string, method: string, body?: unknown): Promise<Response | null> {
  try {
    return await fetch(path, {
      method,
      // A save may outlive its page; browsers allow 64 KiB for that.
      keepalive: method === 'PUT' && JSON.stringify(body).length < 60_000,
      signal: AbortSignal.timeout(10_000),
      ...(body === undefined
        ? {}
        : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    return null;
  }
}

const contentOf = ({ title, tags, source, chart, notes }: Lick) => ({
  ...{ title, tags, source, chart, notes },
});

/** Saves an edit made on a revision. */
export async function saveLick(id: string, revision: number, lick: Lick): Promise<LickOutcome> {
  const response = await call(`/api/licks/${id}`, 'PUT', { revision, ...contentOf(lick) });
  if (response === null || response.status >= 500) return { kind: 'away' };
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return { kind: 'saved', revision: (body as { revision: number }).revision };
  const stale = response.status === 409 ? lickConflict.safeParse(body) : null;
  if (stale?.success) return { kind: 'conflict', current: stale.data.current };
  const message = (body as { error?: { message?: string } } | null)?.error?.message;
  return { kind: 'refused', message: message ?? 'The server refused this.' };
}

/** Makes a lick; its id, or null when the server is away. */
export async function createLick(lick: Lick): Promise<string | null> {
  const response = await call('/api/licks', 'POST', contentOf(lick));
  if (!response?.ok) return null;
  return ((await response.json()) as { id: string }).id;
}

/** Every lick of the book; null when the server is away. */
export async function listLicks(): Promise<readonly StoredLick[] | null> {
  const response = await call('/api/licks', 'GET');
  if (!response?.ok) return null;
  const parsed = licksAnswer.safeParse(await response.json().catch(() => null));
  return parsed.success ? parsed.data : null;
}

const succeeds = async (path: string, method: string): Promise<boolean> =>
  (await call(path, method))?.ok ?? false;

export const deleteLick = (id: string): Promise<boolean> => succeeds(`/api/licks/${id}`, 'DELETE');
export const restoreLick = (id: string): Promise<boolean> =>
  succeeds(`/api/licks/${id}/restore`, 'POST');

/** Where a lick fits, best first; null when the server is away. */
export async function findPlaces(id: string): Promise<readonly LickPlaceShown[] | null> {
  const response = await call(`/api/licks/${id}/fits`, 'GET');
  if (!response?.ok) return null;
  const parsed = placesAnswer.safeParse(await response.json().catch(() => null));
  return parsed.success ? parsed.data.places : null;
}

/** Puts a lick on a chart, to be played there or as its melody; whether that was done. */
export async function putOn(
  id: string,
  { chart, index, semitones }: Pick<LickPlaceShown, 'chart' | 'index' | 'semitones'>,
  as: PutRequest['as'],
): Promise<boolean> {
  return (
    (await call(`/api/licks/${id}/fits`, 'POST', { chart, index, semitones, as }))?.ok ?? false
  );
}
