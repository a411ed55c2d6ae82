import { listStints } from '$lib/server/stints';
import { sitting } from '$lib/server/cards';
import { practiceCharts } from '$lib/server/session';
import { findChart } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

const MONTH = 30 * 86_400_000;

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
  // A session may ask for the cards of one chart.
  const only = order.filter(({ id }) => id === url.searchParams.get('chart'));
  const cards = await sitting(db, only.length > 0 ? only : order, Date.now());
  const wanted = [...new Set(cards.flatMap(({ chart }) => chart ?? []))];
  const texts: Record<string, { readonly title: string; readonly text: string }> = {};
  for (const id of wanted) {
    const chart = await findChart(db, id);
    if (chart) texts[id] = { title: chart.title, text: chart.text };
  }
  return { cards, texts, settings: stored };
};
