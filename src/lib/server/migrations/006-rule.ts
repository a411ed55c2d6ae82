import type { Kysely } from 'kysely';
import { addColumn } from './columns';

/** What was counted until now was judged by other rules of landing; its notes were not kept. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await addColumn(db, 'stint', 'earlier_rule', 'integer', (column) =>
    column.notNull().defaultTo(0),
  );
  await (db as Kysely<{ stint: { asked: number | null; exercise: string; earlier_rule: number } }>)
    .updateTable('stint')
    .set({ earlier_rule: 1 })
    .where('asked', 'is not', null)
    // Cards are right or wrong.
    .where('exercise', '!=', 'drills')
    .execute();
}
