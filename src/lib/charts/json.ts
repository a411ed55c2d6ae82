/**
 * A chart with its plan as JSON: `{"format":"corvel-chart","version":1,"text":"…","plan":{…}}`.
 * `docs/corvel-chart.schema.json` describes it.
 */
import { z } from 'zod';
import { CHART_LIMITS } from '$core/chart/syntax';
import { EMPTY_PLAN, parsePlan, planSchema, readPlan, writePlan } from '$lib/plan/plan';
import type { Opened } from './files';

export const JSON_FORMAT = 'corvel-chart';

export const documentSchema = z.object({
  format: z.literal(JSON_FORMAT),
  version: z.literal(1),
  /** Chart text. */
  text: z.string().max(CHART_LIMITS.characters * 4),
  plan: planSchema,
});

export const writeDocument = (text: string, plan: string): string =>
  `${JSON.stringify({ format: JSON_FORMAT, version: 1, text, plan: readPlan(plan) }, null, 2)}\n`;

const envelope = documentSchema.extend({ version: z.number(), plan: z.unknown() });

/** Reads a file of this format; a plan it cannot read is left out, and said. */
export function readDocument(json: string): Opened {
  let kept: unknown;
  try {
    kept = JSON.parse(json.replace(/^\uFEFF/u, ''));
  } catch {
    return { ok: false, message: 'This JSON is broken off or damaged.' };
  }
  const parsed = envelope.safeParse(kept);
  if (!parsed.success) return { ok: false, message: 'This JSON is no chart of Corvel’s.' };
  const { text, plan, version } = parsed.data;
  const read = parsePlan(plan ?? EMPTY_PLAN);
  const newer = version > 1 ? ['The file was written by a newer Corvel.'] : [];
  const lost = read ? [] : ['Its choices could not be read and are left out.'];
  return {
    ok: true,
    chart: { text, plan: read ? writePlan(read) : null, remarks: [...newer, ...lost] },
  };
}
