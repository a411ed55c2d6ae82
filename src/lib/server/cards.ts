/** Drill cards: what comes back when, by the scheduler; its state lives in the database. */
import { type Card as Scheduled, createEmptyCard, fsrs, type Grade, Rating } from 'ts-fsrs';
import { DRILL_KINDS, type DrillKind } from '$core/drills/kinds';
import { range } from '$core/lists';
import type { PracticeChart } from '$core/log/practice';
import type { Zone } from 'corvel-core';
import { type DrillCard, GENERAL_ZONES, seedOf, type Wanted } from '$lib/drills/cards';
import { commitTogether } from './commits';
import type { Db } from './database';
import { sql } from 'kysely';
import { readRows } from './texts';

/** Charts whose cards are met before the general ones, zones of each, cards of a sitting. */
const CHARTS = 3;
const ZONES = 2;
const SITTING = 10;

const scheduler = fsrs({ enable_fuzz: false });

/** What one who has no chart yet begins with, by the nut. */
const FIRST_KINDS: readonly DrillKind[] = ['name-note', 'hear-degree'];

type Card = Omit<DrillCard, 'seed' | 'seen'>;

const cardOf = (kind: DrillKind, chart: string | null, zone: Zone): Card => ({
  id: `${kind} ${chart ?? 'general'} ${zone.low}-${zone.high}`,
  kind,
  chart,
  zone,
});

/** Every card there may be of what is wanted, in the order in which they are met. */
function cardsOf(charts: readonly PracticeChart[], { kind, chart, zone }: Wanted): readonly Card[] {
  const some = chart === undefined ? charts : charts.filter(({ id }) => id === chart);
  const own = some.slice(0, CHARTS).flatMap(({ id, zones }) =>
    (zone ? [zone] : zones.slice(0, ZONES)).map((one) => ({
      chart: id as string | null,
      zone: one,
    })),
  );
  const general = {
    chart: null,
    zone: zone ?? GENERAL_ZONES[charts.length === 0 ? 0 : 1],
  };
  const kinds =
    charts.length > 0
      ? DRILL_KINDS
      : [...FIRST_KINDS, ...DRILL_KINDS.filter((one) => !FIRST_KINDS.includes(one))];
  return [...own, ...(chart === undefined || own.length === 0 ? [general] : [])].flatMap((where) =>
    (kind ? [kind] : kinds).map((one) => cardOf(one, where.chart, where.zone)),
  );
}

/**
 * The cards of a sitting: those that are due, the longest first; then such as were never met. What a player
 * asks for by its kind is dealt whether it is due or not, and as often as a sitting is long.
 */
export async function sitting(
  db: Db,
  charts: readonly PracticeChart[],
  now: number,
  wanted: Wanted = {},
): Promise<readonly DrillCard[]> {
  const rows = await readRows(db, 'card');
  const known = new Map(
    rows.map((row) => [String(row['id']), { due: Number(row['due']), seen: Number(row['seen']) }]),
  );
  const all = cardsOf(charts, wanted).map((card) => ({
    ...card,
    due: known.get(card.id)?.due ?? Infinity,
    seen: known.get(card.id)?.seen ?? 0,
  }));
  const due = all.filter((card) => card.due <= now).sort((a, b) => a.due - b.due);
  const fresh = all.filter((card) => card.due === Infinity);
  const later = wanted.kind ? all.filter((card) => card.due > now && card.due !== Infinity) : [];
  const dealt = [...due, ...fresh, ...later];
  const rounds = wanted.kind && dealt.length > 0 ? Math.ceil(SITTING / dealt.length) : 1;
  return range(0, rounds)
    .flatMap((round) => dealt.map((card) => ({ ...card, seen: card.seen + round })))
    .slice(0, SITTING)
    .map(({ id, kind, chart, zone, seen }) => ({
      id,
      kind,
      chart,
      zone,
      seed: seedOf(id, seen),
      seen,
    }));
}

function cardIn(state: string, now: number): Scheduled {
  try {
    const kept = JSON.parse(state) as Scheduled;
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
interface CardAnswer {
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
