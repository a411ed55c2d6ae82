import { listCharts } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { sketchesOf } from '$lib/server/sketches';
import { nextLine } from '$lib/server/session';
import { findSettings } from '$lib/server/settings';
import { isAnyPractised } from '$lib/server/stints';
import type { PageServerLoad } from './$types';

/** Charts whose forms come with the page. */
const FIRST = 60;

export const load: PageServerLoad = async ({ locals }) => {
  const db = database(locals);
  const charts = await listCharts(db);
  const settings = await findSettings(db);
  return {
    charts,
    // Worked out meanwhile; whether its row is there is known at once, for what stands below it.
    next: (await isAnyPractised(db))
      ? nextLine(db, settings.settings, Date.now()).catch(() => null)
      : null,
    // Follow when they are ready: the Book does not wait for them.
    sketches: sketchesOf(db, charts.slice(0, FIRST)).catch(() => ({})),
    settings,
    limited: locals.store.state === 'open' ? locals.store.limited : null,
  };
};
