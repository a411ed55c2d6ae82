/** Charts in the database. The text is the truth; title, key, tempo and bars are read from it. */
import { randomBytes } from 'node:crypto';
import { sql, type Updateable } from 'kysely';
import { summariseChart, withTitle } from '$core/chart/summary';
import type { ChartDocument, ChartSummary } from '$lib/study/messages';
import type { View } from '$lib/study/view';
import { commitTogether, outcomeOf, type Saved } from './commits';
import type { Db } from './database';
import type { ChartTable } from './schema';
import { bytesOf, decode } from './texts';

export type SaveResult = Saved<ChartDocument>;

const SUMMARY_TEXTS = ['id', 'title', 'key', 'created_at', 'updated_at', 'opened_at'] as const;
const DOCUMENT_TEXTS = [...SUMMARY_TEXTS, 'text', 'plan', 'view'] as const;

type TextColumn = (typeof DOCUMENT_TEXTS)[number];
type Row<C extends TextColumn> = Readonly<Record<C, ArrayBuffer | null>> & {
  readonly tempo: number | null;
  readonly bars: number | null;
  readonly revision: number;
};

/** Texts as bytes and numbers as numbers, whatever damage has made of them. */
const rowsOf = <C extends TextColumn>(db: Db, columns: readonly C[]) =>
  db
    .selectFrom('chart')
    .select(columns.map((column) => bytesOf(column).as(column)))
    .select([
      sql<number | null>`cast(tempo as real)`.as('tempo'),
      sql<number | null>`cast(bars as integer)`.as('bars'),
      sql<number>`coalesce(cast(revision as integer), 1)`.as('revision'),
    ])
    .where('deleted_at', 'is', null)
    .$castTo<Row<C>>();

/** Reads the texts of a row, and knows afterwards whether any had lost bytes. */
function reader(row: Row<never> & Partial<Row<TextColumn>>) {
  let damaged = false;
  return {
    text(column: TextColumn): string | null {
      const decoded = decode(row[column] ?? null);
      damaged ||= decoded?.damaged ?? false;
      return decoded?.text ?? null;
    },
    damaged: () => damaged,
  };
}

function summaryOf(row: Row<(typeof SUMMARY_TEXTS)[number]>): ChartSummary {
  const { text, damaged } = reader(row);
  const summary = {
    id: text('id') ?? '',
    title: text('title') ?? 'Untitled',
    key: text('key'),
    tempo: row.tempo,
    bars: row.bars,
    openedAt: text('opened_at'),
    updatedAt: text('updated_at') ?? '',
  };
  return { ...summary, damaged: damaged() };
}

function documentOf(row: Row<TextColumn>): ChartDocument {
  const summary = summaryOf(row);
  const { text, damaged } = reader(row);
  const kept = { text: text('text') ?? '', plan: text('plan') ?? '{}', view: text('view') ?? '{}' };
  return { ...summary, ...kept, revision: row.revision, damaged: summary.damaged || damaged() };
}

export const newId = () =>
  randomBytes(8).toString('base64url').replace(/[-_]/gu, 'x').toLowerCase();

export const timestamp = () => new Date().toISOString();

/** When a chart was last worked on: opened, or edited after it was made. */
const WORKED_ON = sql`max(coalesce(opened_at, ''), iif(revision > 1, updated_at, ''))`;

/** All charts not deleted; what was worked on last stands first. */
export async function listCharts(db: Db): Promise<readonly ChartSummary[]> {
  const rows = await rowsOf(db, SUMMARY_TEXTS)
    .orderBy(WORKED_ON, 'desc')
    .orderBy('title')
    .execute();
  return rows.map(summaryOf);
}

/** Some of them, by their ids. */
export async function summariesOf(
  db: Db,
  ids: readonly string[],
): Promise<readonly ChartSummary[]> {
  const rows = await rowsOf(db, SUMMARY_TEXTS).where('id', 'in', ids).execute();
  return rows.map(summaryOf);
}

