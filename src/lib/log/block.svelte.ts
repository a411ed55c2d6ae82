/** The block of a session that a screen was opened for: which it is, what is left of it, what comes next. */
import { untrack } from 'svelte';
import * as z from 'zod/mini';
import { goto } from '$app/navigation';
import { page } from '$app/state';
import { EXTENTS } from '$core/time/extent';
import { reached } from '$lib/ui/server';
import { blockAddress, sessionAt, sessionOver } from './links';

const answer = z.object({
  blocks: z.array(
    z.object({
      minutes: z.number(),
      chart: z.string(),
      title: z.string(),
      exercise: z.string(),
      zone: z.object({ low: z.number(), high: z.number() }),
      extent: z.enum(EXTENTS),
      index: z.optional(z.number()),
      tempo: z.number(),
      reason: z.string(),
    }),
  ),
});
type SessionBlock = z.infer<typeof answer>['blocks'][number];

const MINUTE = 60;

/**
 * The block this screen is for; null where the address names no session. Its time runs while something is
 * practised, as `practising` says.
 */
export function createBlock(practising: () => boolean) {
  const { searchParams } = untrack(() => page.url);
  const session = searchParams.get('session');
  const place = Number(searchParams.get('block') ?? NaN) - 1;
  if (session === null || !Number.isInteger(place) || place < 0) return null;

  let blocks = $state.raw<readonly SessionBlock[]>([]);
  let seconds = $state(0);
  $effect(() => {
    void reached(`/api/session?${session}`, 'GET').then(async (response) => {
      const read = answer.safeParse(await response?.json().catch(() => null));
      if (read.success) blocks = read.data.blocks;
    });
  });
  $effect(() => {
    if (!practising()) return;
    let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now();
      seconds += (now - last) / 1_000;
      last = now;
    }, 1_000);
    return () => clearInterval(timer);
  });

  const block = $derived(blocks[place] ?? null);
  const next = $derived(blocks[place + 1] ?? null);
  const onward = $derived(next ? blockAddress(next, session, place + 1) : sessionOver(session));

  return {
    get block() {
      return block;
    },
    /** From 1, and of how many. */
    number: place + 1,
    get count() {
      return blocks.length;
    },
    /** Seconds of it that are left; 0 once it is over. */
    get left() {
      return block ? Math.max(0, MINUTE * block.minutes - seconds) : 0;
    },
    get over() {
      return block !== null && seconds >= MINUTE * block.minutes;
    },
    get next() {
      return next;
    },
    /** Where the session goes on, and where it ends early or is looked at. */
    get onward() {
      return onward;
    },
    end: sessionOver(session),
    whole: sessionAt(session, place),
    goOn: () => void goto(onward),
  };
}

export type SessionPlace = NonNullable<ReturnType<typeof createBlock>>;
