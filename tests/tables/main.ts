/** Writes what the manual and docs hold of the program's own tables and schemas. */
import { readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { documentSchema } from '$lib/formats/chartJson';
import { formatTable } from '$lib/formats/tables';
import { shortcutTable } from '$lib/frame/tables';

/** Puts a table between its two marks. */
function put(text: string, name: string, table: string): string {
  const [open, close] = [`<!-- ${name} -->`, `<!-- /${name} -->`];
  const from = text.indexOf(open);
  const to = text.indexOf(close);
  if (from < 0 || to < 0) throw new Error(`The manual has no place for “${name}”.`);
  return `${text.slice(0, from + open.length)}\n\n${table}\n\n${text.slice(to)}`;
}

const MANUAL = 'docs/manual.md';
writeFileSync(
  MANUAL,
  put(put(readFileSync(MANUAL, 'utf8'), 'keys', shortcutTable()), 'formats', formatTable()),
);
writeFileSync(
  'docs/corvel-chart.schema.json',
  `${JSON.stringify(z.toJSONSchema(documentSchema, { io: 'input' }), null, 2)}\n`,
);
