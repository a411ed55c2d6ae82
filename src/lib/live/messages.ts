/** What devices that are open on one server tell each other. */
import * as z from 'zod/mini';

/** Up to what has been told: another than a page knows means that it has missed something. */
const told = z.string().check(z.maxLength(60));

/** Something was saved: its address, and the revision it now has where it has one. */
const changedSchema = z.object({
  kind: z.literal('changed'),
  path: z.string().check(z.maxLength(300)),
  revision: z.nullable(z.int()),
  told,
});

/** How many browsers are open. */
const devicesSchema = z.object({ kind: z.literal('devices'), count: z.int(), told });

/** Where the stage of a browser is. */
export const stageSchema = z.object({
  kind: z.literal('stage'),
  /** The page that says it, which does not follow itself. */
  page: z.string().check(z.minLength(1), z.maxLength(60)),
  chart: z.string().check(z.minLength(1), z.maxLength(60)),
  playing: z.boolean(),
  /** The chord sounding, of the chart as it is played. */
  index: z.int().check(z.minimum(0), z.maximum(100_000)),
  /** Half steps above the written key. */
  shift: z.int().check(z.minimum(-24), z.maximum(24)),
  zone: z.object({
    low: z.int().check(z.minimum(0), z.maximum(40)),
    high: z.int().check(z.minimum(0), z.maximum(40)),
  }),
});

export const messageSchema = z.discriminatedUnion('kind', [
  changedSchema,
  devicesSchema,
  stageSchema,
]);

export type StageMessage = z.infer<typeof stageSchema>;
export type Message = z.infer<typeof messageSchema>;
