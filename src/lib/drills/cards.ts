/** What the pages and the server agree on about cards. */
import * as z from 'zod/mini';
import { hashed } from '$core/random';

export const answerSchema = z.object({
  id: z.string().check(z.minLength(1), z.maxLength(200)),
  right: z.boolean(),
});

/** The seed of a card's question: another one each time the card comes. */
export const seedOf = (id: string, seen: number): number =>
  Math.floor(hashed(...[...id].map((letter) => letter.charCodeAt(0)), seen) * 1_000_000);
