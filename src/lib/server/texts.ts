/**
 * Texts out of the database. The driver ends the whole process on a text that is not UTF-8, so every
 * text is asked for as bytes and decoded here.
 */
import { type RawBuilder, sql } from 'kysely';

/** A column's text as its bytes, under the column's name. */
export const bytesOf = (column: string): RawBuilder<ArrayBuffer | null> =>
  sql<ArrayBuffer | null>`cast(${sql.ref(column)} as blob)`;

export interface Decoded {
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
