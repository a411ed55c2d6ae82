import { listCharts } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({
  charts: await listCharts(database(locals)),
  settings: await findSettings(database(locals)),
  limited: locals.store.state === 'open' ? locals.store.limited : null,
});
