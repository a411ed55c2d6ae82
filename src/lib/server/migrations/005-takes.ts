import type { Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('lick').addColumn('take_of', 'text').execute();
  await db.schema.alterTable('lick').addColumn('sound', 'integer').execute();
  await db.schema.createIndex('lick_take').on('lick').columns(['take_of', 'deleted_at']).execute();
}