export async function findChart(db: Db, id: string): Promise<ChartDocument | null> {
  const row = await rowsOf(db, DOCUMENT_TEXTS).where('id', '=', id).executeTakeFirst();
  return row ? documentOf(row) : null;
}

export async function createChart(db: Db, text: string, plan = '{}', view = '{}'): Promise<string> {
  const id = newId();
  await commitTogether(db, (transaction) => insertChart(transaction, { id, text, plan, view }));
  return id;
}

interface NewChart {
  readonly id: string;
  readonly text: string;
  readonly plan: string;
  readonly view: string;
}

/** Makes a chart; whether that was done, which it is not where its id is taken. */
async function insertChart(db: Db, { id, text, plan, view }: NewChart): Promise<boolean> {
  const now = timestamp();
  const made = await db
    .insertInto('chart')
    .values({
      id,
      ...summariseChart(text),
      text,
      plan,
      view,
      created_at: now,
      updated_at: now,
      opened_at: null,
      deleted_at: null,
    })
    .onConflict((conflict) => conflict.doNothing())
    .executeTakeFirst();
  return (made.numInsertedOrUpdatedRows ?? 0n) > 0n;
}

interface Edit {
  readonly revision: number;
  readonly text: string;
  readonly plan: string;
}

async function update(db: Db, id: string, edit: Edit): Promise<boolean> {
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
  return saved.numUpdatedRows > 0n;
}

async function saveNow(db: Db, id: string, edit: Edit): Promise<SaveResult> {
  const { revision, text, plan } = edit;
  const saved = await (revision === 0
    ? insertChart(db, { id, text, plan, view: '{}' })
    : update(db, id, edit));
  return outcomeOf(saved, {
    revision,
    find: () => findChart(db, id),
    same: (current) => revision === 0 && current.text === text && current.plan === plan,
  });
}

/**
 * Saves an edit made on `revision`, where 0 makes the chart; refuses, with what stands now, when that is
 * stale.
 */
export const saveChart = (db: Db, id: string, edit: Edit): Promise<SaveResult> =>
  commitTogether(db, (transaction) => saveNow(transaction, id, edit));

type Change = Partial<Pick<Updateable<ChartTable>, 'opened_at' | 'deleted_at' | 'view'>>;

/** Changes what is no edit: the revision stays. */
async function changeNow(db: Db, id: string, set: Change, deleted = false): Promise<boolean> {
  const result = await db
    .updateTable('chart')
    .set(set)
    .where('id', '=', id)
    .where('deleted_at', deleted ? 'is not' : 'is', null)
    .executeTakeFirst();
  return result.numUpdatedRows > 0n;
}

const change = (db: Db, id: string, set: Change): Promise<boolean> =>
  commitTogether(db, (transaction) => changeNow(transaction, id, set));

export const markOpened = (db: Db, id: string): Promise<boolean> =>
  change(db, id, { opened_at: timestamp() });

/** Keeps how a chart is looked at; the last look wins. */
export const saveView = (db: Db, id: string, view: View): Promise<boolean> =>
  change(db, id, { view: JSON.stringify(view) });

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
  return createChart(db, withTitle(chart.text, `${chart.title} (copy)`), chart.plan, chart.view);
}

/** Hides a chart with its takes; {@link restoreChart} brings them back whole. */
export const deleteChart = (db: Db, id: string): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const now = timestamp();
    if (!(await changeNow(transaction, id, { deleted_at: now }))) return false;
    await transaction
      .updateTable('lick')
      .set({ deleted_at: now })
      .where('take_of', '=', id)
      .where('deleted_at', 'is', null)
      .execute();
    return true;
  });

/** Brings a chart back with the takes that went with it; what was deleted before it stays so. */
export const restoreChart = (db: Db, id: string): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const went = transaction.selectFrom('chart').select('deleted_at').where('id', '=', id);
    await transaction
      .updateTable('lick')
      .set({ deleted_at: null })
      .where('take_of', '=', id)
      .where('deleted_at', '=', went)
      .execute();
    return changeNow(transaction, id, { deleted_at: null }, true);
  });
