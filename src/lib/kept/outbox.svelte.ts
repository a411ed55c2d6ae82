/**
 * The outbox: what a player has done, kept in this browser until the server has acknowledged it. It is sent
 * at once, again every few seconds while the server is away, and by the next page where this one is gone.
 * Whatever is made has an id of the page's own, so that what is sent twice is there once; what is saved
 * states the revision it was made on, and two changes of one thing are put together field by field.
 */
import { browser } from '$app/environment';
import { dequal } from 'dequal/lite';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import * as z from 'zod/mini';
import { callServer, messageOf } from '$lib/ui/server';
import { message, warn } from '$lib/ui/messages.svelte';
import {
  acknowledge,
  acknowledgedAt,
  acknowledgedSchema,
  announce,
  fieldsSchema,
} from './acknowledged';
import { type Fields, merge } from './merge';
import { dropSound, keepSound, soundOf } from './sounds';
import { alone, keep, kept, keysOf, letGo } from './storage';

/** Milliseconds before what did not arrive is sent again. */
const AGAIN = 3_000;
const PREFIX = 'corvel:out:';

const parcelSchema = z.object({
  /** Where it goes; what goes to one address by PUT takes the place of what waits for it. */
  path: z.string(),
  method: z.enum(['PUT', 'POST']),
  fields: fieldsSchema,
  /** The revision it was made on; null for what has none. */
  revision: z.nullable(z.int()),
  /** What it was changed from; null for what is new. */
  base: z.nullable(fieldsSchema),
  /** What may have arrived already, though no answer came; each that was tried, the earliest first. */
  sent: z._default(z.array(fieldsSchema), []),
  /** When it was done: what goes to one address goes in this order. */
  at: z._default(z.number(), 0),
  /** What it is, as a sentence says it: “The stint”. */
  what: z.string(),
  /** Whether a sound belongs to it, and goes where it went. */
  sound: z._default(z.boolean(), false),
  /** Whether this browser remembers how it was acknowledged, for pages that are older than that. */
  remember: z._default(z.boolean(), false),
  /** Where both have changed the same: how it stands there, until the player has chosen. */
  theirs: z._default(z.nullable(acknowledgedSchema), null),
});

type Parcel = z.infer<typeof parcelSchema>;

/** What is to be sent. */
interface Sending {
  readonly path: string;
  readonly method?: 'PUT' | 'POST';
  readonly fields: Fields;
  readonly revision?: number;
  readonly base?: Fields | null;
  readonly what: string;
  readonly sound?: Blob | null;
  readonly remember?: boolean;
}

export type Sent =
  | { readonly kind: 'kept'; readonly revision: number | null }
  /** The server is away: it waits here. */
  | { readonly kind: 'waiting' }
  | { readonly kind: 'refused'; readonly message: string };

const parcels = new SvelteMap<string, Parcel>();

let away = $state<'no' | 'away' | 'locked'>('no');
let lasting = $state(true);
let timer: ReturnType<typeof setTimeout> | undefined;

/** What goes by PUT takes the place of what waits for its address; what goes by POST has an id in `answer`. */
const keyOf = ({ path, method, fields }: Pick<Sending, 'path' | 'method' | 'fields'>): string =>
  method === 'POST' ? `${path}#${String(fields['answer'])}` : path;

/** What waits, as it was done. */
const inOrder = (): readonly Parcel[] => [...parcels.values()].sort((a, b) => a.at - b.at);

/** This moment, and never the same twice. */
let last = 0;
const moment = (): number => (last = Math.max(Date.now(), last + 1));

function hold(key: string, parcel: Parcel) {
  parcels.set(key, parcel);
  lasting = keep(PREFIX + key, parcel) && lasting;
}

function release(key: string) {
  parcels.delete(key);
  letGo(PREFIX + key);
}

/** As it stands: another page may have sent or changed it. */
function current(key: string): Parcel | null {
  const stored = parcelSchema.safeParse(kept(PREFIX + key));
  if (stored.success) return stored.data;
  // A browser that keeps nothing has it in memory only.
  return lasting ? null : (parcels.get(key) ?? null);
}

const AWAY: Sent = { kind: 'waiting' };
const answerSchema = z.object({ revision: z.int() });
const conflictSchema = z.object({ current: z.looseObject({ revision: z.optional(z.int()) }) });

