/** Answers that many endpoints share. */
import { json } from '@sveltejs/kit';
import type { Db } from './database';
import { refusalResponse } from './request';
import type { Store } from './store';

/** The open database; the hooks let no request through to it while there is none. */
export function database(locals: { readonly store: Store }): Db {
  if (locals.store.state !== 'open') throw new Error('The database is not open.');
  return locals.store.db;
}

export const noSuchChart = (): Response =>
  refusalResponse({ status: 404, code: 'not_found', message: 'This chart is no longer here.' });

export const created = (id: string): Response => json({ id }, { status: 201 });
