/** Charts as files: what is offered for download, and what an opened file holds. */
import { readChart } from '$core/chart/form';
import { UNTITLED, summariseChart } from '$core/chart/summary';
import { readDocument, writeDocument } from './json';

export type FileKind = 'text' | 'json' | 'musicxml' | 'compressed';

export interface OpenedChart {
  readonly text: string;
  /** The plan that came with it, as JSON; null where the file holds none. */
  readonly plan: string | null;
  /** What the chart could not take over, in sentences. */
  readonly remarks: readonly string[];
}

export type Opened =
  | { readonly ok: true; readonly chart: OpenedChart }
  | { readonly ok: false; readonly message: string };

export const OPENED_TYPES = '.txt,.json,.musicxml,.xml,.mxl,text/plain';
/** Largest file taken, in bytes. */
export const FILE_LIMIT = 8_000_000;

const isJson = (text: string): boolean => /^\uFEFF?\s*\{/u.test(text);
const isXml = (text: string): boolean => /^\uFEFF?\s*</u.test(text);

/** The chart in pasted or opened bytes. Text that cannot be read yet is kept as it is. */
export async function openChart(bytes: Uint8Array): Promise<Opened> {
  if (bytes.length > FILE_LIMIT)
    return { ok: false, message: 'This file is too large for a chart.' };
  // Large and seldom needed: the reader of scores comes when a file is opened.
  const { decodeText, isCompressed, readMusicXmlFile } =
    await import('$core/formats/musicxml/compressed');
  const text = isCompressed(bytes) ? '' : decodeText(bytes);
  if (isCompressed(bytes) || isXml(text)) {
    const result = readMusicXmlFile(bytes);
    return result.ok ? { ok: true, chart: { ...result, plan: null } } : result;
  }
  if (isJson(text)) return readDocument(text);
  if (text.trim() === '') return { ok: false, message: 'There is nothing in it.' };
  if (/\p{Cc}/u.test(text.replace(/[\n\r\t]/gu, ''))) {
    return { ok: false, message: 'This is neither chart text nor MusicXML.' };
  }
  const read = readChart(text);
  const problem = read.ok ? undefined : read.problems[0];
  const remarks = problem
    ? [
        `Line ${problem.line}, column ${problem.column}: ${problem.message} The text is kept as it is.`,
      ]
    : [];
  return { ok: true, chart: { text, plan: null, remarks } };
}

/** A name for a file from a chart's title. */
export function fileName(text: string, extension: string): string {
  const { title } = summariseChart(text);
  const name = title.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || UNTITLED;
  return `${name}.${extension}`;
}

/** The chart as a file; null while its text cannot be read as a score. */
export async function chartFile(
  { text, plan }: { readonly text: string; readonly plan: string },
  kind: FileKind,
): Promise<File | null> {
  if (kind === 'json') {
    const written = writeDocument(text, plan);
    return new File([written], fileName(text, 'json'), { type: 'application/json' });
  }
  if (kind === 'text') return new File([text], fileName(text, 'txt'), { type: 'text/plain' });
  const result = readChart(text);
  if (!result.ok) return null;
  const { writeMusicXml } = await import('$core/formats/musicxml/write');
  const xml = writeMusicXml(result.chart.source);
  if (kind === 'musicxml') {
    const type = 'application/vnd.recordare.musicxml+xml';
    return new File([xml], fileName(text, 'musicxml'), { type });
  }
  const { compressMusicXml } = await import('$core/formats/musicxml/compressed');
  const packed = compressMusicXml(xml);
  return new File([packed.slice()], fileName(text, 'mxl'), {
    type: 'application/vnd.recordare.musicxml',
  });
}
