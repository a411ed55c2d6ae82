/** Demo charts of our own invention, one for each kind of harmony Corvel reads. */
import type { Style } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { planInStyle } from '$lib/study/styles';
import { writePlan } from '$lib/study/plan';
import { createChart } from '../charts';
import type { Db } from '../database';
import { addStints } from '../stints';
import { demoStints } from './stints';

const FILES: Readonly<Record<string, string>> = import.meta.glob('./*.txt', {
  query: '?raw',
  import: 'default',
  eager: true,
});

export const DEMO_CHARTS: readonly string[] = Object.values(FILES);

/** The chart the demo's player has been practising. */
const PRACTISED = 'title: Ferry at Half Past';

/** The style in which each demo chart is planned, so that between them they show all. */
const STYLES: Readonly<Record<string, Style>> = {
  'Ferry at Half Past': 'chains',
  'Four Corner Kite': 'chord-tones',
  'Gravel Road Receipt': 'blues',
  'Locksmith Waltz': 'modes',
  'Paper Lantern Parade': 'own-pentatonics',
  'Slow Tide Counting': 'one-scale',
};

/** The plan a demo chart comes with. */
function demoPlan(text: string): string {
  const result = readChart(text);
  if (!result.ok) return '{}';
  const style = STYLES[result.chart.source.title] ?? 'own-pentatonics';
  return writePlan(planInStyle(result.chart, readHarmony(result.chart), style));
}

/** Adds the demo charts to a database that has never held a chart. */
export async function seedDemo(db: Db): Promise<void> {
  const { count } = await db
    .selectFrom('chart')
    .select((eb) => eb.fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  if (count > 0) return;
  const ids = await addDemoCharts(db);
  const place = DEMO_CHARTS.findIndex((text) => text.includes(PRACTISED));
  const [id, text] = [ids[place], DEMO_CHARTS[place]];
  if (id && text) await addStints(db, demoStints(id, text, Date.now()));
}

export async function addDemoCharts(db: Db): Promise<readonly string[]> {
  const ids: string[] = [];
  for (const text of DEMO_CHARTS) {
    ids.push(await createChart(db, text, demoPlan(text)));
  }
  return ids;
}
