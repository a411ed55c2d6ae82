/** A chart as something to practise: its zones, its tempo, the change most worth practising. */
import { type Chart, zoneTonic } from '../chart/form';
import { readHarmony } from '../harmony/reading';
import { EXERCISES, type ExerciseKind, MELODY_KINDS } from '../exercises/kinds';
import type { Neck } from '../neck/neck';
import { zonesOf } from '../neck/zones';
import { DEFAULT_TEMPO } from '../time/tempo';
import type { BeatsPerMinute } from '../time/units';
import { type Chartable, RUNGS } from './stints';

/** A chart to practise, with what a session needs to know of it. */
export interface PracticeChart extends Chartable {
  readonly title: string;
  readonly tempo: BeatsPerMinute;
  /** The chord before the change most worth practising. */
  readonly change: number;
}

/** What is learnt first; the rest in the order of the drill book. */
const FIRST: readonly ExerciseKind[] = [
  'targets',
  'ascending',
  'descending',
  'alternating',
  'five-notes',
  'degrees',
  'arpeggio-up-scale-down',
  'continuous',
  'approach-arpeggio',
  'enclosures',
  'line',
];

/** The rungs of the ladder that are exercises. */
const ON_LADDER = EXERCISES.filter((kind) => RUNGS.includes(kind)).toSorted(
  (a, b) => RUNGS.indexOf(a) - RUNGS.indexOf(b),
);

/** Exercises in the order in which they are learnt; those made of what the player brings are left out. */
export const PROGRESSION: readonly ExerciseKind[] = [
  ...ON_LADDER,
  ...FIRST,
  ...EXERCISES.filter(
    (one) => !ON_LADDER.includes(one) && !FIRST.includes(one) && !MELODY_KINDS.has(one),
  ),
];

/** What the choice of practice needs to know of a chart. */
export function practiceChart(id: string, chart: Chart, neck: Neck): PracticeChart {
  const reading = readHarmony(chart);
  const tonic = zoneTonic(chart, reading.key.key);
  return {
    id,
    title: chart.source.title ?? 'this chart',
    tempo: chart.source.tempo ?? DEFAULT_TEMPO,
    zones: tonic === null ? [] : zonesOf(neck, tonic),
    change: reading.cadences[0]?.from ?? 0,
  };
}
