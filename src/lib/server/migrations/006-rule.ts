import type { Kysely } from 'kysely';

/** What was counted until now was judged by other rules of landing; its notes were not kept. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('stint')
    .addColumn('earlier_rule', 'integer', (column) => column.notNull().defaultTo(0))
    .execute();
  await (db as Kysely<{ stint: { asked: number | null; exercise: string; earlier_rule: number } }>)
    .updateTable('stint')
    .set({ earlier_rule: 1 })
    .where('asked', 'is not', null)
    // Cards are right or wrong.
    .where('exercise', '!=', 'drills')
    .execute();
}
