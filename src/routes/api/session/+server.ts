import { json } from '@sveltejs/kit';
import { database } from '$lib/server/respond';
import { askedSession, practiceCharts } from '$lib/server/session';
import { findSettings } from '$lib/server/settings';
import { listStints } from '$lib/server/stints';
import type { RequestHandler } from './$types';

/** The session an address of the log asks for: its blocks, with the titles of their charts. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const db = database(locals);
  const { settings } = await findSettings(db);
  const [charts, stints] = await Promise.all([practiceCharts(db, settings), listStints(db)]);
  const { blocks } = askedSession(charts, stints, url.searchParams, Date.now());
  const title = new Map(charts.map((chart) => [chart.id, chart.title]));
  return json({
    blocks: blocks.map((block) => ({ ...block, title: title.get(block.chart) ?? '' })),
  });
};
