/** What the pages and the server say to each other about licks. */
import * as z from 'zod/mini';
import { type Lick, LICK_LIMITS } from '$core/licks/lick';
import { canBeKept } from '$lib/study/messages';
import { playedNoteSchema } from '$lib/study/played';

const text = (most: number) => z.string().check(z.maxLength(most), canBeKept);
const content = {
  title: text(LICK_LIMITS.title),
  tags: z.array(text(LICK_LIMITS.tag)).check(z.maxLength(LICK_LIMITS.tags)),
  source: text(LICK_LIMITS.tag),
  chart: text(LICK_LIMITS.chart),
  notes: z.array(playedNoteSchema).check(z.maxLength(LICK_LIMITS.notes)),
};

export const lickRequest = z.object(content);
export const lickSaveRequest = z.object({
  revision: z.int().check(z.minimum(0)),
  ...content,
});

export const keptTags = content.tags;
export const keptNotes = content.notes;

const takeOf = text(60);
export const takeRequest = z.object({ takeOf, ...content });

const stored = z.object({
  id: z.string(),
  revision: z.int(),
  ...content,
  /** The chart it is a take of; null for a lick of the book. */
  takeOf: z._default(z.nullable(takeOf), null),
  /** Bytes of its sound, where that was kept. */
  sound: z._default(z.nullable(z.int()), null),
  /** When it was made. */
  made: z._default(z.string(), ''),
});
export type StoredLick = z.infer<typeof stored>;

/** What of a lick its writer says: the rest is the server's. */
export const contentOf = ({ title, tags, source, chart, notes }: Lick): Lick => ({
  title,
  tags,
  source,
  chart,
  notes,
});

/** What the list of licks shows of one, and is searched in. */
export type LickTitle = Pick<StoredLick, 'id' | 'title' | 'tags' | 'source' | 'chart'>;

export const licksAnswer = z.array(stored);
export const lickConflict = z.object({ current: stored });

/** Where a lick is put. */
export const putRequest = z.object({
  chart: z.string().check(z.maxLength(40)),
  index: z.int().check(z.minimum(0), z.maximum(8_192)),
  semitones: z.int().check(z.minimum(-24), z.maximum(24)),
  /** As a sheet to be played there, or as the tune's melody. */
  as: z._default(z.enum(['sheet', 'melody']), 'sheet'),
});
export type PutRequest = z.infer<typeof putRequest>;

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
  /** How many more there are than are listed. */
  more: z.int(),
});
export type LickPlacesShown = z.infer<typeof placesAnswer>;
export type LickPlaceShown = LickPlacesShown['places'][number];
