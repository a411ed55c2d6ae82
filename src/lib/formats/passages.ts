/**
 * Formats of passages: one row each. A reader or writer comes when it is first needed; a new format
 * is a module of `core/formats/passage` and a row here.
 */
import { inBeats, type Neck, type Passage } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { isAbc } from '$core/formats/chart/abc/isAbc';
import { type PassageResult, refused, type Written } from '$core/formats/result';
import { EMPTY_PLAN, readPlan } from '$lib/study/plan';
import {
  FILE_LIMIT,
  fileName,
  fileOf,
  isJson,
  isMidi,
  isXml,
  isZip,
  type OpenedFile,
  takeUp,
} from './files';
import type { Beats, WrittenBeats } from '$core/time/units';

interface PassageFormatRow {
  readonly name: string;
  readonly extension: string;
  /** Extensions of files to open, when not the one written. */
  readonly opens: readonly string[];
  readonly type: string;
  /** Whether a file is of this format; the first row that says so reads it. */
  readonly recognises: (file: OpenedFile) => boolean;
  /** Null for a format that is only written. */
  readonly read: ((file: OpenedFile, neck: Neck) => Promise<PassageResult>) | null;
  readonly write: (passage: Passage) => Promise<Written>;
}

const ROWS = {
  midi: {
    name: 'MIDI',
    extension: 'mid',
    opens: ['mid', 'midi'],
    type: 'audio/midi',
    recognises: isMidi,
    read: async ({ bytes }, neck) =>
      (await import('$core/formats/passage/midi/read')).readMidi(bytes, neck),
    write: async (passage) => (await import('$core/formats/passage/midi/write')).writeMidi(passage),
  },
  musicxml: {
    name: 'MusicXML with tablature',
    extension: 'musicxml',
    opens: ['musicxml', 'xml', 'mxl'],
    type: 'application/vnd.recordare.musicxml+xml',
    recognises: (file) => isXml(file) || isZip(file),
    read: async (file, neck) => {
      const { unpackScore } = await import('$core/formats/musicxml/compressed');
      const { readPassage } = await import('$core/formats/passage/musicxml/read');
      if (!isZip(file)) return readPassage(file.text, neck);
      const unpacked = unpackScore(file.bytes);
      return unpacked.ok ? readPassage(unpacked.text, neck) : unpacked;
    },
    write: async (passage) =>
      (await import('$core/formats/passage/musicxml/write')).writePassage(passage),
  },
  json: {
    name: 'JSON',
    extension: 'json',
    opens: ['json'],
    type: 'application/json',
    recognises: isJson,
    read: async ({ text }) => (await import('$core/formats/passage/json')).readPassageJson(text),
    write: async (passage) =>
      (await import('$core/formats/passage/json')).writePassageJson(passage),
  },
  wav: {
    name: 'Sound, WAV',
    extension: 'wav',
    opens: [],
    type: 'audio/wav',
    recognises: () => false,
    read: null,
    write: async (passage) => (await import('$lib/audio/render')).writeWav(passage),
  },
  tab: {
    name: 'Tablature, plain text',
    extension: 'txt',
    opens: ['txt', 'tab'],
    type: 'text/plain',
    recognises: () => true,
    read: async ({ text }, neck) =>
      (await import('$core/formats/passage/tab/read')).readTab(text, neck),
    write: async (passage) => (await import('$core/formats/passage/tab/write')).writeTab(passage),
  },
} as const satisfies Readonly<Record<string, PassageFormatRow>>;

const FORMATS: Readonly<Record<keyof typeof ROWS, PassageFormatRow>> = ROWS;

export type PassageFormat = keyof typeof ROWS;

export const PASSAGE_FORMAT_ROWS: readonly PassageFormatRow[] = Object.values(FORMATS);
export const PASSAGE_FORMATS = Object.keys(ROWS) as readonly PassageFormat[];
export const passageFormatName = (format: PassageFormat): string => FORMATS[format].name;
/** A chart is opened too: as its chords, with its melody. */
const CHART_TYPES = ['.abc', '.cho', '.chopro', '.chordpro', '.crd', '.pro'];
export const PASSAGE_TYPES = Object.values(FORMATS)
  .flatMap(({ opens }) => opens.map((extension) => `.${extension}`))
  .concat(CHART_TYPES)
  .join(',');

/** The passage as a file, with what of it the format cannot hold. */
export async function passageFile(
  passage: Passage,
  format: PassageFormat,
): Promise<{ readonly file: File; readonly remarks: readonly string[] }> {
  const { write, extension, type } = FORMATS[format];
  const { content, remarks } = await write(passage);
  return { file: fileOf(content, fileName(passage.title, extension, 'Passage'), type), remarks };
}

/** Longest tablature in characters, and longest melody in beats: some 500 bars. */
const TEXT_LIMIT = 200_000;
const MOST_BEATS: WrittenBeats = 2_048;
const TOO_LONG = `This melody is longer than ${MOST_BEATS} beats, more than a sheet can show.`;

const passageEnd = ({ notes }: Passage): Beats =>
  notes.reduce((end, { beat, beats }) => Math.max(end, beat + beats), 0);

const formatOf = (file: OpenedFile): PassageFormat =>
  PASSAGE_FORMATS.find((format) => FORMATS[format].recognises(file)) ?? 'tab';

/** The format of a file, by what is in it: that of the first row that knows it. */
export const passageFormatOf = (bytes: Uint8Array): PassageFormat => formatOf(takeUp(bytes));

/** Reads a passage from a file of any of the formats, by what is in it. */
export async function openPassage(bytes: Uint8Array, neck: Neck): Promise<PassageResult> {
  if (bytes.length > FILE_LIMIT) return refused('This file is too large for a melody.');
  const file = takeUp(bytes);
  const row = FORMATS[formatOf(file)];
  if (row.read === null) return refused('This file holds no melody.');
  if (file.text.length > TEXT_LIMIT && row === FORMATS.tab) {
    return refused('This text is too long for a melody.');
  }
  const read = isAbc(file.text) ? null : await row.read(file, neck);
  const result = read?.ok ? read : ((await openAsChart(bytes, neck)) ?? read);
  if (result === null) return refused('There is no melody in this file.');
  return result.ok && inBeats(passageEnd(result.passage)) > MOST_BEATS ? refused(TOO_LONG) : result;
}

/** A chart in any format as a passage: all of its chords, and its melody where it has one; null for none. */
async function openAsChart(bytes: Uint8Array, neck: Neck): Promise<PassageResult | null> {
  const { openChart } = await import('./charts');
  const opened = await openChart(bytes);
  if (!opened.ok) return null;
  const { text, plan } = opened.chart;
  const chart = readChart(text);
  if (!chart.ok) return null;
  const { melodyPassage } = await import('$lib/study/melody');
  const kept = plan === null ? EMPTY_PLAN : readPlan(plan);
  const passage = melodyPassage(kept, chart.chart, neck);
  return { ok: true, passage, remarks: opened.chart.remarks };
}
