/**
 * Texts out of the database. The driver ends the whole process on a text that is not UTF-8, so every
 * text is asked for as bytes and decoded here.
 */
import { type Kysely, type RawBuilder, sql } from 'kysely';
import type { Tables } from './schema';

/** A column's text as its bytes, under the column's name. */
export const bytesOf = (column: string): RawBuilder<ArrayBuffer | null> =>
  sql<ArrayBuffer | null>`cast(${sql.ref(column)} as blob)`;

interface Decoded {
  readonly text: string;
  /** Whether bytes were lost: each shows as U+FFFD. */
  readonly damaged: boolean;
}

const strict = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
const lenient = new TextDecoder('utf-8', { ignoreBOM: true });

export function decode(bytes: ArrayBuffer | null): Decoded | null {
  if (bytes === null) return null;
  try {
    return { text: strict.decode(bytes), damaged: false };
  } catch {
    return { text: lenient.decode(bytes), damaged: true };
  }
}

/** How a column is asked for: what is no text of UTF-8 ends the driver, wherever damage has put it. */
export const readAs = (name: string, type: string): string =>
  `cast("${name}" as ${type.toLowerCase() === 'text' ? 'blob' : type}) as "${name}"`;

interface ColumnRow {
  readonly name: string;
  readonly type: string;
}

/**
 * Whole rows of a table with every text decoded, whatever damage has put where: texts are asked for as
 * bytes, numbers as numbers. `where` and `order` are SQL.
 */
export async function readRows(
  db: Kysely<Tables>,
  table: keyof Tables,
  where: RawBuilder<unknown> = sql`1`,
  order: RawBuilder<unknown> = sql`rowid`,
): Promise<readonly Readonly<Record<string, string | number | null>>[]> {
  const { rows: columns } = await sql<ColumnRow>`
    select name, type from pragma_table_info(${table})
  `.execute(db);
  const list = columns.map(({ name, type }) => sql.raw(readAs(name, type)));
  const { rows } = await sql<Record<string, ArrayBuffer | number | null>>`
    select ${sql.join(list)} from ${sql.table(table)} where ${where} order by ${order}
  `.execute(db);
  return rows.map((row) =>
    Object.fromEntries(
      Object.entries(row).map(([name, value]) => [
        name,
        typeof value === 'number' || value === null ? value : (decode(value)?.text ?? null),
      ]),
    ),
  );
}
