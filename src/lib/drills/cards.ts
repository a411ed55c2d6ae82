/** What the pages and the server agree on about cards. */
import * as z from 'zod/mini';
import type { DrillKind } from '$core/drills/kinds';
import type { Zone } from 'corvel-core';
import { hashed } from '$core/random';

/** A question that is due. */
export interface DrillCard {
  readonly id: string;
  readonly kind: DrillKind;
  /** The chart it is made from; null for a general one. */
  readonly chart: string | null;
  readonly zone: Zone;
  /** What its question is drawn from: another one each time it comes. */
  readonly seed: number;
  /** How often it was answered; 0 where it is met for the first time. */
  readonly seen: number;
}

/** What a player asks to be dealt; nothing for whatever is due. */
export interface Wanted {
  readonly kind?: DrillKind | undefined;
  /** A chart's id; one that is not there asks for general questions. */
  readonly chart?: string | undefined;
  readonly zone?: Zone | undefined;
}

/** Where general questions are asked: the first where there is no chart yet, the second otherwise. */
export const GENERAL_ZONES = [
  { low: 0, high: 4 },
  { low: 5, high: 8 },
  { low: 7, high: 11 },
  { low: 12, high: 16 },
] as const satisfies readonly Zone[];

export const answerSchema = z.object({
  id: z.string().check(z.minLength(1), z.maxLength(200)),
  right: z.boolean(),
  /** The answer's own id, so that one that is sent twice counts once. */
  answer: z.optional(z.string().check(z.minLength(8), z.maxLength(60))),
  /** How often the card had been answered when it was dealt. */
  seen: z.optional(z.int().check(z.minimum(0))),
});

/** The seed of a card's question: another one each time the card comes. */
export const seedOf = (id: string, seen: number): number =>
  Math.floor(hashed(...[...id].map((letter) => letter.charCodeAt(0)), seen) * 1_000_000);
