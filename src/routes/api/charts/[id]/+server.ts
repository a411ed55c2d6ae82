import { json } from '@sveltejs/kit';
import { type ChartDocument, renameRequest, saveRequest } from '$lib/study/messages';
import {
  deleteChart,
  findChart,
  renameChart,
  saveChart,
  type SaveResult,
} from '$lib/server/charts';
import { isNewId, readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchChart, saved } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** What of a chart a page compares with its own. */
const shown = ({ text, plan, revision }: ChartDocument) => ({ text, plan, revision });

const respond = (result: SaveResult): Response =>
  saved(
    result.kind === 'conflict' ? { ...result, current: shown(result.current) } : result,
    noSuchChart,
    'This chart was',
  );

export const GET: RequestHandler = async ({ params, locals }) => {
  const chart = await findChart(database(locals), params.id);
  return chart ? json(chart) : noSuchChart();
};

/** Saves a chart on a revision; on 0 it is made, under an id of the page's own. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, saveRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  if (body.value.revision === 0 && !isNewId(params.id)) return noSuchChart();
  return respond(await saveChart(database(locals), params.id, body.value));
};

export const PATCH: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, renameRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  return respond(await renameChart(database(locals), params.id, body.value.title));
};

export const DELETE: RequestHandler = async ({ params, locals }) =>
  (await deleteChart(database(locals), params.id))
    ? new Response(null, { status: 204 })
    : noSuchChart();
