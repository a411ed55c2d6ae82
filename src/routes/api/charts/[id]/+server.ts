import { json } from '@sveltejs/kit';
import { renameRequest, saveRequest } from '$lib/study/messages';
import {
  deleteChart,
  findChart,
  renameChart,
  saveChart,
  type SaveResult,
} from '$lib/server/charts';
import { readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchChart } from '$lib/server/respond';
import type { RequestHandler } from './$types';

function respond(result: SaveResult): Response {
  if (result.kind === 'missing') return noSuchChart();
  if (result.kind === 'saved') return json({ revision: result.revision });
  const { text, plan, revision } = result.current;
  const message = 'This chart was changed elsewhere since it was opened here.';
  return json(
    { error: { code: 'conflict', message }, current: { text, plan, revision } },
    { status: 409 },
  );
}

export const GET: RequestHandler = async ({ params, locals }) => {
  const chart = await findChart(database(locals), params.id);
  return chart ? json(chart) : noSuchChart();
};

export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, saveRequest);
  if (!body.ok) return refusalResponse(body.refusal);
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
