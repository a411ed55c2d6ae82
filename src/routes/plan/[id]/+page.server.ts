import { error } from '@sveltejs/kit';
import { findChart, markOpened } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, locals }) => {
  const db = database(locals);
  const chart = await findChart(db, params.id);
  if (!chart) error(404, 'This chart is not in the Book; it may have been deleted.');
  await markOpened(db, chart.id);
  return { chart, settings: await findSettings(db) };
};
