/** The tables, as Kysely sees them. */
import type { Generated } from 'kysely';

export interface ChartTable {
  readonly id: string;
  readonly title: string;
  readonly text: string;
  /** The player's choices for the chart, as JSON. */
  readonly plan: string;
  /** How the chart was last looked at, as JSON. */
  readonly view: Generated<string>;
  /** Read from the text when it was last readable, for the list. */
  readonly key: string | null;
  readonly tempo: number | null;
  readonly bars: number | null;
  readonly revision: Generated<number>;
  readonly created_at: string;
  readonly updated_at: string;
  readonly opened_at: string | null;
  readonly deleted_at: string | null;
}

interface LickTable {
  readonly id: string;
  readonly title: string;
  /** As JSON: a list of words. */
  readonly tags: string;
  readonly source: string;
  /** Its chords as chart text. */
  readonly chart: string;
  /** As JSON: played notes. */
  readonly notes: string;
  /** The chart it is a take of; null for a lick of the book. */
  readonly take_of: string | null;
  /** Bytes of its sound, where that was kept. */
  readonly sound: number | null;
  readonly revision: Generated<number>;
  readonly created_at: string;
  readonly updated_at: string;
  readonly deleted_at: string | null;
}

interface StintTable {
  readonly id: string;
  /** When it began, as the player's clock said it, and in milliseconds. */
  readonly at: string;
  readonly time: number;
  readonly chart: string;
  readonly exercise: string;
  readonly low: number;
  readonly high: number;
  readonly extent: string;
  readonly tempo_from: number;
  readonly tempo: number;
  readonly minutes: number;
  readonly asked: number | null;
  readonly landed: number | null;
  readonly note: string;
  /** 1 where its landings were judged before the rule of landing was made one. */
  readonly earlier_rule: Generated<number>;
  readonly revision: Generated<number>;
  readonly deleted_at: string | null;
}

interface CardTable {
  readonly id: string;
  /** The scheduler's own state, as JSON. */
  readonly state: string;
  /** When it comes back, in milliseconds. */
  readonly due: number;
  /** How often it was answered. */
  readonly seen: number;
  /** The id of the answer it was given last, so that one that is sent twice counts once. */
  readonly answer: string | null;
}

interface SettingTable {
  readonly name: string;
  readonly value: string;
  readonly revision: Generated<number>;
}

export interface Tables {
  readonly chart: ChartTable;
  readonly lick: LickTable;
  readonly setting: SettingTable;
  readonly stint: StintTable;
  readonly card: CardTable;
}
