/** `open`: what a file or pasted text holds, as chart text. */
import { z } from 'zod';
import { isAbc } from '$core/formats/chart/abc/isAbc';
import { readAbc } from '$core/formats/chart/abc/read';
import { readMidiChart } from '$core/formats/chart/midi/read';
import { readMusicXmlFile } from '$core/formats/chart/musicxml/read';
import { isSong, readSong } from '$core/formats/chart/song/read';
import { readChart } from '$core/chart/form';
import { summariseChart } from '$core/chart/summary';
import type { Refusal } from '$core/formats/result';
import { isMidi, isXml, isZip, takeUp } from '$lib/formats/files';
import { question } from '../question';
import { accept, refuse } from '../refusals';

const MOST = 700_000;

const request = z.object({
  content: z.string().max(MOST).describe('The text, or the bytes in base64'),
  encoding: z.enum(['text', 'base64']).default('text'),
});

const answer = z.object({
  format: z.enum(['chart', 'musicxml', 'abc', 'song', 'midi']),
  charts: z
    .array(
      z.object({
        title: z.string(),
        chart: z.string().describe('Chart text'),
        remarks: z.array(z.string()).describe('What could not be taken over, in sentences'),
      }),
    )
    .describe('Every chart of the file: several tunes may stand in one'),
});
type Answer = z.output<typeof answer>;

interface Found {
  readonly format: Answer['format'];
  readonly read: () =>
    | {
        readonly ok: true;
        readonly charts: readonly { text: string; remarks: readonly string[] }[];
      }
    | Refusal;
}

const single = (
  read: { readonly ok: true; readonly text: string; readonly remarks: readonly string[] } | Refusal,
) => (read.ok ? { ok: true as const, charts: [read] } : read);

function formatOf(bytes: Uint8Array): Found {
  const file = takeUp(bytes);
  const { text } = file;
  if (isMidi(file)) return { format: 'midi', read: () => single(readMidiChart(bytes)) };
  if (isZip(file) || isXml(file))
    return { format: 'musicxml', read: () => single(readMusicXmlFile(bytes)) };
  if (isAbc(text)) {
    const read = () => {
      const tunes = readAbc(text);
      return tunes.ok ? { ok: true as const, charts: tunes.tunes } : tunes;
    };
    return { format: 'abc', read };
  }
  if (!readChart(text).ok && isSong(text))
    return { format: 'song', read: () => single(readSong(text)) };
  return { format: 'chart', read: () => ({ ok: true, charts: [{ text, remarks: [] }] }) };
}

export const open = question({
  summary: 'What a file holds as chart text: MusicXML, ABC, ChordPro and song sheets, MIDI.',
  request,
  answer,
  megabytes: 1,
  ask({ content, encoding }) {
    const bytes =
      encoding === 'base64'
        ? new Uint8Array(Buffer.from(content, 'base64'))
        : new TextEncoder().encode(content);
    const { format, read } = formatOf(bytes);
    const result = read();
    if (!result.ok)
      return refuse({ code: 'invalid_request', message: result.message, path: 'content' });
    return accept({
      format,
      charts: result.charts.map(({ text, remarks }) => ({
        title: summariseChart(text).title,
        chart: text,
        remarks: [...remarks],
      })),
    });
  },
});
