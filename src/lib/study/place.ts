/** The place in a chart as the address holds it: `?at=5&zone=3-7&edit=text`. Chords count from 1 there. */
import type { Zone } from 'corvel-core';

/** A chord of the chart by its index, and a region of the neck; null for the plan's own. */
export interface ChartPlace {
  readonly index: number;
  readonly zone: Zone | null;
}

/** A zone as an address has it: `5-8`. */
export const zoneWord = ({ low, high }: Zone): string => `${low}-${high}`;

/** Reads one; null where that is none. */
export function readZone(asked: URLSearchParams): Zone | null {
  const match = /^(\d{1,2})-(\d{1,2})$/u.exec(asked.get('zone') ?? '');
  return match ? { low: Number(match[1]), high: Number(match[2]) } : null;
}

export function readPlace(url: URL): ChartPlace {
  const at = Number(url.searchParams.get('at') ?? '1');
  const zone = readZone(url.searchParams);
  return { index: Number.isInteger(at) && at > 0 ? at - 1 : 0, zone };
}

export type Editing = 'text' | 'bars' | null;

export function readEditing(url: URL): Editing {
  const edit = url.searchParams.get('edit');
  return edit === 'text' || edit === 'bars' ? edit : null;
}

export function writePlace(url: URL, { index, zone }: ChartPlace): URL {
  const written = new URL(url);
  written.searchParams.set('at', String(index + 1));
  if (zone) written.searchParams.set('zone', zoneWord(zone));
  // What was asked for on arrival is done.
  written.searchParams.delete('go');
  return written;
}

export function writeEditing(url: URL, editing: Editing): URL {
  const written = new URL(url);
  if (editing) written.searchParams.set('edit', editing);
  else written.searchParams.delete('edit');
  return written;
}

/** Where a chart is shown, at a chord and a zone of it. */
export const addressOf = (chart: string, screen: string, { index, zone }: ChartPlace): string =>
  `/plan/${chart}${screen === '' ? '' : `/${screen}`}?at=${index + 1}${zone ? `&zone=${zoneWord(zone)}` : ''}`;
