/**
 * What is only looked at on a chart: labels, layers, lanes. Kept with the chart, but no part of what
 * is edited: not undone, never in conflict, the last look wins.
 */
import * as z from 'zod/mini';
import { LANES } from '$core/crossings/lanes';
import { LAYER_KINDS } from '$core/neck/layers';
import { type DegreeName, DEGREES } from '$core/neck/only';
import { LABELS } from '$lib/neck/labelKinds';
import { DEFAULT_PLAY, or, playSchema } from './playing';

/** What the strip draws under the chords. */
export const LANE_VIEWS = ['none', ...LANES, 'route', 'melody'] as const;
export type LaneView = (typeof LANE_VIEWS)[number];

/** Two degrees of each chord that are shown together. */
const PAIRS = ['3-7', '1-3', '1-5', '1-7'] as const;

/** What alone the neck shows: every note, one or two degrees of each chord, or the targets. */
export const SHOWN_ONLY = ['all', ...DEGREES, ...PAIRS, 'targets'] as const;
type ShownOnly = (typeof SHOWN_ONLY)[number];

/** The degrees that are shown alone; null where it is every note, or the targets. */
export const degreesShown = (only: ShownOnly): readonly DegreeName[] | null =>
  only === 'all' || only === 'targets'
    ? null
    : DEGREES.filter((one) => only.split('-').includes(one));

export const ONLY_NAMES: Readonly<Record<ShownOnly, string>> = {
  all: 'All notes',
  '1': 'Roots only',
  '3': 'Thirds only',
  '5': 'Fifths only',
  '7': 'Sevenths only',
  '9': 'Ninths only',
  '11': 'Elevenths only',
  '13': 'Thirteenths only',
  '3-7': 'Thirds and sevenths',
  '1-3': 'Roots and thirds',
  '1-5': 'Roots and fifths',
  '1-7': 'Roots and sevenths',
  targets: 'Targets only',
};

/** What a key shows alone, in turn. */
const IN_TURN: readonly ShownOnly[] = ['all', '3', '7', '3-7', '1', '5', 'targets'];
export const onlyAfter = (only: ShownOnly): ShownOnly =>
  IN_TURN[(IN_TURN.indexOf(only) + 1) % IN_TURN.length] ?? 'all';

/** What the drawer under Plan's neck holds. */
export const LEAVES = ['scales', 'change', 'targets', 'style'] as const;
export type Leaf = (typeof LEAVES)[number];

export const viewSchema = z.object({
  version: z._default(z.literal(1), 1),
  labels: or(z.enum(LABELS), 'degree'),
  /** Shapes shown over the notes. */
  layers: or(z.array(z.enum(LAYER_KINDS)), []),
  /** The only strings shown, from the highest; all when null. */
  strings: or(z.nullable(z.array(z.int().check(z.minimum(1), z.maximum(8)))), null),
  only: or(z.enum(SHOWN_ONLY), 'all'),
  oneOctave: or(z.boolean(), false),
  /** What the strip shows large. */
  names: or(z.enum(['symbols', 'numerals']), 'symbols'),
  lane: or(z.enum(LANE_VIEWS), 'none'),
  /** Whether every line of the strip is opened to its lanes, or only that of now. */
  opened: or(z.boolean(), false),
  /** What the ladder crosses. */
  crossing: or(z.enum(['chords', 'choices']), 'chords'),
  /** Whether a sheet's notes have their degrees under them. */
  degrees: or(z.boolean(), true),
  /** Whether targets stand on the neck. */
  targets: or(z.boolean(), true),
  /** The leaf of the drawer that is open; null where it is closed. */
  leaf: or(z.nullable(z.enum(LEAVES)), null),
  /** How it is played with the band. */
  play: or(playSchema, DEFAULT_PLAY),
});

export type View = z.infer<typeof viewSchema>;

export const DEFAULT_VIEW: View = viewSchema.parse({});

/** Reads a kept view; what of it cannot be read is as it is by default. */
export function readView(json: string): View {
  try {
    const parsed = viewSchema.safeParse(JSON.parse(json));
    return parsed.success ? parsed.data : DEFAULT_VIEW;
  } catch {
    return DEFAULT_VIEW;
  }
}

/** The view that a plan of the first or second version held among its choices. */
export function viewInPlan(kept: unknown): Record<string, unknown> {
  if (typeof kept !== 'object' || kept === null) return {};
  const old = kept as Readonly<Record<string, unknown>>;
  const targets = old['targets'] as { readonly shown?: unknown } | undefined;
  const named = ['labels', 'layers', 'strings', 'oneOctave', 'names', 'lane', 'crossing'].filter(
    (name) => old[name] !== undefined,
  );
  return {
    ...Object.fromEntries(named.map((name) => [name, old[name]])),
    ...(old['lane'] === 'definers' ? { lane: 'guideTones' } : {}),
    ...(typeof targets?.shown === 'boolean' ? { targets: targets.shown } : {}),
  };
}
