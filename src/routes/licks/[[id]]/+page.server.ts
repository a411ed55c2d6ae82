import { error } from '@sveltejs/kit';
import { findLick, listLicks } from '$lib/server/licks';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, locals }) => {
  const db = database(locals);
  const licks = await listLicks(db);
  const open = params.id === undefined ? (licks[0] ?? null) : await findLick(db, params.id);
  if (params.id !== undefined && open === null) error(404, 'This lick is no longer here.');
  return { licks, open, settings: await findSettings(db) };
};
