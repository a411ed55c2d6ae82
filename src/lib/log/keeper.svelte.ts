/** The log writes itself: what is played is a stint from half a minute on, and grows while it goes on. */
import { onDestroy, untrack } from 'svelte';
import { freshId } from '$lib/ui/ids';
import { keepStint } from './api';
import { type Going, keyOf, type Playing, stintOf } from './going';
import { localMoment, type Said, STINT } from './messages';

/** How often a stint that goes on is kept, in milliseconds. */
const EVERY = 15_000;

/** What of it stands in the log, or waits here for the server. */
export interface KeptSoFar {
  readonly minutes: number;
  readonly said: Said | null;
  readonly waiting: boolean;
}

/** Keeps what is played, where anything is: another thing or another zone is another stint. */
export function keepsStints(playing: () => Playing | null) {
  let going: Going | null = null;
  let kept = $state.raw<KeptSoFar | null>(null);
  /** How it stands while it is played; it is not there any more when that has ended. */
  let latest: Playing | null = null;

  function write(one: Going) {
    const content = stintOf(one, latest ?? one.began, performance.now());
    if (content.minutes < STINT.least) return;
    const so = { minutes: content.minutes, said: one.said };
    void keepStint(one.id, content).then(({ kind }) => {
      // What is refused was taken out of the log meanwhile, or is told by whoever sends it.
      if (kind !== 'refused') kept = { ...so, waiting: kind === 'waiting' };
    });
  }

  const key = $derived.by(() => {
    const now = playing();
    return now && keyOf(now);
  });
  $effect(() => {
    const now = playing();
    if (now) latest = now;
  });
  $effect(() => {
    if (key === null) return;
    const now = untrack(playing);
    if (!now) return;
    latest = now;
    const began: Going = {
      at: localMoment(),
      since: performance.now(),
      began: now,
      id: freshId(),
      asked: 0,
      landed: 0,
      said: null,
    };
    going = began;
    const timer = setInterval(() => write(began), EVERY);
    return () => {
      clearInterval(timer);
      write(began);
    };
  });
  onDestroy(() => (going = null));

  return {
    /** The stint that was kept last, if any. */
    get kept() {
      return kept;
    },
    /** The player's own word for how it went. */
    say(said: Said) {
      if (!going) return;
      going.said = said;
      write(going);
    },
    /** What was heard of it: so many asked for, so many landed. */
    heard({ asked, landed }: { readonly asked: number; readonly landed: number }) {
      if (!going) return;
      going.asked += asked;
      going.landed += landed;
      // What is judged after it has ended was not in what was written then.
      if (untrack(playing) === null) write(going);
    },
  };
}

export type Keeper = ReturnType<typeof keepsStints>;
