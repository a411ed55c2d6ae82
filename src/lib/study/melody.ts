/** The tune's melody on the instrument it is played on. */
import type { Chart } from '$core/chart/form';
import type { Key } from '$core/keys/keys';
import { overChart } from '$core/licks/lick';
import { movedLick } from '$core/licks/moving';
import { readHarmony } from '$core/harmony/reading';
import { type Neck, STANDARD_NECK, stringCount } from '$core/neck/neck';
import { type Passage, passageOf, type PlayedNote } from '$core/phrases/passage';
import type { Plan } from './plan';

/** The melody so many half steps up, spelled over its chords; without what this neck has no place for. */
export function melodyOver(
  { melody }: Plan,
  chart: Chart,
  key: Key | null,
  neck: Neck,
  halfSteps = 0,
): readonly PlayedNote[] {
  const there = (melody ?? []).filter(
    ({ string, fret }) => string <= stringCount(neck) && fret >= neck.capo && fret <= neck.frets,
  );
  const moved = halfSteps === 0 ? there : movedLick(neck, there, halfSteps, null);
  return overChart(chart, key, neck, moved);
}

/** A chart with its melody as a passage, its form written out. */
export function melodyPassage(plan: Plan, chart: Chart): Passage {
  const { key } = readHarmony(chart).key;
  const notes = melodyOver(plan, chart, key, STANDARD_NECK);
  return passageOf(chart, key, STANDARD_NECK, chart.source.title, notes);
}