/** Sends the sound of what has arrived; whether it is done with. */
async function sendSound(key: string, path: string): Promise<boolean> {
  const sound = await soundOf(key);
  if (!sound) return true;
  const response = await fetch(`${path}/sound`, {
    method: 'PUT',
    headers: { 'content-type': 'audio/wav' },
    body: sound,
  }).catch(() => null);
  if (!response || isAway(response.status)) return false;
  if (!response.ok) warn(`The sound was not kept. ${await messageOf(response)}`);
  await dropSound(key);
  return true;
}

/** What may go better in a while: the server is not well, asks for its passcode, or has too much to do. */
const isAway = (status: number): boolean =>
  status >= 500 || status === 401 || status === 408 || status === 429;

/** Those of some fields that others have too. */
const pick = (from: Fields, names: Fields): Fields =>
  Object.fromEntries(Object.keys(names).map((name) => [name, from[name]]));
const standsAs = (own: Fields, there: Fields): boolean => dequal(own, pick(there, own));

/** So many of what was tried are remembered: the first, which may have arrived as the server went, and the last. */
const TRIED = { first: 3, last: 5 } as const;

function tried(sent: readonly Fields[], fields: Fields): Fields[] {
  const all = sent.some((one) => dequal(one, fields)) ? [...sent] : [...sent, fields];
  return all.length <= TRIED.first + TRIED.last
    ? all
    : [...all.slice(0, TRIED.first), ...all.slice(-TRIED.last)];
}

/**
 * Someone else has saved it: both changes are put together where they do not touch; where they do, the
 * player chooses. Null where it can be sent again.
 */
function meet(
  key: string,
  parcel: Parcel,
  there: z.infer<typeof conflictSchema>['current'],
): Sent | null {
  const { revision, ...fields } = there;
  if (revision === undefined) {
    release(key);
    return {
      kind: 'refused',
      message: `${parcel.what} was kept elsewhere meanwhile; that one stands.`,
    };
  }
  // What stands there may be one's own, of which the answer never came.
  const base = parcel.sent.find((one) => standsAs(one, fields)) ?? parcel.base;
  const { fields: both, disputed } = merge(base, parcel.fields, fields);
  if (disputed.length === 0) {
    hold(key, { ...parcel, fields: both, revision, base: pick(fields, both) });
    return null;
  }
  hold(key, { ...parcel, theirs: { fields: pick(fields, both), revision } });
  return choose(key);
}

/** What the player is being asked about on this page. */
const asked = new SvelteSet<string>();

function choose(key: string): Sent {
  const parcel = current(key);
  if (parcel?.theirs && !asked.has(key)) {
    asked.add(key);
    const { theirs } = parcel;
    message(`${parcel.what} was changed elsewhere too.`, {
      duration: Infinity,
      action: {
        label: 'Keep mine',
        onClick: () => {
          asked.delete(key);
          hold(key, { ...parcel, revision: theirs.revision, base: theirs.fields, theirs: null });
          void flush(key);
        },
      },
      cancel: {
        label: 'Keep theirs',
        onClick: () => {
          asked.delete(key);
          acknowledge(parcel.path, theirs, parcel.remember);
          release(key);
          announce(parcel.path);
        },
      },
    });
  }
  return { kind: 'refused', message: '' };
}

async function sendNow(key: string): Promise<Sent> {
  for (;;) {
    const parcel = current(key);
    if (!parcel) {
      parcels.delete(key);
      return { kind: 'kept', revision: acknowledgedAt(key)?.revision ?? null };
    }
    if (parcel.theirs) return choose(key);
    const { path, method, revision, fields } = parcel;
    hold(key, { ...parcel, sent: tried(parcel.sent, fields) });
    const body = revision === null ? fields : { ...fields, revision };
    const response = await callServer(path, method, body);
    if (response === null || response === 'late' || isAway(response.status)) {
      away =
        response !== null && response !== 'late' && response.status === 401 ? 'locked' : 'away';
      return AWAY;
    }
    if (response.ok) {
      if (parcel.sound && !(await sendSound(key, path))) {
        away = 'away';
        return AWAY;
      }
      const answer = answerSchema.safeParse(await response.json().catch(() => null));
      const now = answer.success ? answer.data.revision : null;
      if (now !== null) acknowledge(path, { revision: now, fields }, parcel.remember);
      // What was changed while this was under way goes next, on what is there now.
      const later = current(key);
      if (later && !dequal(later.fields, fields)) {
        hold(key, { ...later, revision: now, base: fields, sent: [] });
        continue;
      }
      release(key);
      announce(path);
      return { kind: 'kept', revision: now };
    }
    const stale = response.status === 409 ? conflictSchema.safeParse(await response.json()) : null;
    if (stale?.success) {
      const met = meet(key, parcel, stale.data.current);
      if (met) return met;
      continue;
    }
    release(key);
    await dropSound(key);
    return { kind: 'refused', message: await messageOf(response) };
  }
}

