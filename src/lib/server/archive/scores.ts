/** What an archive holds for other programs: charts as MusicXML; melodies, sheets, licks and takes as MIDI. */
import { strToU8 } from 'fflate';
import { type Chart, STANDARD_NECK } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { writeMusicXml } from '$core/formats/chart/musicxml/write';
import { readPassageJson } from '$core/formats/passage/json';
import { writeMidi } from '$core/formats/passage/midi/write';
import { readHarmony } from '$core/harmony/reading';
import { lickPassage } from '$core/licks/lick';
import type { LickNote } from '$core/licks/sounding';
import { melodyOn } from '$lib/study/melody';
import { readPlan } from '$lib/study/plan';
import { notesIn } from '../licks';
import { notesFrom } from '$core/licks/kept';

type Files = Readonly<Record<string, Uint8Array>>;

/** A name a file may have anywhere, of a title and what tells it from others alike. */
const fileName = (title: string, of: string): string =>
  `${
    title
      .replaceAll(/[^\p{L}\p{N} .-]+/gu, '')
      .slice(0, 60)
      .trim() || 'untitled'
  } ${of}`;

function midiOf(chart: Chart, title: string, notes: readonly LickNote[]): Uint8Array | null {
  if (notes.length === 0) return null;
  const { key } = readHarmony(chart).key;
  return writeMidi(lickPassage({ title, notes }, chart, key, STANDARD_NECK)).content;
}

interface ChartRow {
  readonly id: string;
  readonly title: string;
  readonly text: string;
  readonly plan: string;
}

/** A chart, its melody and its kept sheets. */
export function chartFiles({ id, title, text, plan }: ChartRow): Files {
  const read = readChart(text);
  if (!read.ok) return {};
  const kept = readPlan(plan);
  const files: Record<string, Uint8Array> = {
    [`musicxml/${fileName(title, id)}.musicxml`]: strToU8(writeMusicXml(read.chart.source)),
  };
  const melody = midiOf(read.chart, title, melodyOn(kept, STANDARD_NECK));
  if (melody) files[`midi/${fileName(`${title}, melody`, id)}.mid`] = melody;
  for (const sheet of kept.sheets) {
    const passage = sheet.passage ? readPassageJson(sheet.passage) : null;
    if (passage?.ok)
      files[`midi/${fileName(`${title}, ${sheet.name}`, sheet.id)}.mid`] = writeMidi(
        passage.passage,
      ).content;
  }
  return files;
}

interface LickRow {
  readonly id: string;
  readonly title: string;
  readonly chart: string;
  readonly notes: string;
}

/** A lick or a take. */
export function lickFiles({ id, title, chart, notes }: LickRow): Files {
  const read = readChart(chart);
  const midi = read.ok ? midiOf(read.chart, title, notesFrom(notesIn(notes))) : null;
  return midi ? { [`midi/${fileName(title, id)}.mid`]: midi } : {};
}
