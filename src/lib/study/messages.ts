/** What the pages and the server say to each other about charts. */
import * as z from 'zod/mini';
import { CHART_LIMITS } from '$core/chart/syntax';
import { viewSchema } from './view';

/** Longer than a readable chart may be: what was typed is kept even when it cannot be read. */
const TEXT_LIMIT = CHART_LIMITS.characters * 4;

/** A database cuts a text at a NUL, and half of a surrogate pair is no character. */
export const canBeKept = z.refine<string>((text) => !text.includes('\0') && text.isWellFormed(), {
  error: 'it holds a NUL or half of a character, which cannot be kept',
});

/** A chart as the Book lists it. */
export interface ChartSummary {
  readonly id: string;
  readonly title: string;
  readonly key: string | null;
  readonly tempo: number | null;
  readonly bars: number | null;
  readonly openedAt: string | null;
  readonly updatedAt: string;
  /** Whether bytes of it were lost; what could be saved is shown. */
  readonly damaged: boolean;
}

/** A chart as it is kept, with what was chosen over it. */
export interface ChartDocument extends ChartSummary {
  readonly text: string;
  readonly plan: string;
  /** How it was last looked at, as JSON. */
  readonly view: string;
  readonly revision: number;
}

const keptText = z.string().check(z.maxLength(TEXT_LIMIT), canBeKept);

export const createRequest = z.object({
  text: keptText,
  plan: z.optional(keptText),
  view: z.optional(viewSchema),
});

export const saveRequest = z.object({
  revision: z.int().check(z.minimum(0)),
  text: keptText,
  plan: keptText,
});

export const renameRequest = z.object({
  title: z.string().check(z.trim(), z.minLength(1), z.maxLength(200), canBeKept),
});

export const saveAnswer = z.object({ revision: z.int() });

/** A chart as it stands on the server. */
export const storedAnswer = z.object({ text: z.string(), plan: z.string(), revision: z.int() });

/** The body of a 409: what stands on the server now. */
export const conflictAnswer = z.object({
  error: z.object({ code: z.literal('conflict'), message: z.string() }),
  current: storedAnswer,
});
