import type { Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('lick')
    .ifNotExists()
    .addColumn('id', 'text', (column) => column.primaryKey())
    .addColumn('title', 'text', (column) => column.notNull())
    .addColumn('tags', 'text', (column) => column.notNull().defaultTo('[]'))
    .addColumn('source', 'text', (column) => column.notNull())
    .addColumn('chart', 'text', (column) => column.notNull())
    .addColumn('notes', 'text', (column) => column.notNull().defaultTo('[]'))
    .addColumn('revision', 'integer', (column) => column.notNull().defaultTo(1))
    .addColumn('created_at', 'text', (column) => column.notNull())
    .addColumn('updated_at', 'text', (column) => column.notNull())
    .addColumn('deleted_at', 'text')
    .execute();
  await db.schema
    .createIndex('lick_deleted')
    .ifNotExists()
    .on('lick')
    .column('deleted_at')
    .execute();
}
