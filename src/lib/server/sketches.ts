/** The shapes of the charts in the Book: read once for each revision, a chart at a time. */
import { readChart } from '$core/chart/form';
import { type FormSketch, sketchOf } from '$core/harmony/sketch';
import { findChart } from './charts';
import type { Db } from './database';

/** Sketches kept, by chart; the oldest goes first. */
const KEPT = 5_000;
const known = new Map<string, { readonly stamp: string; readonly sketch: FormSketch | null }>();

function remember(id: string, stamp: string, sketch: FormSketch | null) {
  known.delete(id);
  known.set(id, { stamp, sketch });
  if (known.size > KEPT) known.delete(known.keys().next().value ?? '');
}

/** What of a chart's text can be read, drawn small; null where that is nothing. */
function sketchText(text: string): FormSketch | null {
  const read = readChart(text);
  const chart = read.ok ? read.chart : read.readable;
  return chart && sketchOf(chart);
}

/** The sketches of charts as they stand, by id. Other requests are answered between two of them. */
export async function sketchesOf(
  db: Db,
  charts: readonly { readonly id: string; readonly updatedAt: string }[],
): Promise<Readonly<Record<string, FormSketch | null>>> {
  const found: Record<string, FormSketch | null> = {};
  for (const { id, updatedAt } of charts) {
    const kept = known.get(id);
    if (kept?.stamp !== updatedAt) {
      await new Promise(setImmediate);
      const chart = await findChart(db, id);
      remember(id, updatedAt, chart && sketchText(chart.text));
    }
    found[id] = known.get(id)?.sketch ?? null;
  }
  return found;
}
