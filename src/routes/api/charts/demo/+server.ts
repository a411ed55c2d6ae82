import { json } from '@sveltejs/kit';
import { addDemoCharts } from '$lib/server/demo';
import { database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ locals }) =>
  json({ ids: await addDemoCharts(database(locals)) }, { status: 201 });
