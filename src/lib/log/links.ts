/** Where a thing of the log is practised: the stage, set up for it. */
import { FREE } from '$core/log/session';
import type { Extent } from '$core/time/extent';
import type { Zone } from '$core/neck/neck';

export interface ToPractise {
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly tempo?: number;
  readonly extent?: Extent;
  readonly index?: number | undefined;
}

/** The stage's address for a thing; it reads the rest from there. */
export function stageFor({ chart, exercise, zone, tempo, extent, index }: ToPractise): string {
  const asked = new URLSearchParams({
    at: String((index ?? 0) + 1),
    zone: `${zone.low}-${zone.high}`,
  });
  asked.set('line', exercise === FREE ? 'none' : exercise);
  if (tempo !== undefined) asked.set('bpm', String(Math.round(tempo)));
  if (extent !== undefined) asked.set('extent', extent);
  return `/plan/${chart}/play?${asked.toString()}`;
}
