/** Care of the hands, by the clock: a rest after half an hour of playing, the cautions once a day. */
import { browser } from '$app/environment';
import { dayOf } from '$core/time/moments';
import { localMoment } from './messages';

const HALF_HOUR = 30 * 60_000;
/** A pause this long is a rest, in milliseconds. */
const RESTED = 3 * 60_000;
const LOOKED = 15_000;

/** What is remembered from page to page while the browser's tab is open, and from day to day. */
const PLAYED = 'corvel-played';
const CAUTIONED = 'corvel-cautioned';

export interface Played {
  /** Milliseconds played without a rest, and when that was last looked at. */
  readonly played: number;
  readonly last: number;
}

/** Adds up the time something plays, in milliseconds of the clock; one set back adds nothing. */
export function playedOn({ played, last }: Played, now: number, playing: boolean): Played {
  if (now - last > RESTED) return { played: 0, last: now };
  return { played: played + (playing ? Math.max(0, now - last) : 0), last: now };
}

/** A browser may refuse to remember; then it is only for this page. */
function remembered(store: () => Storage, key: string): string | null {
  try {
    return store().getItem(key);
  } catch {
    return null;
  }
}
function remember(store: () => Storage, key: string, value: string) {
  try {
    store().setItem(key, value);
  } catch {
    // It is for this page only.
  }
}

function playedBefore(): Played {
  const [played = 0, last = 0] = (remembered(() => sessionStorage, PLAYED) ?? '')
    .split(' ')
    .map(Number);
  return Number.isFinite(played) && Number.isFinite(last)
    ? { played, last }
    : { played: 0, last: 0 };
}

let sofar: Played = browser ? playedBefore() : { played: 0, last: 0 };
let due = $state(false);
let cautions = $state(false);

function look(playing: boolean) {
  sofar = playedOn(sofar, Date.now(), playing);
  due = sofar.played >= HALF_HOUR;
  remember(() => sessionStorage, PLAYED, `${sofar.played} ${sofar.last}`);
}

/** What a screen that plays shows of it. */
export function takesCare(playing: () => boolean) {
  $effect(() => {
    if (!playing()) return;
    const today = dayOf(localMoment());
    if (remembered(() => localStorage, CAUTIONED) !== today) {
      cautions = true;
      remember(() => localStorage, CAUTIONED, today);
    }
    look(false);
    const timer = setInterval(() => look(true), LOOKED);
    return () => {
      clearInterval(timer);
      look(true);
    };
  });
}

export const care = {
  /** Whether half an hour was played without a rest. */
  get restDue() {
    return due;
  },
  /** Whether the day's cautions are to be seen. */
  get cautions() {
    return cautions;
  },
  noted() {
    if (due) sofar = { played: 0, last: Date.now() };
    due = false;
    cautions = false;
  },
};
