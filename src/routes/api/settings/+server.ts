import { json } from '@sveltejs/kit';
import { readBody, refusalResponse } from '$lib/server/request';
import { database, saved } from '$lib/server/respond';
import { findSettings, saveSettings } from '$lib/server/settings';
import { settingsRequest, type StoredSettings } from '$lib/settings/settings';
import type { RequestHandler } from './$types';

const flat = ({ settings, revision }: StoredSettings) => ({ ...settings, revision });

export const GET: RequestHandler = async ({ locals }) =>
  json(flat(await findSettings(database(locals))));

export const PUT: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, settingsRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const { revision, ...settings } = body.value;
  const result = await saveSettings(database(locals), settings, revision);
  const told = result.kind === 'conflict' ? { ...result, current: flat(result.current) } : result;
  return saved(told, () => new Response(null, { status: 404 }), 'The settings were');
};
