/** The tune's melody on the instrument it is played on. */
import { type Chart, type Neck, type Passage, STANDARD_NECK } from 'corvel-core';
import type { Key } from '$core/keys/keys';
import { overChart } from '$core/licks/lick';
import type { LickNote } from '$core/licks/sounding';
import { readHarmony } from '$core/harmony/reading';
import { stringCount } from '$core/neck/neck';
import { passageOf, type PlayedNote } from '$core/phrases/passage';
import type { Plan } from './plan';
import { notesFrom } from '$core/licks/kept';

/** The melody without what this neck has no place for. */
export const melodyOn = ({ melody }: Plan, neck: Neck): readonly LickNote[] =>
  notesFrom(melody ?? []).filter(
    ({ string, fret }) => string <= stringCount(neck) && fret >= neck.capo && fret <= neck.frets,
  );

/** The same, spelled over its chords. */
export const melodyOver = (
  plan: Plan,
  chart: Chart,
  key: Key | null,
  neck: Neck,
): readonly PlayedNote[] => overChart(chart, key, neck, melodyOn(plan, neck));

/** A chart with its melody as a passage, its form written out. */
export function melodyPassage(plan: Plan, chart: Chart, neck: Neck = STANDARD_NECK): Passage {
  const { key } = readHarmony(chart).key;
  const notes = melodyOver(plan, chart, key, neck);
  return passageOf(chart, key, neck, chart.source.title, notes);
}
