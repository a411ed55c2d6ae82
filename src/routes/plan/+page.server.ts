import { redirect } from '@sveltejs/kit';
import { listCharts } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import type { PageServerLoad } from './$types';

/** Plan alone goes on with the chart opened last. */
export const load: PageServerLoad = async ({ locals }) => {
  const [last] = await listCharts(database(locals));
  redirect(303, last ? `/plan/${last.id}` : '/?from=plan');
};
