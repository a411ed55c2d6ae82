/** What the pages and the server say to each other about charts. */
import { z } from 'zod';
import { CHART_LIMITS } from '$core/chart/syntax';

/** Longer than a readable chart may be: what was typed is kept even when it cannot be read. */
const TEXT_LIMIT = CHART_LIMITS.characters * 4;

export const createRequest = z.object({
  text: z.string().max(TEXT_LIMIT),
  plan: z.string().max(TEXT_LIMIT).optional(),
});

export const saveRequest = z.object({
  revision: z.int().min(1),
  text: z.string().max(TEXT_LIMIT),
  plan: z.string().max(TEXT_LIMIT),
});

export const renameRequest = z.object({ title: z.string().trim().min(1).max(200) });

export const saveAnswer = z.object({ revision: z.int() });

/** The body of a 409: what stands on the server now. */
export const conflictAnswer = z.object({
  error: z.object({ code: z.literal('conflict'), message: z.string() }),
  current: z.object({ text: z.string(), plan: z.string(), revision: z.int() }),
});
