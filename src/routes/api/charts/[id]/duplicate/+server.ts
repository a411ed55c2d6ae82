import { duplicateChart } from '$lib/server/charts';
import { created, database, noSuchChart } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ params, locals }) => {
  const id = await duplicateChart(database(locals), params.id);
  return id === null ? noSuchChart() : created(id);
};
