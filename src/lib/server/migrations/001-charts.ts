import type { Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('chart')
    .ifNotExists()
    .addColumn('id', 'text', (column) => column.primaryKey())
    .addColumn('title', 'text', (column) => column.notNull())
    .addColumn('text', 'text', (column) => column.notNull())
    .addColumn('plan', 'text', (column) => column.notNull().defaultTo('{}'))
    .addColumn('key', 'text')
    .addColumn('tempo', 'real')
    .addColumn('bars', 'integer')
    .addColumn('revision', 'integer', (column) => column.notNull().defaultTo(1))
    .addColumn('created_at', 'text', (column) => column.notNull())
    .addColumn('updated_at', 'text', (column) => column.notNull())
    .addColumn('opened_at', 'text')
    .addColumn('deleted_at', 'text')
    .execute();
  await db.schema
    .createIndex('chart_deleted')
    .ifNotExists()
    .on('chart')
    .column('deleted_at')
    .execute();
  await db.schema
    .createTable('setting')
    .ifNotExists()
    .addColumn('name', 'text', (column) => column.primaryKey())
    .addColumn('value', 'text', (column) => column.notNull())
    .addColumn('revision', 'integer', (column) => column.notNull().defaultTo(1))
    .execute();
}
