/** The player's choices for a chart, kept beside its text. */
import { z } from 'zod';
import { LANES } from '$core/crossings/lanes';
import { INTENTS, LENSES } from '$core/lenses/lens';
import { EXERCISES } from '$core/exercises/kinds';
import { EXTENTS } from '$core/phrases/stages';
import { SUBDIVISIONS } from '$core/phrases/subdivision';
import { CONTOURS, PREFERENCES } from '$core/targets/kinds';
import { LAYER_KINDS } from '$core/neck/layers';
import { LABELS } from '$lib/neck/labels';

/** What is played over a chord: a lens, and by name what it gives; null for the first it gives. */
const choiceSchema = z.object({
  lens: z.enum(LENSES),
  name: z.string().max(80).nullable(),
  /** Another sound from some half bar of the chord on. */
  then: z
    .object({ name: z.string().max(80), after: z.int().min(1).max(32) })
    .nullable()
    .default(null),
});

export type PlanChoice = z.infer<typeof choiceSchema>;

/** What was chosen over a chord that the chart no longer has. */
const setAsideSchema = z.object({
  chord: z.string().max(80),
  bar: z.int(),
  choice: choiceSchema.nullable().default(null),
  intent: z.enum(INTENTS).nullable().default(null),
});

export type SetAside = z.infer<typeof setAsideSchema>;

/** What the strip draws under the chords. */
export const LANE_VIEWS = ['none', ...LANES, 'route'] as const;
export type LaneView = (typeof LANE_VIEWS)[number];

const place = z.object({ string: z.int().min(1).max(8), fret: z.int().min(0).max(36) });

/** What the route through the targets is chosen by. */
const targetsSchema = z.object({
  shown: z.boolean().default(false),
  prefer: z.array(z.enum(PREFERENCES)).min(1).max(8).default(['3', '7']),
  contour: z.enum(CONTOURS).nullable().default(null),
  /** Whether the hand may leave the zone. */
  free: z.boolean().default(false),
  /** Which of the routes offered is taken, the best by itself. */
  chosen: z.int().min(0).max(32).default(0),
});

export type TargetSettings = z.infer<typeof targetsSchema>;

/** An exercise kept with the chart. */
const sheetSchema = z.object({
  id: z.string().min(1).max(40),
  name: z.string().min(1).max(80),
  kind: z.enum(EXERCISES),
  subdivision: z.enum(SUBDIVISIONS),
  extent: z.enum(EXTENTS),
  from: z.int().min(0),
  zone: z.object({ low: z.int().min(0), high: z.int().max(36) }),
  strings: z.array(z.int().min(1).max(8)).min(1).max(8),
  seed: z.int().min(0).max(4_294_967_295),
});

export type Sheet = z.infer<typeof sheetSchema>;

export const planSchema = z.object({
  version: z.literal(2).default(2),
  /** The chords as played when choices were last made: what their indices count. */
  chords: z.array(z.string().max(80)).max(8_192).default([]),
  /** The bar each of those stood in. */
  bars: z.array(z.int()).max(8_192).default([]),
  /** The lens over a chord with no choice of its own. */
  base: z.enum(LENSES).default('own-pentatonic'),
  choices: z.record(z.string(), choiceSchema).default({}),
  intents: z.record(z.string(), z.enum(INTENTS)).default({}),
  setAside: z.array(setAsideSchema).max(512).default([]),
  targets: targetsSchema.prefault({}),
  /** Targets set by hand, by the chord's index. */
  pins: z.record(z.string(), place).default({}),
  /** Exercises kept, by name. */
  sheets: z.array(sheetSchema).max(200).default([]),
  /** Lenses ranked before others. */
  preferred: z.array(z.enum(LENSES)).default([]),
  lane: z.enum(LANE_VIEWS).default('definers'),
  /** What the ladder crosses. */
  crossing: z.enum(['chords', 'choices']).default('choices'),
  zone: z
    .object({ low: z.int().min(0), high: z.int().max(36) })
    .nullable()
    .default(null),
  labels: z.enum(LABELS).default('degree'),
  /** Shapes shown over the notes. */
  layers: z.array(z.enum(LAYER_KINDS)).default([]),
  /** The only strings shown, from the highest; all when null. */
  strings: z.array(z.int().min(1).max(8)).nullable().default(null),
  oneOctave: z.boolean().default(false),
  /** The instrument the chart is played on; the first one when null or gone. */
  instrument: z.string().nullable().default(null),
  /** What the strip shows large. */
  names: z.enum(['symbols', 'numerals']).default('symbols'),
});

export type Plan = z.infer<typeof planSchema>;

export const EMPTY_PLAN: Plan = planSchema.parse({});

const firstVersion = z.looseObject({
  version: z.literal(1).optional(),
  material: z.enum(['own-pentatonic', 'chord-tones']).optional(),
  choices: z.record(z.string(), z.enum(['own-pentatonic', 'chord-tones'])).default({}),
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

/** Reads a plan from what was kept, of whatever version; null when it is none. */
export function parsePlan(kept: unknown): Plan | null {
  const parsed = planSchema.safeParse(kept);
  if (parsed.success) return parsed.data;
  const older = planSchema.safeParse(fromFirst(kept));
  return older.success ? older.data : null;
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
