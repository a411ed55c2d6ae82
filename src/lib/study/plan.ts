/** The player's choices for a chart, kept beside its text. */
import * as z from 'zod/mini';

import { INTENTS } from '$core/lenses/lens';
import { LENSES } from '$core/lenses/table';
import { EXERCISES } from 'corvel-core';
import { BEGINNINGS, DIRECTIONS, PATTERN_LIMITS } from '$core/exercises/kinds';
import { EXTENTS } from '$core/lines/spans';
import { LINE_STYLES } from '$core/lines/styles';
import { SUBDIVISIONS } from '$core/time/subdivision';
import { CONTOURS, PREFERENCES } from '$core/targets/kinds';
import type { LickNote } from '$core/licks/sounding';
import { playedNoteSchema } from './played';
import { notesToKeep } from '$core/licks/kept';

const PLAN_VERSION = 3;

const text = (most: number, least = 0) => z.string().check(z.minLength(least), z.maxLength(most));
const within = (least: number, most: number) => z.int().check(z.minimum(least), z.maximum(most));
const listOf = <T extends z.core.SomeType>(item: T, least: number, most: number) =>
  z.array(item).check(z.minLength(least), z.maxLength(most));
const orNull = <T extends z.core.SomeType>(schema: T) => z._default(z.nullable(schema), null);

const zoneSchema = z.object({
  low: z.int().check(z.minimum(0)),
  high: z.int().check(z.maximum(36)),
});

/** What is played over a chord: a lens, and by name what it gives; null for the first it gives. */
const choiceSchema = z.object({
  lens: z.enum(LENSES),
  name: z.nullable(text(80)),
  /** Another sound from some half bar of the chord on. */
  then: orNull(z.object({ name: text(80), after: within(1, 32) })),
});

export type PlanChoice = z.infer<typeof choiceSchema>;

const place = z.object({ string: within(1, 8), fret: within(0, 36) });

/** What was chosen over a chord that the chart no longer has. */
const setAsideSchema = z.object({
  chord: text(80),
  bar: z.int(),
  choice: orNull(choiceSchema),
  intent: orNull(z.enum(INTENTS)),
  pin: orNull(place),
});

export type SetAside = z.infer<typeof setAsideSchema>;

/** What the route through the targets is chosen by. */
const targetsSchema = z.object({
  prefer: z._default(listOf(z.enum(PREFERENCES), 1, 8), ['3', '7']),
  contour: orNull(z.enum(CONTOURS)),
  /** Whether the hand may leave the zone. */
  free: z._default(z.boolean(), false),
  /** Which of the routes offered is taken, the best by itself. */
  chosen: z._default(within(0, 32), 0),
});

export type TargetSettings = z.infer<typeof targetsSchema>;

/** Longest melody kept with a chart, in characters of JSON: some two hundred notes. */
export const KEPT_PASSAGE_LIMIT = 60_000;

/** Notes of a melody at the most. */
const MELODY_LIMIT = 2_048;

/** Notes as a plan keeps its melody; null for none, and for more than it keeps. */
export const asMelody = (notes: readonly LickNote[]): Plan['melody'] =>
  notes.length === 0 || notes.length > MELODY_LIMIT ? null : notesToKeep(notes);

/** An exercise or a melody kept with the chart. */
const practiceSheetSchema = z.object({
  id: text(40, 1),
  name: text(80, 1),
  kind: z.enum(EXERCISES),
  subdivision: z.enum(SUBDIVISIONS),
  extent: z.enum(EXTENTS),
  from: z.int().check(z.minimum(0)),
  zone: zoneSchema,
  strings: listOf(within(1, 8), 1, 8),
  /** Notes to a group, in groups. */
  group: z._default(within(3, 4), 4),
  seed: within(0, 4_294_967_295),
  /** How a line is played; null by the chart's feel and idiom. */
  style: orNull(z.enum(LINE_STYLES)),
  /** Octaves a melody is moved by; null for the nearest. */
  octave: orNull(within(-1, 1)),
  /** The tone of each chord an exercise begins on; null for the root. */
  begin: orNull(z.enum(BEGINNINGS)),
  /** How the player's own pattern is played; null as it is typed. */
  direction: orNull(z.enum(DIRECTIONS)),
  /** The player's own pattern, as he types it. */
  pattern: orNull(text(PATTERN_LIMITS.characters)),
  /** A melody kept as it is, as passage JSON; null for an exercise made from the rest. */
  passage: orNull(text(KEPT_PASSAGE_LIMIT)),
});

