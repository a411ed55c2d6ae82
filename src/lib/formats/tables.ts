/** The manual's table of formats, made from the registries. */
import { CHART_FORMAT_ROWS } from './charts';
import { PASSAGE_FORMAT_ROWS } from './passages';

interface Row {
  readonly name: string;
  readonly extension: string;
  readonly opens: readonly string[];
  readonly write?: unknown;
}

const endings = (extensions: readonly string[]): string =>
  extensions.length === 0 ? '–' : extensions.map((one) => `\`.${one}\``).join(' ');

const rowFor =
  (what: string) =>
  ({ name, extension, opens, write }: Row): string =>
    `| ${what} | ${name} | ${endings(opens)} | ${write === null ? '–' : `\`.${extension}\``} |`;

export const formatTable = (): string =>
  [
    '| what | format | opened from | saved as |',
    '|---|---|---|---|',
    ...CHART_FORMAT_ROWS.map(rowFor('a chart')),
    ...PASSAGE_FORMAT_ROWS.map(rowFor('a sheet, line or melody')),
  ].join('\n');
