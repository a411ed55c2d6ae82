/** Demo charts of our own invention, one for each kind of harmony Corvel reads. */
import { createChart } from '../charts';
import type { Db } from '../database';

const FILES: Readonly<Record<string, string>> = import.meta.glob('./*.txt', {
  query: '?raw',
  import: 'default',
  eager: true,
});

export const DEMO_CHARTS: readonly string[] = Object.values(FILES);

/** Adds the demo charts to a database that has never held a chart. */
export async function seedDemo(db: Db): Promise<void> {
  const { count } = await db
    .selectFrom('chart')
    .select((eb) => eb.fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  if (count > 0) return;
  await addDemoCharts(db);
}

export async function addDemoCharts(db: Db): Promise<readonly string[]> {
  const ids: string[] = [];
  for (const text of DEMO_CHARTS) ids.push(await createChart(db, text));
  return ids;
}
