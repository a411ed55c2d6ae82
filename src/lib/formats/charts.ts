/** Formats of charts: one row each. Readers and writers of scores come when they are first needed. */
import { sum } from 'd3-array';
import { group } from '$core/lists';
import { type Chart, STANDARD_NECK } from 'corvel-core';
import { chartBeats, readChart } from '$core/chart/form';
import { isAbc } from '$core/formats/chart/abc/isAbc';
import { summariseChart, UNTITLED } from '$core/chart/summary';
import { refused } from '$core/formats/result';
import { decodeText } from '$core/text';
import { asMelody, EMPTY_PLAN, readPlan, writePlan } from '$lib/study/plan';
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
  isMidi,
  isXml,
  isZip,
  type OpenedFile,
  seemsToBe,
  takeUp,
} from './files';
import type { BarNote } from '$core/formats/chart/abc/read';

export type { ChartOpened, OpenedChart };

interface ChartFormatRow {
  readonly name: string;
  readonly extension: string;
  readonly opens: readonly string[];
  readonly type: string;
  readonly recognises: (file: OpenedFile) => boolean;
  readonly read: (file: OpenedFile) => ChartOpened | Promise<ChartOpened>;
  /** Null while the chart's text cannot be written so. */
  readonly write:
    | ((chart: ChartContent) => string | Uint8Array | null | Promise<string | Uint8Array | null>)
    /** What is only opened. */
    | null;
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

/** A chart that brings nothing but its text. */
const plainly = ({ text, remarks }: Pick<OpenedChart, 'text' | 'remarks'>) => ({
  ok: true as const,
  chart: { text, remarks, plan: null, view: null } satisfies OpenedChart,
});

async function readScore({ bytes }: OpenedFile): Promise<ChartOpened> {
  const { readMusicXmlFile } = await import('$core/formats/chart/musicxml/read');
  const result = readMusicXmlFile(bytes);
  if (!result.ok) return result;
  const { chart: plain } = plainly(result);
  const melodies = await melodiesOf(bytes, result.text);
  const [first, ...others] = melodies;
  if (!first) return { ok: true, chart: plain };
  const charts = melodies.map(({ name, plan, remarks }): OpenedChart => ({
    ...plain,
    plan,
    label: name,
    remarks: [...plain.remarks, ...remarks],
  }));
  if (others.length === 0) return { ok: true, chart: { ...plain, ...charts[0], label: '' } };
  // Which part sings is the player's to say.
  return {
    ok: true,
    chart: charts[0] ?? plain,
    choices: [...charts, { ...plain, label: 'no melody' }],
  };
}

interface PartMelody {
  readonly name: string;
  readonly plan: string;
  readonly remarks: readonly string[];
}

/** The parts of a score that may be its chart's melody; none where none fits its form. */
async function melodiesOf(bytes: Uint8Array, text: string): Promise<readonly PartMelody[]> {
  const { readParts } = await import('$core/formats/passage/musicxml/read');
  const { isCompressed, unpackScore } = await import('$core/formats/musicxml/compressed');
  const unpacked = isCompressed(bytes) ? unpackScore(bytes) : null;
  if (unpacked && !unpacked.ok) return [];
  const found = readParts(unpacked ? unpacked.text : decodeText(bytes), STANDARD_NECK);
  const chart = readChart(text);
  if (!found.ok || !chart.ok) return [];
  const end = chartBeats(chart.chart);
  return found.parts.slice(0, MOST_PARTS).flatMap(({ name, read }, index) => {
    const part = read();
    if (!part.ok) return [];
    const { notes, beats } = part.passage;
    // Notes of a form with repeats are counted otherwise than its bars are played.
    const fits = notes.every(({ beat }) => beat < end) && beats >= end;
    const melody = asMelody(notes);
    if (!melody || !fits) return [];
    return [
      {
        name: name || `part ${index + 1}`,
        plan: writePlan({ ...EMPTY_PLAN, melody }),
        remarks: part.remarks,
      },
    ];
  });
}

/** Parts of a score that are offered as its melody. */
const MOST_PARTS = 12;

/** The tunes of an ABC file, each with its notes as a melody over the form as it is played. */
async function readTunes({ text }: OpenedFile): Promise<ChartOpened> {
  const { readAbc } = await import('$core/formats/chart/abc/read');
  const { ontoNeck } = await import('$core/formats/passage/ontoNeck');
  const result = readAbc(text);
  if (!result.ok) return result;
  const charts = result.tunes.map(({ text: written, melody, remarks }): OpenedChart => {
    const chart = readChart(written);
    const notes = chart.ok ? overForm(chart.chart, melody) : [];
    const laid = ontoNeck(
      STANDARD_NECK,
      notes.map(({ midi }) => midi),
    );
    const sung = asMelody(
      notes.flatMap(({ beat, beats }, index) => {
        const place = laid?.places[index];
        return place ? [{ beat, beats, ...place, techniques: [] }] : [];
      }),
    );
    return {
      text: written,
      plan: sung && writePlan({ ...EMPTY_PLAN, melody: sung }),
      view: null,
      remarks: [...remarks, ...(sung ? (laid?.remarks ?? []) : [])],
    };
  });
  const [chart] = charts;
  if (!chart) return refused('This ABC file holds no tune with bars.');
  return { ok: true, chart, ...(charts.length > 1 ? { choices: charts } : {}) };
}

/** Notes of written bars, each time their bar is played. */
function overForm(
  { source, bars }: Chart,
  notes: readonly BarNote[],
): readonly Omit<BarNote, 'bar'>[] {
  const byBar = group(notes, ({ bar }) => bar);
  const starts = source.sections.map((_, index) =>
    sum(source.sections.slice(0, index), (section) => section.bars.length),
  );
  return bars.flatMap(({ beat: begins, section, sourceBar }) =>
    (byBar.get((starts[section] ?? 0) + sourceBar) ?? []).map(({ beat, beats, midi }) => ({
      beat: begins + beat,
      beats,
      midi,
    })),
  );
}

/** A chart guessed from a MIDI file. */
async function guessed({ bytes }: OpenedFile): Promise<ChartOpened> {
  const { readMidiChart } = await import('$core/formats/chart/midi/read');
  const result = readMidiChart(bytes);
  return result.ok ? plainly(result) : result;
}

async function readSheet({ text }: OpenedFile): Promise<ChartOpened> {
  const { readSong } = await import('$core/formats/chart/song/read');
  const result = readSong(text);
  return result.ok ? plainly(result) : result;
}

/** Text that is neither a chart nor a song sheet is kept as it is. */
async function readText(file: OpenedFile): Promise<ChartOpened> {
  const { text } = file;
  if (text.trim() === '') return refused('There is nothing in it.');
  if (/\p{Cc}/u.test(text.replace(/[\n\r\t]/gu, ''))) {
    const kind = seemsToBe(file);
    return refused(
      kind === null
        ? 'This is neither chart text nor a score that Corvel reads.'
        : `This is ${kind}, and no chart that Corvel reads.`,
    );
  }
  const read = readChart(text);
  if (!read.ok) {
    const { isSong } = await import('$core/formats/chart/song/read');
    if (isSong(text)) return readSheet(file);
  }
  const problem = read.ok ? undefined : read.problems[0];
  const remarks = problem
    ? [
        `Line ${problem.line}, column ${problem.column}: ${problem.message} The text is kept as it is.`,
      ]
    : [];
  return { ok: true, chart: { text, plan: null, view: null, remarks } };
}

/** ChordPro begins with what stands in braces; JSON with a name in quotes. */
const isSheet = ({ text }: OpenedFile): boolean =>
  /^(?:\s*(?:#.*)?\n)*\s*\{\s*[A-Za-z_]+(?:-\w+)?\s*(?:[:}]|\s\w)/u.test(text);

const ROWS = {
  chordpro: {
    name: 'ChordPro and song sheets',
    extension: 'cho',
    opens: ['cho', 'chopro', 'chordpro', 'crd', 'pro'],
    type: 'text/plain',
    recognises: isSheet,
    read: readSheet,
    write: async ({ text }) => {
      const read = readChart(text);
      if (!read.ok) return null;
      const { writeSong } = await import('$core/formats/chart/song/write');
      return writeSong(read.chart);
    },
  },
  abc: {
    name: 'ABC',
    extension: 'abc',
    opens: ['abc'],
    type: 'text/vnd.abc',
    recognises: ({ text }) => isAbc(text),
    read: readTunes,
    write: async ({ text }) => {
      const read = readChart(text);
      if (!read.ok) return null;
      const { writeAbc } = await import('$core/formats/chart/abc/write');
      return writeAbc(read.chart.source).content;
    },
  },
  midi: {
    name: 'MIDI, its chords guessed',
    extension: 'mid',
    opens: ['mid', 'midi'],
    type: 'audio/midi',
    recognises: isMidi,
    read: guessed,
    write: null,
  },
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

const FORMATS = Object.keys(ROWS) as readonly ChartFormat[];
const formatOf = (file: OpenedFile): ChartFormat =>
  FORMATS.find((format) => ROWS[format].recognises(file)) ?? 'text';

/** The format of a file, by what is in it: that of the first row that knows it. */
export const chartFormatOf = (bytes: Uint8Array): ChartFormat => formatOf(takeUp(bytes));

/** The chart in pasted or opened bytes. */
export async function openChart(bytes: Uint8Array): Promise<ChartOpened> {
  if (bytes.length > FILE_LIMIT) return refused('This file is too large for a chart.');
  const file = takeUp(bytes);
  return ROWS[formatOf(file)].read(file);
}

export const chartFileName = (text: string, extension: string): string =>
  fileName(summariseChart(text).title, extension, UNTITLED);

/** The chart as a file; null while its text cannot be read as a score. */
export async function chartFile(chart: ChartContent, format: ChartFormat): Promise<File | null> {
  const { write, extension, type } = ROWS[format];
  const content = write === null ? null : await write(chart);
  return content === null ? null : fileOf(content, chartFileName(chart.text, extension), type);
}
