import { json } from '@sveltejs/kit';
import { readBody, refusalResponse } from '$lib/server/request';
import { database } from '$lib/server/respond';
import { findSettings, saveSettings } from '$lib/server/settings';
import { settingsRequest } from '$lib/settings/settings';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals }) => json(await findSettings(database(locals)));

export const PUT: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, settingsRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const { settings, revision } = body.value;
  const saved = await saveSettings(database(locals), settings, revision);
  if (saved !== null) return json({ revision: saved });
  const message = 'The settings were changed elsewhere since they were opened here.';
  const current = await findSettings(database(locals));
  return json({ error: { code: 'conflict', message }, current }, { status: 409 });
};
