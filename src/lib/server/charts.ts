/** Charts in the database. The text is the truth; title, key, tempo and bars are read from it. */
import { randomBytes } from 'node:crypto';
import type { Selectable } from 'kysely';
import { summariseChart, withTitle } from '$core/chart/summary';
import { commitTogether } from './commits';
import type { Db } from './database';
import type { ChartTable } from './schema';

export interface ChartSummary {
  readonly id: string;
  readonly title: string;
  readonly key: string | null;
  readonly tempo: number | null;
  readonly bars: number | null;
  readonly openedAt: string | null;
  readonly updatedAt: string;
}

export interface ChartDocument extends ChartSummary {
  readonly text: string;
  readonly plan: string;
  readonly revision: number;
}

export type SaveResult =
  | { readonly kind: 'saved'; readonly revision: number }
  /** Someone saved in between: here is what stands now. */
  | { readonly kind: 'conflict'; readonly current: ChartDocument }
  | { readonly kind: 'missing' };

type Row = Selectable<ChartTable>;

const summaryOf = (row: Omit<Row, 'text' | 'plan'>): ChartSummary => ({
  id: row.id,
  title: row.title,
  key: row.key,
  tempo: row.tempo,
  bars: row.bars,
  openedAt: row.opened_at,
  updatedAt: row.updated_at,
});

const documentOf = (row: Row): ChartDocument => ({
  ...summaryOf(row),
  text: row.text,
  plan: row.plan,
  revision: row.revision,
});

const newId = () => randomBytes(8).toString('base64url').replace(/[-_]/gu, 'x').toLowerCase();

const timestamp = () => new Date().toISOString();

/** All charts not deleted, last opened first. */
export async function listCharts(db: Db): Promise<readonly ChartSummary[]> {
  const rows = await db
    .selectFrom('chart')
    .select(['id', 'title', 'key', 'tempo', 'bars', 'revision', 'created_at', 'updated_at'])
    .select(['opened_at', 'deleted_at'])
    .where('deleted_at', 'is', null)
    .orderBy('opened_at', (order) => order.desc().nullsLast())
    .orderBy('title')
    .execute();
  return rows.map(summaryOf);
}

export async function findChart(db: Db, id: string): Promise<ChartDocument | null> {
  const row = await db
    .selectFrom('chart')
    .selectAll()
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  return row ? documentOf(row) : null;
}

export async function createChart(db: Db, text: string, plan = '{}'): Promise<string> {
  const id = newId();
  const now = timestamp();
  await db
    .insertInto('chart')
    .values({
      id,
      ...summariseChart(text),
      text,
      plan,
      created_at: now,
      updated_at: now,
      opened_at: null,
      deleted_at: null,
    })
    .execute();
  return id;
}

interface Edit {
  readonly revision: number;
  readonly text: string;
  readonly plan: string;
}

async function saveNow(db: Db, id: string, edit: Edit): Promise<SaveResult> {
  const saved = await db
    .updateTable('chart')
    .set({
      ...summariseChart(edit.text),
      text: edit.text,
      plan: edit.plan,
      revision: edit.revision + 1,
      updated_at: timestamp(),
    })
    .where('id', '=', id)
    .where('revision', '=', edit.revision)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (saved.numUpdatedRows > 0n) return { kind: 'saved', revision: edit.revision + 1 };
  const current = await findChart(db, id);
  return current ? { kind: 'conflict', current } : { kind: 'missing' };
}

/** Saves an edit made on `revision`; refuses, with what stands now, when that is stale. */
export const saveChart = (db: Db, id: string, edit: Edit): Promise<SaveResult> =>
  commitTogether(db, (transaction) => saveNow(transaction, id, edit));

export async function markOpened(db: Db, id: string): Promise<void> {
  await db.updateTable('chart').set({ opened_at: timestamp() }).where('id', '=', id).execute();
}

/** Renames through the text, where the title lives. */
export async function renameChart(db: Db, id: string, title: string): Promise<SaveResult> {
  const chart = await findChart(db, id);
  if (!chart) return { kind: 'missing' };
  const text = withTitle(chart.text, title);
  return saveChart(db, id, { revision: chart.revision, text, plan: chart.plan });
}

export async function duplicateChart(db: Db, id: string): Promise<string | null> {
  const chart = await findChart(db, id);
  if (!chart) return null;
  return createChart(db, withTitle(chart.text, `${chart.title} (copy)`), chart.plan);
}

const setDeleted = async (db: Db, id: string, deletedAt: string | null): Promise<boolean> => {
  const result = await db
    .updateTable('chart')
    .set({ deleted_at: deletedAt })
    .where('id', '=', id)
    .where('deleted_at', deletedAt === null ? 'is not' : 'is', null)
    .executeTakeFirst();
  return result.numUpdatedRows > 0n;
};

/** Hides a chart; {@link restoreChart} brings it back whole. */
export const deleteChart = (db: Db, id: string): Promise<boolean> =>
  setDeleted(db, id, timestamp());

export const restoreChart = (db: Db, id: string): Promise<boolean> => setDeleted(db, id, null);
