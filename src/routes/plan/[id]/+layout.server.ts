import { readChart } from '$core/chart/form';
import { error } from '@sveltejs/kit';
import { findChart } from '$lib/server/charts';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { LayoutServerLoad } from './$types';

/** A form this long is read by the browser that asks for it, not while everyone waits. */
const LARGE = { characters: 6_000, chords: 400 } as const;

function isLarge(text: string): boolean {
  if (text.length > LARGE.characters) return true;
  const read = readChart(text);
  return read.ok && read.chart.chords.length > LARGE.chords;
}

// Also run when a link is only pointed at: what opening a chart changes is asked for by its page.
export const load: LayoutServerLoad = async ({ params, locals }) => {
  const db = database(locals);
  const chart = await findChart(db, params.id);
  if (!chart) error(404, 'This chart is not in the Book; it may have been deleted.');
  return { chart, settings: await findSettings(db), large: isLarge(chart.text) };
};
