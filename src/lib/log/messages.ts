/** What the pages and the server say to each other about the log. */
import * as z from 'zod/mini';
import { EXTENTS } from '$core/time/extent';

/** The bounds of what a stint states, the same wherever one comes from. */
export const fret = z.int().check(z.minimum(0), z.maximum(36));
export const bpm = z.number().check(z.minimum(1), z.maximum(1_000));
export const count = z.nullable(z.int().check(z.minimum(0), z.maximum(100_000)));
const word = (most: number) => z.string().check(z.minLength(1), z.maxLength(most));

/** Kept to a day's length; one of less than half a minute is none. */
export const STINT = { least: 0.5, most: 1_440 } as const;

/** In place of a chart's id, for what belongs to none: licks of the book, general drills. */
export const NO_CHART = 'general';

/** Targets that a player's own word stands for, of which so many landed. */
export const SAID = { asked: 10, clean: 10, shaky: 6 } as const;
export type Said = 'clean' | 'shaky';

export const stintSchema = z.object({
  at: z.iso.datetime({ offset: true }),
  chart: word(100),
  exercise: word(60),
  zone: z.object({ low: fret, high: fret }),
  extent: z._default(z.enum(EXTENTS), 'form'),
  tempoFrom: bpm,
  tempo: bpm,
  minutes: z.number().check(z.minimum(STINT.least), z.maximum(STINT.most)),
  asked: z._default(count, null),
  landed: z._default(count, null),
  note: z._default(z.string().check(z.maxLength(2_000)), ''),
  /** Whether its landings were judged before the rule of landing was made one. */
  earlierRule: z.optional(z.boolean()),
});

export type StintContent = z.infer<typeof stintSchema>;
/** As it is kept: with when it began in milliseconds too, and the revision it stands at. */
export type StoredStint = StintContent & {
  readonly id: string;
  readonly time: number;
  readonly revision: number;
};

/** A stint saved on a revision; 0 makes it. */
export const stintSave = z.extend(stintSchema, { revision: z.int().check(z.minimum(0)) });

/** Stints a log may hold that is taken in: more than are played in a life. */
export const LOG_LIMIT = 200_000;

/** This moment as the player's clock says it, with its offset. */
export function localMoment(date = new Date()): string {
  const offset = -date.getTimezoneOffset();
  const two = (value: number) => String(Math.floor(Math.abs(value))).padStart(2, '0');
  const local = new Date(date.getTime() + offset * 60_000).toISOString().slice(0, 19);
  return `${local}${offset < 0 ? '-' : '+'}${two(offset / 60)}:${two(offset % 60)}`;
}
