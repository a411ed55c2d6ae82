import type { Kysely } from 'kysely';

export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('stint')
    .ifNotExists()
    .addColumn('id', 'text', (column) => column.primaryKey())
    .addColumn('at', 'text', (column) => column.notNull())
    .addColumn('time', 'integer', (column) => column.notNull())
    .addColumn('chart', 'text', (column) => column.notNull())
    .addColumn('exercise', 'text', (column) => column.notNull())
    .addColumn('low', 'integer', (column) => column.notNull())
    .addColumn('high', 'integer', (column) => column.notNull())
    .addColumn('extent', 'text', (column) => column.notNull())
    .addColumn('tempo_from', 'real', (column) => column.notNull())
    .addColumn('tempo', 'real', (column) => column.notNull())
    .addColumn('minutes', 'real', (column) => column.notNull())
    .addColumn('asked', 'integer')
    .addColumn('landed', 'integer')
    .addColumn('note', 'text', (column) => column.notNull().defaultTo(''))
    .addColumn('deleted_at', 'text')
    .execute();
  await db.schema
    .createIndex('stint_time')
    .ifNotExists()
    .on('stint')
    .columns(['deleted_at', 'time'])
    .execute();
  await db.schema
    .createIndex('stint_chart')
    .ifNotExists()
    .on('stint')
    .columns(['chart', 'time'])
    .execute();
  await db.schema
    .createTable('card')
    .ifNotExists()
    .addColumn('id', 'text', (column) => column.primaryKey())
    .addColumn('state', 'text', (column) => column.notNull())
    .addColumn('due', 'integer', (column) => column.notNull())
    .addColumn('seen', 'integer', (column) => column.notNull())
    .execute();
  await db.schema.createIndex('card_due').ifNotExists().on('card').column('due').execute();
}
