/** Played notes as plans and licks keep them. */
import * as z from 'zod/mini';
import { NECK_LIMITS } from '$core/neck/neck';
import type { WrittenBeats } from '$core/time/units';
import { asMeant } from '$core/time/meant';

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

/** Beats as they are written, a third with all its digits. */
const inBeats = (...bounds: Parameters<z.ZodMiniNumber['check']>) =>
  z.number().check(...bounds, z.overwrite(asMeant)) as z.ZodMiniType<WrittenBeats, number>;

export const playedNoteSchema = z.object({
  beat: inBeats(z.minimum(-64), z.maximum(100_000)),
  beats: inBeats(z.gt(0), z.maximum(1_024)),
  string: z.int().check(z.minimum(1), z.maximum(NECK_LIMITS.strings.high)),
  fret,
  techniques: z.array(technique).check(z.maxLength(8)),
});
