/** The pages' calls to the server about licks. Every failure is a value. */
import type { Lick } from '$core/licks/lick';
import { send, type Sent } from '$lib/kept/outbox.svelte';
import { freshId } from '$lib/ui/ids';
import { make, reached, succeeds } from '$lib/ui/server';
import {
  contentOf,
  licksAnswer,
  lickConflict,
  type LickPlaceShown,
  type LickPlacesShown,
  placesAnswer,
  type PutRequest,
  type StoredLick,
} from './messages';

type LickOutcome =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'conflict'; readonly current: StoredLick }
  | { readonly kind: 'away' }
  | { readonly kind: 'refused'; readonly message: string };

/** Saves an edit made on a revision. */
export async function saveLick(id: string, revision: number, lick: Lick): Promise<LickOutcome> {
  const response = await reached(`/api/licks/${id}`, 'PUT', { revision, ...contentOf(lick) });
  if (response === null || response.status >= 500) return { kind: 'away' };
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return { kind: 'saved', revision: (body as { revision: number }).revision };
  const stale = response.status === 409 ? lickConflict.safeParse(body) : null;
  if (stale?.success) return { kind: 'conflict', current: stale.data.current };
  const message = (body as { error?: { message?: string } } | null)?.error?.message;
  return { kind: 'refused', message: message ?? 'The server refused this.' };
}

/** Makes a lick; its id, or null when the server is away. */
export const createLick = (lick: Lick): Promise<string | null> =>
  make('/api/licks', contentOf(lick));

/** Keeps a lick in the book, while the server is away too. */
export const keepLick = (lick: Lick): Promise<Sent> =>
  send({
    path: `/api/licks/${freshId()}`,
    fields: { ...contentOf(lick) },
    revision: 0,
    what: 'The lick',
  });

/** Keeps a take of a chart under an id of its own, and its sound where that is given. */
export const keepTake = (
  id: string,
  takeOf: string,
  lick: Lick,
  sound: Blob | null,
): Promise<Sent> =>
  send({
    path: `/api/takes/${id}`,
    fields: { takeOf, ...contentOf(lick) },
    what: 'The take',
    sound,
  });

/** Where the sound of a take is. */
export const soundAddress = (id: string): string => `/api/takes/${id}/sound`;

export const dropSound = (id: string): Promise<boolean> => succeeds(soundAddress(id), 'DELETE');

async function licksAt(path: string): Promise<readonly StoredLick[] | null> {
  const response = await reached(path, 'GET');
  if (!response?.ok) return null;
  const parsed = licksAnswer.safeParse(await response.json().catch(() => null));
  return parsed.success ? parsed.data : null;
}

/** The takes of a chart, the latest first; null when the server is away. */
export const listTakes = (chart: string): Promise<readonly StoredLick[] | null> =>
  licksAt(`/api/takes?of=${encodeURIComponent(chart)}`);

/** Every lick of the book; null when the server is away. */
export const listLicks = (): Promise<readonly StoredLick[] | null> => licksAt('/api/licks');

export const deleteLick = (id: string): Promise<boolean> => succeeds(`/api/licks/${id}`, 'DELETE');
export const restoreLick = (id: string): Promise<boolean> =>
  succeeds(`/api/licks/${id}/restore`, 'POST');

/** Where a lick fits, best first; null when the server is away. */
export async function findPlaces(id: string): Promise<LickPlacesShown | null> {
  const response = await reached(`/api/licks/${id}/fits`, 'GET');
  if (!response?.ok) return null;
  const parsed = placesAnswer.safeParse(await response.json().catch(() => null));
  return parsed.success ? parsed.data : null;
}

/** Puts a lick on a chart, to be played there or as its melody; whether that was done. */
export const putOn = (
  id: string,
  { chart, index, semitones }: Pick<LickPlaceShown, 'chart' | 'index' | 'semitones'>,
  as: PutRequest['as'],
): Promise<boolean> => succeeds(`/api/licks/${id}/fits`, 'POST', { chart, index, semitones, as });