/** Sends something, after what was done before it and goes to the same address. */
const flush = async (key: string): Promise<Sent> => {
  const { path, at } = parcels.get(key) ?? { path: key, at: 0 };
  const earlier = inOrder().filter((one) => one.path === path && one.at < at);
  const sent = await alone(`out:${path}`, async () => {
    for (const one of earlier) {
      const before = await sendNow(keyOf(one));
      if (before.kind === 'waiting') return before;
    }
    return sendNow(key);
  });
  if (sent.kind === 'waiting') later();
  else away = 'no';
  return sent;
};

function later() {
  clearTimeout(timer);
  timer = setTimeout(() => void flushAll(), AGAIN);
}

/** Reads what waits in this browser, of this page and of others. */
function takeUp() {
  for (const key of keysOf(PREFIX)) {
    const found = parcelSchema.safeParse(kept(key));
    if (found.success) parcels.set(key.slice(PREFIX.length), found.data);
    else letGo(key);
  }
}
// Before the page that wants to know what waits.
if (browser) takeUp();

/** Sends whatever waits in this browser, of this page and of those that are gone. */
async function flushAll(): Promise<void> {
  takeUp();
  for (const parcel of inOrder()) {
    const sent = await flush(keyOf(parcel));
    if (sent.kind === 'waiting') return;
    if (sent.kind === 'refused' && sent.message !== '') warn(sent.message);
  }
}

/** Keeps what was done, and sends it. */
export async function send({
  path,
  method = 'PUT',
  fields,
  what,
  sound,
  ...made
}: Sending): Promise<Sent> {
  const key = keyOf({ path, method, fields });
  const before = current(key);
  const known = acknowledgedAt(path);
  const own = made.revision ?? null;
  // What waits was made on what it says; else the newest that is known of.
  const ground = before ?? (known && known.revision >= (own ?? 0) ? known : null);
  const revision = ground ? ground.revision : own;
  const base = before
    ? before.base
    : ground === known && known
      ? known.fields
      : (made.base ?? null);
  if (sound) lasting = (await keepSound(key, sound)) && lasting;
  hold(key, {
    // As it will be read again: what is undefined is not there.
    path,
    method,
    what,
    revision,
    at: before?.at ?? moment(),
    fields: JSON.parse(JSON.stringify(fields)) as Fields,
    base: base && { ...base },
    sent: before?.sent ?? [],
    theirs: before?.theirs ?? null,
    remember: made.remember ?? false,
    sound: (sound ?? null) !== null || before?.sound === true,
  });
  return flush(key);
}

/** What waits to be saved at an address; null where nothing does. */
export const waitingAt = (path: string): Parcel | null => parcels.get(path) ?? null;

/** What waits to be sent to an address or below it, as it was done. */
export const waitingBelow = (path: string): readonly Parcel[] =>
  inOrder().filter((parcel) => parcel.path.startsWith(path));

/** Takes up what an earlier visit left, once a page is there. */
export function openOutbox(): () => void {
  const soon = () => void flushAll();
  soon();
  window.addEventListener('online', soon);
  return () => window.removeEventListener('online', soon);
}

export const outbox = {
  /** How many things wait for the server. */
  get waiting() {
    return parcels.size;
  },
  /** Why they were not taken when they were sent last: nobody answers, or the passcode is asked for again. */
  get away() {
    return away;
  },
  /** Whether this browser keeps what waits beyond this page. */
  get lasting() {
    return lasting;
  },
};
