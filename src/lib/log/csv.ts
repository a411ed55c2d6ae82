/** The log as comma-separated values (RFC 4180), out and in: a row for each stint. */
import Papa from 'papaparse';
import { safeParse } from 'zod/mini';
import { type StintContent, stintSchema, type StoredStint } from './messages';

const FIELDS = [
  ...['at', 'chart', 'exercise', 'low', 'high', 'extent', 'tempoFrom', 'tempo', 'minutes'],
  ...['asked', 'landed', 'note', 'earlierRule'],
];
const NUMBERS: ReadonlySet<string> = new Set([
  ...['low', 'high', 'tempoFrom', 'tempo', 'minutes', 'asked', 'landed'],
]);

/**
 * What a sheet reads as a formula, or would be taken for one that was made text; the library's own pattern
 * stops at a line's end.
 */
const FORMULA = /^'*[=+\-@\t\r]/u;

/** The log as text; what a sheet would take for a formula is made text. */
export const stintsAsCsv = (stints: readonly StoredStint[]): string =>
  Papa.unparse(
    {
      fields: [...FIELDS],
      data: stints.map(({ zone, ...stint }) => ({ ...stint, ...zone })),
    },
    { escapeFormulae: FORMULA, newline: '\r\n' },
  );

type CsvRead =
  | { readonly ok: true; readonly stints: readonly StintContent[] }
  | { readonly ok: false; readonly message: string };

/** What a cell holds: a number, nothing, or text as it was before it was kept from being a formula. */
function valueOf(field: string, text: string): string | number | boolean | null | undefined {
  if (field === 'earlierRule') return text.trim().toLowerCase() === 'true' ? true : undefined;
  if (NUMBERS.has(field)) return text.trim() === '' ? null : Number(text);
  if (text === '') return undefined;
  return text.replace(/^'(?='*[=+\-@\t\r])/u, '');
}

/** Reads a log, or says which row cannot be read. */
export function readCsv(text: string): CsvRead {
  const { data, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: 'greedy',
  });
  const missing = ['at', 'chart', 'exercise', 'low', 'high', 'tempo', 'minutes'].filter(
    (field) => !meta.fields?.includes(field),
  );
  if (missing.length > 0)
    return { ok: false, message: `This is no log: it has no column “${missing[0]}”.` };
  const stints: StintContent[] = [];
  for (const [place, row] of data.entries()) {
    const cells = Object.fromEntries(
      FIELDS.map((field) => [field, valueOf(field, row[field] ?? '')]),
    );
    const { low, high, tempoFrom, ...rest } = cells;
    const read = safeParse(stintSchema, {
      ...rest,
      zone: { low, high },
      tempoFrom: tempoFrom ?? rest['tempo'],
    });
    if (!read.success) {
      const where = read.error.issues[0]?.path.at(-1) ?? 'something';
      // The row of the names is the first.
      return { ok: false, message: `Row ${place + 2}: “${String(where)}” cannot be read.` };
    }
    stints.push(read.data);
  }
  return { ok: true, stints };
}
