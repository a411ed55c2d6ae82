import { json } from '@sveltejs/kit';
import { summariesOf } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { sketchesOf } from '$lib/server/sketches';
import type { RequestHandler } from './$types';

const MOST = 100;

/** The forms of charts, `?ids=` theirs, at most a hundred. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const db = database(locals);
  const ids = (url.searchParams.get('ids') ?? '').split(',').slice(0, MOST);
  return json(await sketchesOf(db, await summariesOf(db, ids)));
};
