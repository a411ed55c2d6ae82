import type { Kysely } from 'kysely';
import { addColumn } from './columns';
import { viewInPlan } from '$lib/study/view';

interface Before {
  readonly chart: { readonly id: string; readonly plan: string; readonly view: string };
}

/** How a chart is looked at leaves its plan; the plan itself is read anew when it is next saved. */
export async function up(db: Kysely<Before>): Promise<void> {
  await addColumn(db as Kysely<unknown>, 'chart', 'view', 'text', (column) =>
    column.notNull().defaultTo('{}'),
  );
  for (const { id, plan } of await db.selectFrom('chart').select(['id', 'plan']).execute()) {
    const view = viewOf(plan);
    await db
      .updateTable('chart')
      .set({ view: JSON.stringify(view) })
      .where('id', '=', id)
      .execute();
  }
}

function viewOf(plan: string): Record<string, unknown> {
  try {
    return viewInPlan(JSON.parse(plan));
  } catch {
    return {};
  }
}
