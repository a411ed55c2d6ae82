/**
 * A chart with its plan as JSON: `{"format":"corvel-chart","version":1,"text":"…","plan":{…}}`.
 * `docs/corvel-chart.schema.json` describes it.
 */
import * as z from 'zod/mini';
import { CHART_LIMITS } from '$core/chart/syntax';
import { EMPTY_PLAN, parsePlan, planSchema, readPlan, writePlan } from '$lib/study/plan';
import { type View, viewInPlan, viewSchema } from '$lib/study/view';
import { type Refusal, refused } from '$core/formats/result';

/** A chart’s text, its plan as JSON, and how it is looked at. */
export interface ChartContent {
  readonly text: string;
  readonly plan: string;
  readonly view: View;
}

export interface OpenedChart {
  readonly text: string;
  /** The plan that came with it, as JSON; null where the file holds none. */
  readonly plan: string | null;
  /** How it was looked at; null where the file does not say. */
  readonly view: View | null;
  /** What tells it from the others of its file; its title where nothing is said. */
  readonly label?: string;
  /** What the chart could not take over, in sentences. */
  readonly remarks: readonly string[];
}

export type ChartOpened =
  | {
      readonly ok: true;
      readonly chart: OpenedChart;
      /** Where a file holds several: all of them, the first among them. */
      readonly choices?: readonly OpenedChart[];
    }
  | Refusal;

const JSON_FORMAT = 'corvel-chart';

export const documentSchema = z.object({
  format: z.literal(JSON_FORMAT),
  version: z.literal(1),
  /** Chart text. */
  text: z.string().check(z.maxLength(CHART_LIMITS.characters * 4)),
  plan: planSchema,
  /** How it was last looked at. */
  view: z.optional(viewSchema),
});

export const writeDocument = ({ text, plan, view }: ChartContent): string =>
  `${JSON.stringify({ format: JSON_FORMAT, version: 1, text, plan: readPlan(plan), view }, null, 2)}\n`;

const envelope = z.extend(documentSchema, {
  version: z.number(),
  plan: z.optional(z.unknown()),
  view: z.optional(z.unknown()),
});

/** Reads a file of this format; a plan it cannot read is left out, and said. */
export function readDocument(json: string): ChartOpened {
  let kept: unknown;
  try {
    kept = JSON.parse(json);
  } catch {
    return refused('This JSON is broken off or damaged.');
  }
  const parsed = envelope.safeParse(kept);
  if (!parsed.success) return refused('This JSON is no chart of Corvel’s.');
  const { text, plan, view, version } = parsed.data;
  const seen = viewSchema.safeParse(view ?? viewInPlan(plan));
  const read = parsePlan(plan ?? EMPTY_PLAN);
  const newer = version > 1 ? ['The file was written by a newer Corvel.'] : [];
  const lost = read ? [] : ['Its choices could not be read and are left out.'];
  return {
    ok: true,
    chart: {
      text,
      plan: read ? writePlan(read) : null,
      view: seen.success ? seen.data : null,
      remarks: [...newer, ...lost],
    },
  };
}
