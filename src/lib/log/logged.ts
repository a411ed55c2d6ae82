/** What of the charts and of what was played the log shows. */
import type { State } from '$core/log/stints';
import type { Zone } from 'corvel-core';

export interface LoggedChart {
  readonly id: string;
  readonly title: string;
  readonly zones: readonly Zone[];
  readonly tempo: number;
  readonly change: number;
}

export interface LoggedCell {
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly minutes: number;
  readonly last: string | null;
  readonly state: State;
  readonly tempos: readonly { readonly at: string; readonly tempo: number }[];
}
