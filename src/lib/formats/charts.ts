/** Formats of charts: one row each. Readers and writers of scores come when they are first needed. */
import { readChart } from '$core/chart/form';
import { summariseChart, UNTITLED } from '$core/chart/summary';
import { refused } from '$core/formats/result';
import {
  type ChartContent,
  type ChartOpened,
  type OpenedChart,
  readDocument,
  writeDocument,
} from './chartJson';
import {
  FILE_LIMIT,
  fileName,
  fileOf,
  isJson,
  isXml,
  isZip,
  type OpenedFile,
  takeUp,
} from './files';

export type { ChartOpened, OpenedChart };

interface ChartFormatRow {
  readonly name: string;
  readonly extension: string;
  readonly opens: readonly string[];
  readonly type: string;
  readonly recognises: (file: OpenedFile) => boolean;
  readonly read: (file: OpenedFile) => ChartOpened | Promise<ChartOpened>;
  /** Null while the chart's text cannot be written so. */
  readonly write: (
    chart: ChartContent,
  ) => string | Uint8Array | null | Promise<string | Uint8Array | null>;
}

async function asScore({ text }: ChartContent): Promise<string | null> {
  const result = readChart(text);
  if (!result.ok) return null;
  const { writeMusicXml } = await import('$core/formats/chart/musicxml/write');
  return writeMusicXml(result.chart.source);
}

async function readScore({ bytes }: OpenedFile): Promise<ChartOpened> {
  const { readMusicXmlFile } = await import('$core/formats/chart/musicxml/read');
  const result = readMusicXmlFile(bytes);
  return result.ok ? { ok: true, chart: { ...result, plan: null, view: null } } : result;
}

/** Text that cannot be read yet is kept as it is. */
function readText({ text }: OpenedFile): ChartOpened {
  if (text.trim() === '') return refused('There is nothing in it.');
  if (/\p{Cc}/u.test(text.replace(/[\n\r\t]/gu, ''))) {
    return refused('This is neither chart text nor MusicXML.');
  }
  const read = readChart(text);
  const problem = read.ok ? undefined : read.problems[0];
  const remarks = problem
    ? [
        `Line ${problem.line}, column ${problem.column}: ${problem.message} The text is kept as it is.`,
      ]
    : [];
  return { ok: true, chart: { text, plan: null, view: null, remarks } };
}

const ROWS = {
  json: {
    name: 'JSON with the plan',
    extension: 'json',
    opens: ['json'],
    type: 'application/json',
    recognises: isJson,
    read: ({ text }) => readDocument(text),
    write: writeDocument,
  },
  musicxml: {
    name: 'MusicXML',
    extension: 'musicxml',
    opens: ['musicxml', 'xml'],
    type: 'application/vnd.recordare.musicxml+xml',
    recognises: isXml,
    read: readScore,
    write: asScore,
  },
  compressed: {
    name: 'MusicXML, compressed',
    extension: 'mxl',
    opens: ['mxl'],
    type: 'application/vnd.recordare.musicxml',
    recognises: isZip,
    read: readScore,
    write: async (chart) => {
      const xml = await asScore(chart);
      if (xml === null) return null;
      const { compressMusicXml } = await import('$core/formats/musicxml/compressed');
      return compressMusicXml(xml);
    },
  },
  text: {
    name: 'Chart text',
    extension: 'txt',
    opens: ['txt'],
    type: 'text/plain',
    recognises: () => true,
    read: readText,
    write: ({ text }) => text,
  },
} as const satisfies Readonly<Record<string, ChartFormatRow>>;

export type ChartFormat = keyof typeof ROWS;

export const CHART_FORMAT_ROWS: readonly ChartFormatRow[] = Object.values(ROWS);

export const OPENED_TYPES = Object.values(ROWS)
  .flatMap(({ opens }) => opens.map((extension) => `.${extension}`))
  .concat('text/plain')
  .join(',');

/** The chart in pasted or opened bytes. */
export async function openChart(bytes: Uint8Array): Promise<ChartOpened> {
  if (bytes.length > FILE_LIMIT) return refused('This file is too large for a chart.');
  const file = takeUp(bytes);
  const row = Object.values(ROWS).find(({ recognises }) => recognises(file)) ?? ROWS.text;
  return row.read(file);
}

export const chartFileName = (text: string, extension: string): string =>
  fileName(summariseChart(text).title, extension, UNTITLED);

/** The chart as a file; null while its text cannot be read as a score. */
export async function chartFile(chart: ChartContent, format: ChartFormat): Promise<File | null> {
  const { write, extension, type } = ROWS[format];
  const content = await write(chart);
  return content === null ? null : fileOf(content, chartFileName(chart.text, extension), type);
}
