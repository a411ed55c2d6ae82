import { listStints } from '$lib/server/stints';
import { DRILL_KINDS } from '$core/drills/kinds';
import { NECK_LIMITS } from '$core/neck/neck';
import type { Wanted } from '$lib/drills/cards';
import { sitting } from '$lib/server/cards';
import { readZone } from '$lib/study/place';
import { practiceCharts } from '$lib/server/session';
import { findChart } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

const MONTH = 30 * 86_400_000;

/** What an address asks for: `?kind=`, `?chart=`, `?zone=5-8`; what it cannot mean it does not ask for. */
function wantedOf(asked: URLSearchParams): Wanted {
  const kind = DRILL_KINDS.find((one) => one === asked.get('kind'));
  const zone = readZone(asked);
  const fits = zone !== null && zone.low < zone.high && zone.high <= NECK_LIMITS.frets.high;
  return { kind, chart: asked.get('chart') ?? undefined, zone: fits ? zone : undefined };
}

export const load: PageServerLoad = async ({ locals, url }) => {
  const db = database(locals);
  const stored = await findSettings(db);
  const [charts, stints] = await Promise.all([
    practiceCharts(db, stored.settings),
    listStints(db, Date.now() - MONTH),
  ]);
  // What was practised of late is asked about first.
  const lately = (id: string) => stints.findIndex(({ chart }) => chart === id);
  const order = charts.toSorted((a, b) => (lately(a.id) >>> 0) - (lately(b.id) >>> 0));
  const wanted = wantedOf(url.searchParams);
  const cards = await sitting(db, order, Date.now(), wanted);
  const named = [...new Set(cards.flatMap(({ chart }) => chart ?? []))];
  const texts: Record<string, { readonly title: string; readonly text: string }> = {};
  for (const id of named) {
    const chart = await findChart(db, id);
    if (chart) texts[id] = { title: chart.title, text: chart.text };
  }
  return {
    cards,
    texts,
    settings: stored,
    wanted,
    charts: order.map(({ id, title, zones }) => ({ id, title, zones })),
  };
};
