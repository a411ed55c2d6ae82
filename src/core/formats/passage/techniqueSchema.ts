/** Techniques as files and questions state them. */
import { z } from 'zod';
import { WIDEST_BEND } from '../../phrases/techniques';

const fret = z.int().min(0).max(36);

/** A technique as it is kept in JSON. */
export const techniqueSchema = z.union([
  z.object({
    kind: z.literal('bend'),
    by: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(WIDEST_BEND)]),
    release: z.boolean().optional(),
  }),
  z.object({ kind: z.literal('slide'), from: fret.optional(), to: fret.optional() }),
  z.object({
    kind: z.enum(['hammer-on', 'pull-off', 'vibrato', 'grace', 'mute', 'let-ring']),
  }),
]);
