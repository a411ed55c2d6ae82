import { error } from '@sveltejs/kit';
import { findLick, listTitles } from '$lib/server/licks';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, locals }) => {
  const db = database(locals);
  const licks = await listTitles(db);
  const id = params.id ?? licks[0]?.id;
  const open = id === undefined ? null : await findLick(db, id);
  if (params.id !== undefined && open === null) error(404, 'This lick is no longer here.');
  return { licks, open, settings: await findSettings(db) };
};
