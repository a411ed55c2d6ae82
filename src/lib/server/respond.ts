/** Answers that many endpoints share. */
import { json } from '@sveltejs/kit';
import type { Saved } from './commits';
import type { Db } from './database';
import { refusalResponse } from './request';
import type { Store } from './store';

/** The open database; the hooks let no request through to it while there is none. */
export function database(locals: { readonly store: Store }): Db {
  if (locals.store.state !== 'open') throw new Error('The database is not open.');
  return locals.store.db;
}

const noLonger = (what: string): Response =>
  refusalResponse({ status: 404, code: 'not_found', message: `This ${what} is no longer here.` });

export const noSuchChart = (): Response => noLonger('chart');
export const noSuchLick = (): Response => noLonger('lick');

export const noSuchTake = (): Response => noLonger('take');
export const noSuchStint = (): Response => noLonger('log entry');

export const created = (id: string): Response => json({ id }, { status: 201 });

/** The answer to a save that was made on a revision; what stands now beside a stale one. */
export function saved<T>(result: Saved<T>, missing: () => Response, what: string): Response {
  if (result.kind === 'missing') return missing();
  if (result.kind === 'saved') {
    const { revision } = result;
    return json({ revision }, { headers: { etag: `"${revision}"` } });
  }
  const message = `${what} changed elsewhere since it was opened here.`;
  return json({ error: { code: 'conflict', message }, current: result.current }, { status: 409 });
}
