/** Where a lick fits among the charts, and putting it there. */
import { randomUUID } from 'node:crypto';
import { type Chart, STANDARD_NECK } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { fitLick, type Match, startOf } from '$core/licks/fit';
import { overChart } from '$core/licks/lick';
import { movedLick, zoneOfLick } from '$core/licks/moving';
import { writePassageJson } from '$core/formats/passage/json';
import { passageOf } from '$core/phrases/passage';
import { instrumentOf, neckOf } from '$lib/settings/settings';
import { keepSheet, setMelody } from '$lib/study/edits';
import { isNewerPlan, type PracticeSheet, readPlan, writePlan } from '$lib/study/plan';
import { readView } from '$lib/study/view';
import { findChart, listCharts, saveChart, type SaveResult, saveView } from './charts';
import type { Db } from './database';
import { findSettings } from './settings';
import type { PutRequest, StoredLick } from '$lib/licks/messages';
import { barOf } from '$core/time/metre';
import { notesFrom, notesToKeep } from '$core/licks/kept';

interface LickPlace {
  readonly chart: string;
  readonly title: string;
  readonly index: number;
  readonly bar: number;
  readonly semitones: number;
  readonly match: Match;
  readonly share: number;
  readonly sentence: string;
}

function chartOf(text: string): Chart | null {
  const read = readChart(text);
  return read.ok ? read.chart : null;
}

/** Places that are shown: nobody reads thousands. */
const BEST = 50;

/** The best places in all charts where a lick fits, and how many more there are. */
interface LickPlaces {
  readonly places: readonly LickPlace[];
  readonly more: number;
}

/** Where a lick fits, best first; null where its own chords cannot be read. */
export async function placesFor(db: Db, lick: StoredLick): Promise<LickPlaces | null> {
  const own = chartOf(lick.chart);
  if (!own) return null;
  const charts: { readonly id: string; readonly title: string; readonly chart: Chart }[] = [];
  for (const { id, title } of await listCharts(db)) {
    const stored = await findChart(db, id);
    const chart = stored && chartOf(stored.text);
    if (chart) charts.push({ id, title, chart });
  }
  const fits = fitLick(
    { chart: own, notes: notesFrom(lick.notes) },
    charts.map(({ chart }) => chart),
    STANDARD_NECK,
  );
  const places = fits
    .slice(0, BEST)
    .flatMap(({ chart: position, index, ...fit }): readonly LickPlace[] => {
      const found = charts[position];
      const chord = found?.chart.chords[index];
      return found && chord
        ? [{ chart: found.id, title: found.title, index, bar: chord.bar, ...fit }]
        : [];
    });
  return { places, more: Math.max(0, fits.length - BEST) };
}

type PutResult =
  | { readonly kind: 'put'; readonly chart: string }
  | { readonly kind: 'missing' }
  | { readonly kind: 'refused'; readonly message: string };

const kept = ({ kind }: SaveResult, chart: string): PutResult =>
  kind === 'saved'
    ? { kind: 'put', chart }
    : { kind: 'refused', message: 'The chart was being changed just now: try again.' };

/** Keeps a lick with a chart, moved to a chord of it, and sets its stage up to play it there. */
export async function putLick(
  db: Db,
  lick: StoredLick,
  { chart: id, index, semitones, as }: PutRequest,
): Promise<PutResult> {
  const stored = await findChart(db, id);
  const chart = stored && chartOf(stored.text);
  const place = chart?.chords[index];
  const own = chartOf(lick.chart);
  if (!stored || !chart || !place || !own || lick.notes.length === 0) return { kind: 'missing' };
  if (isNewerPlan(stored.plan)) {
    return { kind: 'refused', message: 'This chart was last changed by a newer Corvel.' };
  }
  const plan = readPlan(stored.plan);
  const settings = await findSettings(db);
  const neck = neckOf(instrumentOf(settings.settings, plan.instrument));
  const notes = notesFrom(lick.notes);
  const offset = place.beat - (startOf(own, notes)?.beat ?? 0);
  const moved = movedLick(neck, notes, semitones, null).map((note) => ({
    ...note,
    beat: note.beat + offset,
  }));
  if (as === 'melody') {
    const next = writePlan(setMelody(notesToKeep(moved))(plan));
    return kept(
      await saveChart(db, id, { revision: stored.revision, text: stored.text, plan: next }),
      id,
    );
  }
  const { key } = readHarmony(chart).key;
  const passage = passageOf(chart, key, neck, lick.title, overChart(chart, key, neck, moved));
  const zone = zoneOfLick(neck, moved);
  const sheet: PracticeSheet = {
    id: randomUUID(),
    name: lick.title.slice(0, 80) || 'A lick',
    kind: 'line',
    extent: 'whole',
    subdivision: 'eighths',
    from: index,
    zone,
    strings: [1, 2, 3],
    group: 4,
    seed: 1,
    style: null,
    octave: null,
    pattern: null,
    begin: null,
    direction: null,
    passage: writePassageJson(passage).content,
  };
  const next = writePlan(keepSheet(sheet)(plan));
  const saved = await saveChart(db, id, {
    revision: stored.revision,
    text: stored.text,
    plan: next,
  });
  if (saved.kind !== 'saved') return kept(saved, id);
  const end = Math.max(...moved.map(({ beat, beats }) => beat + beats));
  const bars = Math.max(1, Math.ceil(end / barOf(chart.source.time)) - (place.bar - 1));
  const view = readView(stored.view);
  const loop = { from: place.bar - 1, to: Math.min(chart.bars.length, place.bar - 1 + bars) };
  await saveView(db, id, { ...view, play: { ...view.play, sheet: sheet.id, loop, staff: true } });
  return { kind: 'put', chart: id };
}
