/** What the pages and the server say to each other about licks. */
import * as z from 'zod/mini';
import { LICK_LIMITS } from '$core/licks/lick';
import { NECK_LIMITS } from '$core/neck/neck';
import { canBeKept } from '$lib/study/messages';

const text = (most: number) => z.string().check(z.maxLength(most), canBeKept);
const fret = z.int().check(z.minimum(0), z.maximum(36));
const bendSizes = [z.literal(1), z.literal(2), z.literal(3), z.literal(4)] as const;

const technique = z.union([
  z.object({
    kind: z.literal('bend'),
    by: z.union(bendSizes),
    release: z.optional(z.boolean()),
  }),
  z.object({ kind: z.literal('slide'), from: z.optional(fret), to: z.optional(fret) }),
  z.object({ kind: z.enum(['hammer-on', 'pull-off', 'vibrato', 'grace', 'mute', 'let-ring']) }),
]);

export const lickNote = z.object({
  beat: z.number().check(z.minimum(-64), z.maximum(100_000)),
  beats: z.number().check(z.gt(0), z.maximum(1_024)),
  string: z.int().check(z.minimum(1), z.maximum(NECK_LIMITS.strings.high)),
  fret,
  techniques: z.array(technique).check(z.maxLength(8)),
});

const content = {
  title: text(LICK_LIMITS.title),
  tags: z.array(text(LICK_LIMITS.tag)).check(z.maxLength(LICK_LIMITS.tags)),
  source: text(LICK_LIMITS.tag),
  chart: text(LICK_LIMITS.chart),
  notes: z.array(lickNote).check(z.maxLength(LICK_LIMITS.notes)),
};

export const lickRequest = z.object(content);
export const lickSaveRequest = z.object({
  revision: z.int().check(z.minimum(1)),
  ...content,
});

export const keptTags = content.tags;
export const keptNotes = content.notes;

const stored = z.object({ id: z.string(), revision: z.int(), ...content });
export type StoredLick = z.infer<typeof stored>;

export const lickAnswer = stored;
export const lickConflict = z.object({ current: stored });

/** Where a lick is put. */
export const putRequest = z.object({
  chart: z.string().check(z.maxLength(40)),
  index: z.int().check(z.minimum(0), z.maximum(8_192)),
  semitones: z.int().check(z.minimum(-24), z.maximum(24)),
});

export const placesAnswer = z.object({
  places: z.array(
    z.object({
      chart: z.string(),
      title: z.string(),
      index: z.int(),
      bar: z.int(),
      semitones: z.int(),
      match: z.string(),
      share: z.number(),
      sentence: z.string(),
    }),
  ),
});
export type LickPlaceShown = z.infer<typeof placesAnswer>['places'][number];
