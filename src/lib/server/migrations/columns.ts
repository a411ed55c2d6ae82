/** Columns a migration adds, unless a kill between a migration and its record left them there already. */
import { type ColumnDefinitionBuilder, type ColumnDataType, type Kysely, sql } from 'kysely';

async function hasColumn(db: Kysely<unknown>, table: string, name: string): Promise<boolean> {
  const { rows } = await sql<{ readonly name: string }>`
    select name from pragma_table_info(${table}) where name = ${name}
  `.execute(db);
  return rows.length > 0;
}

export async function addColumn(
  db: Kysely<unknown>,
  table: string,
  name: string,
  type: ColumnDataType,
  build: (column: ColumnDefinitionBuilder) => ColumnDefinitionBuilder = (column) => column,
): Promise<void> {
  if (await hasColumn(db, table, name)) return;
  await db.schema.alterTable(table).addColumn(name, type, build).execute();
}
