import type { Kysely } from 'kysely';
import { addColumn } from './columns';

export async function up(db: Kysely<unknown>): Promise<void> {
  await addColumn(db, 'lick', 'take_of', 'text');
  await addColumn(db, 'lick', 'sound', 'integer');
  await db.schema
    .createIndex('lick_take')
    .ifNotExists()
    .on('lick')
    .columns(['take_of', 'deleted_at'])
    .execute();
}
