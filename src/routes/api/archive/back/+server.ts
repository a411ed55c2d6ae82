import { json } from '@sveltejs/kit';
import { changeSays } from '$lib/server/archive/take';
import { answerOf } from '$lib/server/desk/desk';
import type { Taken } from '$lib/server/desk/jobs';
import { refusalResponse } from '$lib/server/request';
import { database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** Takes back the archive that was taken in last. */
export const POST: RequestHandler = async ({ locals }) => {
  database(locals);
  const told = (await answerOf({ kind: 'back', now: new Date().toISOString() })) as Taken;
  if (told.kind === 'taken')
    return json({ changes: told.changes, sentence: changeSays(told.changes) });
  const message = told.kind === 'refused' ? told.message : 'Nothing was changed.';
  return refusalResponse({ status: 404, code: 'not_found', message });
};
