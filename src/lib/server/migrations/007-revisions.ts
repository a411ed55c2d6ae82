import type { Kysely } from 'kysely';
import { addColumn } from './columns';

/** Stints are saved on a revision, as charts are; a card knows the answer it was given last. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await addColumn(db, 'stint', 'revision', 'integer', (column) => column.notNull().defaultTo(1));
  await addColumn(db, 'card', 'answer', 'text');
}