export type PracticeSheet = z.infer<typeof practiceSheetSchema>;

/** Two sheets under one id would be one row drawn twice. */
const onceById = <T extends { readonly id: string }>(items: readonly T[]): T[] =>
  items.filter(({ id }, index) => items.findIndex((one) => one.id === id) === index);

export const planSchema = z.object({
  version: z._default(z.literal(PLAN_VERSION), PLAN_VERSION),
  /** The chords as played when choices were last made: what their indices count. */
  chords: z._default(listOf(text(80), 0, 8_192), []),
  /** The bar each of those stood in. */
  bars: z._default(listOf(z.int(), 0, 8_192), []),
  /** The lens over a chord with no choice of its own; null takes what ranks first. */
  base: orNull(z.enum(LENSES)),
  choices: z._default(z.record(z.string(), choiceSchema), {}),
  intents: z._default(z.record(z.string(), z.enum(INTENTS)), {}),
  setAside: z._default(listOf(setAsideSchema, 0, 512), []),
  targets: z.prefault(targetsSchema, {}),
  /** Targets set by hand, by the chord's index. */
  pins: z._default(z.record(z.string(), place), {}),
  /** Exercises kept, by name. */
  sheets: z._default(
    z.pipe(
      listOf(practiceSheetSchema, 0, 8_192),
      z.transform((sheets) => onceById(sheets)),
    ),
    [],
  ),
  /** The tune's melody, as it is played; null where there is none. */
  melody: orNull(listOf(playedNoteSchema, 0, MELODY_LIMIT)),
  /** Lenses ranked before others. */
  preferred: z._default(z.array(z.enum(LENSES)), []),
  zone: orNull(zoneSchema),
  /** The instrument the chart is played on; the first one when null or gone. */
  instrument: orNull(z.string()),
});

export type Plan = z.infer<typeof planSchema>;

export const EMPTY_PLAN: Plan = planSchema.parse({});

const firstVersion = z.looseObject({
  version: z.optional(z.literal(1)),
  material: z.optional(z.enum(['own-pentatonic', 'chord-tones'])),
  choices: z._default(z.record(z.string(), z.enum(['own-pentatonic', 'chord-tones'])), {}),
});

/** A plan of the first version, whose choices were a lens for each chord and no more. */
function fromFirst(kept: unknown): unknown {
  const parsed = firstVersion.safeParse(kept);
  if (!parsed.success) return kept;
  const { material, choices, ...rest } = parsed.data;
  const widened = Object.entries(choices).map(([index, lens]) => [index, { lens, name: null }]);
  return {
    ...rest,
    version: 2,
    ...(material ? { base: material } : {}),
    choices: Object.fromEntries(widened) as unknown,
  };
}

const secondVersion = z.looseObject({
  version: z.literal(2),
  targets: z.optional(z.looseObject({ prefer: z.optional(z.array(z.string())) })),
});

/** A plan of the second version, which held the view too and named guide tones otherwise. */
function fromSecond(kept: unknown): unknown {
  const parsed = secondVersion.safeParse(kept);
  if (!parsed.success) return kept;
  const { targets, ...rest } = parsed.data;
  const prefer = targets?.prefer?.map((one) => (one === 'definers' ? 'guideTones' : one));
  return { ...rest, version: 3, targets: { ...targets, ...(prefer ? { prefer } : {}) } };
}

/** Reads a plan from what was kept, of whatever version; null when it is none. */
export function parsePlan(kept: unknown): Plan | null {
  const parsed = planSchema.safeParse(fromSecond(fromFirst(kept)));
  return parsed.success ? parsed.data : null;
}

/** Whether a kept plan is of a version that this Corvel does not know yet. */
export function isNewerPlan(json: string): boolean {
  try {
    const { version } = JSON.parse(json) as { readonly version?: unknown };
    return typeof version === 'number' && version > PLAN_VERSION;
  } catch {
    return false;
  }
}

/** Reads a saved plan; anything unreadable becomes the empty plan. */
export function readPlan(json: string): Plan {
  try {
    return parsePlan(JSON.parse(json)) ?? EMPTY_PLAN;
  } catch {
    return EMPTY_PLAN;
  }
}

export const writePlan = (plan: Plan): string => JSON.stringify(plan);
