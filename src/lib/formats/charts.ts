/** Formats of charts: one row each. Readers and writers of scores come when they are first needed. */
import { chartBeats, readChart } from '$core/chart/form';
import { summariseChart, UNTITLED } from '$core/chart/summary';
import { refused } from '$core/formats/result';
import { STANDARD_NECK } from '$core/neck/neck';
import { EMPTY_PLAN, MELODY_LIMIT, readPlan, writePlan } from '$lib/study/plan';
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

/**
 * A chart as a score. With a melody its form is written out, bar by bar as it is played, since the
 * melody is; without one it keeps its repeats.
 */
async function asScore({ text, plan }: ChartContent): Promise<string | null> {
  const result = readChart(text);
  if (!result.ok) return null;
  const kept = readPlan(plan);
  if (kept.melody !== null && kept.melody.length > 0) {
    const { melodyPassage } = await import('$lib/study/melody');
    const { writePassage } = await import('$core/formats/passage/musicxml/write');
    return writePassage(melodyPassage(kept, result.chart)).content;
  }
  const { writeMusicXml } = await import('$core/formats/chart/musicxml/write');
  return writeMusicXml(result.chart.source);
}

async function readScore({ bytes }: OpenedFile): Promise<ChartOpened> {
  const { readMusicXmlFile } = await import('$core/formats/chart/musicxml/read');
  const result = readMusicXmlFile(bytes);
  if (!result.ok) return result;
  return {
    ok: true,
    chart: { ...result, plan: await planWithMelody(bytes, result.text), view: null },
  };
}

/** The notes of a score as its chart's melody; null where it has none, or they cannot be read. */
async function planWithMelody(bytes: Uint8Array, text: string): Promise<string | null> {
  const { openPassage } = await import('./passages');
  const read = await openPassage(bytes, STANDARD_NECK);
  const chart = readChart(text);
  if (!read.ok || !chart.ok) return null;
  const { notes } = read.passage;
  const end = chartBeats(chart.chart);
  // Notes of a form with repeats are counted otherwise than its bars are played.
  const fits = notes.every(({ beat }) => beat < end) && read.passage.beats >= end - 1e-6;
  if (notes.length === 0 || notes.length > MELODY_LIMIT || !fits) return null;
  const melody = notes.map(({ beat, beats, string, fret, techniques }) => ({
    ...{ beat, string, fret },
    beats: Math.max(1 / 48, beats),
    techniques: [...techniques],
  }));
  return writePlan({ ...EMPTY_PLAN, melody });
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
