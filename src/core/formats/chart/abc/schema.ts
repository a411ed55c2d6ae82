/** The shape of what abcjs tells of a tune. */
import { z } from 'zod';

const optional = <T extends z.ZodType>(type: T) => z.optional(type).catch(undefined);

/** What abcjs tells of a sign on a staff, as far as a chart and its melody need it. */
const signSchema = z.object({
  el_type: z.string(),
  title: optional(z.string()),
  type: optional(z.string()),
  startEnding: optional(z.string()),
  duration: optional(z.number()),
  startTriplet: optional(z.number()),
  endTriplet: optional(z.unknown()),
  tripletMultiplier: optional(z.number()),
  chord: optional(z.array(z.object({ name: z.string(), position: optional(z.string()) }))),
  pitches: optional(
    z.array(
      z.object({
        pitch: z.number(),
        accidental: optional(z.string()),
        startTie: optional(z.unknown()),
        endTie: optional(z.unknown()),
      }),
    ),
  ),
  rest: optional(z.object({ type: z.string(), text: optional(z.number()) })),
  root: optional(z.string()),
  acc: optional(z.string()),
  mode: optional(z.string()),
  accidentals: optional(z.array(z.object({ acc: z.string(), note: z.string() }))),
  value: optional(z.array(z.object({ num: z.coerce.number(), den: z.coerce.number() }))),
});
/** A sign on a staff. */
export type Sign = z.output<typeof signSchema>;

const keySchema = signSchema.pick({ root: true, acc: true, mode: true, accidentals: true });
export type AbcKey = z.output<typeof keySchema>;

/** A tune, line by line, staff by staff. */
export const tuneSchema = z.object({
  metaText: z.object({
    title: optional(z.string()),
    rhythm: optional(z.string()),
    partOrder: optional(z.string()),
    tempo: optional(
      z.object({ bpm: optional(z.number()), duration: optional(z.array(z.number())) }),
    ),
  }),
  lines: z.array(
    z.object({
      staff: optional(
        z.array(
          z.object({
            key: optional(keySchema),
            meter: optional(
              z.object({ type: optional(z.string()), value: signSchema.shape.value }),
            ),
            voices: z.array(z.array(signSchema)),
          }),
        ),
      ),
    }),
  ),
  warnings: optional(z.array(z.string())),
});
export type Tune = z.output<typeof tuneSchema>;
