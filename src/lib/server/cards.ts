/** Drill cards: what comes back when, by the scheduler; its state lives in the database. */
import { type Card, createEmptyCard, fsrs, type Grade, Rating } from 'ts-fsrs';
import { DRILL_KINDS } from '$core/drills/drills';
import type { PracticeChart } from '$core/log/session';
import type { Zone } from '$core/neck/neck';
import { type DrillCard, seedOf } from '$lib/drills/cards';
import { commitTogether } from './commits';
import type { Db } from './database';
import { sql } from 'kysely';
import { readRows } from './texts';

/** Charts whose cards are met before the general ones, zones of each, cards of a sitting. */
const CHARTS = 3;
const ZONES = 2;
const SITTING = 10;
const GENERAL_ZONE: Zone = { low: 5, high: 8 };

const scheduler = fsrs({ enable_fuzz: false });

/** Every card there may be, in the order in which they are met. */
function cardsOf(charts: readonly PracticeChart[]): readonly Omit<DrillCard, 'seed' | 'seen'>[] {
  const own = charts
    .slice(0, CHARTS)
    .flatMap(({ id, zones }) =>
      zones.slice(0, ZONES).map((zone) => ({ chart: id as string | null, zone })),
    );
  return [...own, { chart: null, zone: GENERAL_ZONE }].flatMap(({ chart, zone }) =>
    DRILL_KINDS.map((kind) => ({
      id: `${kind} ${chart ?? 'general'} ${zone.low}-${zone.high}`,
      ...{ kind, chart, zone },
    })),
  );
}

/** The cards of a sitting: those that are due, the longest first; then such as were never met. */
export async function sitting(
  db: Db,
  charts: readonly PracticeChart[],
  now: number,
): Promise<readonly DrillCard[]> {
  const rows = await readRows(db, 'card');
  const known = new Map(
    rows.map((row) => [String(row['id']), { due: Number(row['due']), seen: Number(row['seen']) }]),
  );
  const all = cardsOf(charts).map((card) => {
    const row = known.get(card.id);
    const seen = row?.seen ?? 0;
    return { ...card, due: row?.due ?? Infinity, seed: seedOf(card.id, seen), seen };
  });
  const due = all.filter((card) => card.due <= now).sort((a, b) => a.due - b.due);
  const fresh = all.filter((card) => card.due === Infinity);
  return [...due, ...fresh]
    .slice(0, SITTING)
    .map(({ id, kind, chart, zone, seed, seen }) => ({ id, kind, chart, zone, seed, seen }));
}

function cardIn(state: string, now: number): Card {
  try {
    const kept = JSON.parse(state) as Card;
    return {
      ...kept,
      due: new Date(kept.due),
      ...(kept.last_review ? { last_review: new Date(kept.last_review) } : {}),
    };
  } catch {
    return createEmptyCard(new Date(now));
  }
}

/** A card as an answer finds it: how often it was answered, and when it comes back. */
export interface CardState {
  readonly seen: number;
  readonly due: number;
}

/** An answer to a card: its own id, and how often the card had been answered when it was dealt. */
export interface CardAnswer {
  readonly id: string;
  readonly right: boolean;
  readonly answer?: string | undefined;
  readonly seen?: number | undefined;
}

export type Answered =
  | { readonly kind: 'saved'; readonly card: CardState }
  /** It was answered elsewhere since it was dealt. */
  | { readonly kind: 'conflict'; readonly current: CardState };

/** Takes an answer, one that is sent twice only once; when the card comes back. */
export const answerCard = (
  db: Db,
  { id, right, answer, seen }: CardAnswer,
  now: number,
): Promise<Answered> =>
  commitTogether(db, async (transaction): Promise<Answered> => {
    const [row] = await readRows(transaction, 'card', sql`id = ${id}`);
    const current = { seen: Number(row?.['seen'] ?? 0), due: Number(row?.['due'] ?? now) };
    if (answer !== undefined && row?.['answer'] === answer) return { kind: 'saved', card: current };
    if (seen !== undefined && seen !== current.seen) return { kind: 'conflict', current };
    const card = row ? cardIn(String(row['state']), now) : createEmptyCard(new Date(now));
    // A clock set back must not make the scheduler count below nothing.
    const at = new Date(Math.max(now, card.last_review?.getTime() ?? 0));
    const grade: Grade = right ? Rating.Good : Rating.Again;
    const next = scheduler.next(card, at, grade).card;
    const after = { seen: current.seen + 1, due: next.due.getTime() };
    const values = { state: JSON.stringify(next), answer: answer ?? null, ...after };
    await transaction
      .insertInto('card')
      .values({ id, ...values })
      .onConflict((conflict) => conflict.column('id').doUpdateSet(values))
      .execute();
    return { kind: 'saved', card: after };
  });
