/** What an exercise is asked with. */
import type { Chart } from '../chart/form';
import { type Key, keyScale } from '../keys/keys';
import { type Note, transpose } from '../notes/notes';
import type { Intent } from '../lenses/lens';
import type { Material } from '../lenses/material';
import type { Neck, Place, Zone } from '../neck/neck';
import type { Motif } from '../lines/motif';
import type { LineStyle } from '../lines/styles';
import type { PlayedNote } from '../phrases/passage';
import type { Extent, Later } from '../lines/spans';
import type { Subdivision } from '../time/subdivision';
import type { Preference } from '../targets/kinds';
import type { Beginning, Direction, ExerciseKind } from './kinds';

/** What an exercise is made for. */
export interface ExerciseRequest {
  readonly chart: Chart;
  /** The key it is written in; null where no single one holds. */
  readonly key: Key | null;
  readonly kind: ExerciseKind;
  readonly subdivision: Subdivision;
  readonly neck: Neck;
  readonly zone: Zone;
  /** The zones an exercise may move through, lowest first. */
  readonly zones: readonly Zone[];
  /** What is played over each chord of the chart, and how much of it is said. */
  readonly materials: readonly Material[];
  readonly intents: readonly Intent[];
  /** What is played over the rest of a chord, where its choice has a second part; lines take it up. */
  readonly later?: readonly (Later | null)[];
  readonly prefer: readonly Preference[];
  /** Targets set by hand, by the chord's index; the others are solved for. */
  readonly pins: Readonly<Record<string, Place>>;
  readonly extent: Extent;
  /** The chord that is isolated, or that a pair begins with. */
  readonly from: number;
  /** The strings of the exercise on one set. */
  readonly strings: readonly number[];
  /** Notes to a group, in groups. */
  readonly group: number;
  /** The tone of each chord to begin on, where an exercise begins on a root; the root by itself. */
  readonly begin?: Beginning | null;
  readonly seed: number;
  /** The melody of the chart, for the exercises made of it; none by itself. */
  readonly melody?: readonly PlayedNote[] | null;
  /** Octaves the melody is moved by; where nothing is said it is varied as written, and laid under the hand. */
  readonly octave?: number | null;
  /** Half bars after the ii at which one sound gives way to I; where I comes by itself. */
  readonly switchAt?: number | null;
  /** A motif for lines to work with, and a seed for their plan alone; both their own by themselves. */
  readonly motif?: Motif | null;
  readonly idea?: number | null;
  /** The player's own pattern as he types it, for the exercise made of it; one of ours before he has. */
  readonly pattern?: string | null;
  /** How that pattern is played; as it is typed by itself. */
  readonly direction?: Direction | null;
  /** How lines are played; by the chart's feel and idiom where nothing is said. */
  readonly style?: LineStyle | null;
}

/** The scale of the key; empty where no single one holds. */
export const homeOf = (key: Key | null): readonly Note[] =>
  key ? keyScale(key).map((one) => transpose(key.tonic, one)) : [];
