/** Where a thing of the log is practised: its own screen, set up for it. */
import { DRILLS, LICK, SHEET } from '$core/log/blocks';
import { FREE } from '$core/log/stints';
import type { Extent } from '$core/time/extent';
import type { Zone } from 'corvel-core';
import { zoneWord } from '$lib/study/place';

interface ToPractise {
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly tempo?: number;
  readonly extent?: Extent;
  readonly index?: number | undefined;
}

/** The screen a thing is practised on: cards on Drills, a lick on Licks, a sheet on Practice, the rest on the stage. */
export function screenFor({ chart, exercise, zone, tempo, extent, index }: ToPractise): string {
  if (exercise === DRILLS) return `/drills?${new URLSearchParams({ chart }).toString()}`;
  if (exercise === LICK) return '/licks?';
  const asked = new URLSearchParams({
    at: String((index ?? 0) + 1),
    zone: zoneWord(zone),
  });
  if (exercise === SHEET) return `/plan/${chart}/practice?${asked.toString()}&sheet=last`;
  asked.set('line', exercise === FREE ? 'none' : exercise);
  if (tempo !== undefined) asked.set('bpm', String(Math.round(tempo)));
  if (extent !== undefined) asked.set('extent', extent);
  return `/plan/${chart}/play?${asked.toString()}`;
}

/** Where a block of a session is played: the session goes along, so that the screen says where it is in it. */
export function blockAddress(block: ToPractise, session: string, place: number): string {
  const along = new URLSearchParams({ session, block: String(place + 1), go: '1' });
  return `${screenFor(block)}&${along.toString()}`.replace('?&', '?');
}

/** The log, where a session is summed up. */
export const sessionOver = (session: string): string => `/log?${session}&over=1`;

/** The log, with the session as far as it was begun. */
export const sessionAt = (session: string, place: number): string =>
  `/log?${session}&begun=${place}`;
