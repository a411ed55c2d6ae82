/** How a chart is practised with the band: part of what is only looked at, kept with the chart. */
import * as z from 'zod/mini';
import { CLICKS } from '$core/band/click';
import { EXERCISES } from 'corvel-core';
import { BEGINNINGS, DIRECTIONS, PATTERN_LIMITS } from '$core/exercises/kinds';
import { LINE_STYLES } from '$core/lines/styles';
import { SUBDIVISIONS } from '$core/time/subdivision';
import { TEMPO_RANGE } from '$core/time/tempo';

/** How each pass of the loop moves to another key. */
export const KEY_WAYS = ['same', 'half steps', 'fourths', 'whole steps', 'random'] as const;
export type KeyWay = (typeof KEY_WAYS)[number];

/** Who plays when; in Corvel's turn the line is heard. */
export const TURNS = ['none', 'sixty seconds', 'four bars', 'bar by bar', 'pass by pass'] as const;
export type Turns = (typeof TURNS)[number];

/** How early what comes is shown. */
export const AHEAD = ['always', 'four beats', 'two beats', 'one beat', 'nothing'] as const;
export type Ahead = (typeof AHEAD)[number];

/** What is played over the band: nothing, or an exercise; its targets are those of the plan. */
export const LINES = ['none', ...EXERCISES] as const;
export type PlayLine = (typeof LINES)[number];

/** What cannot be read of a kept value is as it is by default. */
export const or = <T extends z.core.SomeType>(schema: T, fallback: z.core.output<T>) =>
  z._default(
    z.catch(schema, () => fallback as never),
    fallback as never,
  );

const count = (least: number, most: number) => z.int().check(z.minimum(least), z.maximum(most));
const bpm = z.number().check(z.minimum(TEMPO_RANGE.low), z.maximum(TEMPO_RANGE.high));

const loopSchema = z.object({ from: count(0, 4095), to: count(1, 4096) });
/** Bars as played that go round, from 0 up to, not including, `to`. */
export type Loop = z.infer<typeof loopSchema>;

const rampSchema = z.object({ by: count(1, 20), every: count(1, 16), goal: bpm });
/** So many beats a minute faster every so many passes, up to a goal. */
export type Ramp = z.infer<typeof rampSchema>;

export const playSchema = z.object({
  /** Null for the whole form. */
  loop: or(z.nullable(loopSchema), null),
  /** Beats a minute; null for the chart's own. */
  tempo: or(z.nullable(bpm), null),
  /** Bars counted in. */
  count: or(count(0, 2), 1),
  click: or(z.enum(CLICKS), 'none'),
  ramp: or(z.nullable(rampSchema), null),
  keys: or(z.enum(KEY_WAYS), 'same'),
  turns: or(z.enum(TURNS), 'none'),
  ahead: or(z.enum(AHEAD), 'always'),
  /** Whether the band leads in with the last bars of the loop. */
  intro: or(z.boolean(), false),
  /** Passes after which it comes home; 0 to go on until it is stopped. */
  choruses: or(count(0, 16), 0),
  /** The band drops out for one bar in so many, 0 for never; and whether it strikes its beginning. */
  rests: or(count(0, 16), 0),
  stops: or(z.boolean(), false),
  line: or(z.enum(LINES), 'none'),
  /** The kept sheet that is played instead; null for none. */
  sheet: or(z.nullable(z.string().check(z.maxLength(40))), null),
  /** What the exercise is made with. */
  subdivision: or(z.enum(SUBDIVISIONS), 'eighths'),
  strings: or(z.array(count(1, 8)).check(z.minLength(1), z.maxLength(8)), [1, 2, 3]),
  group: or(count(3, 4), 4),
  seed: or(count(0, 1_000_000), 1),
  /** How the line is played; null by the chart's feel and idiom. */
  style: or(z.nullable(z.enum(LINE_STYLES)), null),
  octave: or(z.nullable(count(-1, 1)), null),
  begin: or(z.nullable(z.enum(BEGINNINGS)), null),
  direction: or(z.nullable(z.enum(DIRECTIONS)), null),
  pattern: or(z.nullable(z.string().check(z.maxLength(PATTERN_LIMITS.characters))), null),
  /** Whether the line is shown while it is not Corvel's turn. */
  hidden: or(z.boolean(), false),
  staff: or(z.boolean(), false),
});

export type PlaySettings = z.infer<typeof playSchema>;
export const DEFAULT_PLAY: PlaySettings = playSchema.parse({});
