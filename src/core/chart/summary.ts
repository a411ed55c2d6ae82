/** What a list of charts shows, read from chart text in whatever state it is. */
import { writeKey } from '../keys/keys';
import { playChart } from './form';
import { HEADER_PATTERN } from './headers';
import { parseChart } from './parse';

/** What a list shows of a chart. */
export interface ChartSummary {
  readonly title: string;
  readonly key: string | null;
  readonly tempo: number | null;
  /** Null while the text cannot be read. */
  readonly bars: number | null;
}

/** The title of a chart that states none. */
export const UNTITLED = 'Untitled';

/**
 * Never fails: a text that cannot be read still has a title, key and tempo if it states them.
 *
 * @example summariseChart('title: Lock\n| C | F |').title; // "Lock"
 */
export function summariseChart(text: string): ChartSummary {
  const parsed = parseChart(text);
  const headers = parsed.ok ? parsed.source : parsed.readable;
  const played = parsed.ok ? playChart(parsed.source) : null;
  return {
    title: headers.title || UNTITLED,
    key: headers.key === null ? null : writeKey(headers.key),
    tempo: headers.tempo,
    bars: played?.ok ? played.chart.bars.length : null,
  };
}

/**
 * The text with a header line set, replaced where it stands or added; null removes the line.
 *
 * @example withHeader('title: Lock\n| C |', 'tempo', '90'); // "title: Lock\ntempo: 90\n| C |"
 */
export function withHeader(text: string, name: string, value: string | null): string {
  const lines = text.split('\n');
  const found = lines.findIndex((line) => HEADER_PATTERN.exec(line)?.[1]?.toLowerCase() === name);
  const tidy = value?.replace(/\s+/gu, ' ').replace(/\/\/+/gu, '/').trim();
  const added = tidy === undefined ? [] : [`${name}: ${tidy}`];
  if (found >= 0) return lines.toSpliced(found, 1, ...added).join('\n');
  const order = ['title', 'key', 'time', 'tempo', 'feel', 'idiom'];
  const place = lines.findIndex((line) => {
    const other = HEADER_PATTERN.exec(line)?.[1]?.toLowerCase();
    return other === undefined
      ? line.trim() !== '' && !line.trimStart().startsWith('#')
      : order.indexOf(other) > order.indexOf(name);
  });
  return lines.toSpliced(place < 0 ? lines.length : place, 0, ...added).join('\n');
}

/** The text under another title. */
export const withTitle = (text: string, title: string): string => withHeader(text, 'title', title);
