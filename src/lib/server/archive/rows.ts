/** What an archive holds: the tables with the shape of each row, as every door lets them in. */
import { z } from 'zod';
import { EXTENTS } from '$core/time/extent';
import { bpm, count, fret, STINT } from '$lib/log/messages';

export const FORMAT = 'corvel-archive';
export const VERSION = 1;

const text = (most: number) => z.string().max(most);
const moment = z.iso.datetime({ offset: true });
const maybe = <T extends z.ZodType>(schema: T) => schema.nullable();
const id = z.string().min(1).max(200);

const chartRow = z.object({
  id,
  title: text(2_000),
  text: text(400_000),
  plan: text(2_000_000),
  view: text(400_000),
  key: maybe(text(60)),
  tempo: maybe(z.number()),
  bars: maybe(z.number()),
  created_at: moment,
  updated_at: moment,
  opened_at: maybe(moment),
});
const lickRow = z.object({
  id,
  title: text(2_000),
  tags: text(10_000),
  source: text(2_000),
  chart: text(40_000),
  notes: text(2_000_000),
  created_at: moment,
  updated_at: moment,
  // Not in archives of before there were takes.
  take_of: maybe(text(200)).default(null),
  sound: maybe(z.int()).default(null),
});
const stintRow = z
  .object({
    id,
    at: moment,
    time: z.number(),
    chart: text(200),
    exercise: text(60),
    low: fret,
    high: fret,
    extent: z.enum(EXTENTS),
    tempo_from: bpm,
    tempo: bpm,
    minutes: z.number().min(0).max(STINT.most),
    asked: count,
    landed: count,
    note: text(2_000),
    earlier_rule: z.int().min(0).max(1).optional(),
  })
  // Archives of before there was one rule of landing do not say by which they were judged.
  .transform(({ earlier_rule, ...row }) => ({
    ...row,
    // The moment is what it was; the number only repeats it.
    time: Date.parse(row.at),
    earlier_rule: earlier_rule ?? (row.asked === null || row.exercise === 'drills' ? 0 : 1),
  }));
/** What the scheduler keeps of a card. */
const isCardState = (json: string): boolean => {
  try {
    return cardState.safeParse(JSON.parse(json)).success;
  } catch {
    return false;
  }
};
const cardState = z.looseObject({
  due: moment,
  stability: z.number(),
  difficulty: z.number(),
  reps: z.int(),
  state: z.int(),
});
const cardRow = z.object({
  id,
  state: text(20_000).refine(isCardState),
  due: z.number(),
  seen: z.int().min(0),
});

/** The tables that are kept, each a file of the archive; what differs by no more than these is the same. */
export const TABLES = {
  chart: { file: 'charts.json', row: chartRow, words: 'charts' },
  lick: { file: 'licks.json', row: lickRow, words: 'licks and takes' },
  stint: { file: 'log.json', row: stintRow, words: 'stints' },
  card: { file: 'cards.json', row: cardRow, words: 'drill cards' },
} as const;
export type Name = keyof typeof TABLES;
export const NAMES = Object.keys(TABLES) as readonly Name[];
export const SETTINGS = 'settings.json';
export const SOUND = /^takes\/([\w-]{1,60})\.wav$/u;

export type Rows = { readonly [N in Name]: readonly z.infer<(typeof TABLES)[N]['row']>[] };

/** A row, as far as all tables have it. */
export type Row = Readonly<Record<string, unknown>> & { readonly id: string };

/** What is read back of an archive. Its file stays open until it is let go, for the sounds in it. */
export interface Archive {
  readonly rows: Rows;
  /** Settings as JSON; null where there are none. */
  readonly settings: string | null;
  /** The takes whose sound is in it. */
  readonly sounds: ReadonlySet<string>;
  readonly soundOf: (take: string) => Promise<Uint8Array>;
  readonly close: () => void;
}
