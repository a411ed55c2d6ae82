/** The player's choices for a chart, kept beside its text. */
import { z } from 'zod';
import { MATERIAL_KINDS } from '$core/lenses/material';
import { LAYER_KINDS } from '$core/neck/layers';
import { LABELS } from '$lib/neck/labels';

const planSchema = z.object({
  version: z.literal(1).default(1),
  /** What is played over a chord with no choice of its own. */
  material: z.enum(MATERIAL_KINDS).default('own-pentatonic'),
  /** Choices by the chord's index as played. */
  choices: z.record(z.string(), z.enum(MATERIAL_KINDS)).default({}),
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

/** Reads a saved plan; anything unreadable becomes the empty plan. */
export function readPlan(json: string): Plan {
  try {
    const parsed = planSchema.safeParse(JSON.parse(json));
    return parsed.success ? parsed.data : EMPTY_PLAN;
  } catch {
    return EMPTY_PLAN;
  }
}

export const writePlan = (plan: Plan): string => JSON.stringify(plan);
