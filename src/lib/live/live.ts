/**
 * Hears what other devices on the same server save and play. One page of a browser listens for all of its
 * pages that are seen: a browser opens only a few connections to one server.
 */
import { isWholeBook } from '$lib/kept/addresses';
import { alone } from '$lib/kept/storage';
import { freshId } from '$lib/ui/ids';
import { type Message, messageSchema, type StageMessage } from './messages';

type Of<K extends Message['kind']> = Extract<Message, { kind: K }>;

const hearers = new Set<(message: Message) => void>();
const missed = new Set<() => void>();

/** This page, by which it knows what it has said itself. */
export const PAGE = freshId();

/** Calls back for each message of a kind; the answer ends it. */
export function onMessage<K extends Message['kind']>(
  kind: K,
  hear: (message: Of<K>) => void,
): () => void {
  const one = (message: Message) => {
    if (message.kind === kind) hear(message as Of<K>);
  };
  hearers.add(one);
  return () => hearers.delete(one);
}

/** Calls back when the connection is there again: messages may have been missed. */
export function onReturn(look: () => void): () => void {
  missed.add(look);
  return () => missed.delete(look);
}

/** Something may have been missed: whoever can asks for what it shows. */
function lookAgain(): void {
  for (const look of missed) look();
}

let devices = 1;

/** Browsers that are open on this server, as it last said. */
export const devicesOpen = (): number => devices;

function hear(message: Message): void {
  if (message.kind === 'devices') devices = message.count;
  // After a whole book was taken in, anything may be another.
  if (message.kind === 'changed' && isWholeBook(message.path)) lookAgain();
  for (const one of hearers) one(message);
}

type Told =
  | { readonly message: Message }
  | { readonly returned: true }
  /** A page that is new asks up to what has been told; the one that listens answers. */
  | { readonly asks: true }
  | { readonly told: string };

/**
 * Listens while the page is seen; the answer ends it.
 *
 * @param known up to what had been told when the page was made: what was saved before it listens is missed
 */
export function listen(known: string): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  const channel =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('corvel:live');
  /** Up to what has been told here; null as long as this page has heard nothing. */
  let told: string | null = null;
  function compare(now: string): void {
    if (told === null && now !== known) lookAgain();
    told = now;
  }
  const take = (one: Told) => {
    if ('message' in one) {
      if ('told' in one.message) compare(one.message.told);
      hear(one.message);
    } else if ('told' in one) compare(one.told);
    else if ('returned' in one) lookAgain();
    else if (release && told !== null) channel?.postMessage({ told } satisfies Told);
  };
  if (channel) channel.onmessage = ({ data }: MessageEvent<Told>) => take(data);
  let release: (() => void) | null = null;
  let wanted = false;

  function begin(): void {
    wanted = true;
    if (release) return;
    // Held until it is released: the next page that waits goes on listening then.
    void alone(
      'live',
      () =>
        new Promise<void>((resolve) => {
          if (!wanted) {
            resolve();
            return;
          }
          const source = new EventSource('/api/live');
          let opened = 0;
          const pass = (told: Told) => {
            take(told);
            channel?.postMessage(told);
          };
          source.onopen = () => {
            opened += 1;
            if (opened > 1) pass({ returned: true });
          };
          source.onmessage = ({ data }: MessageEvent<string>) => {
            const read = messageSchema.safeParse(JSON.parse(data));
            if (read.success) pass({ message: read.data });
          };
          release = () => {
            release = null;
            source.close();
            resolve();
          };
        }),
    ).catch(() => undefined);
  }
  function end(): void {
    wanted = false;
    release?.();
  }

  const look = () => (document.visibilityState === 'visible' ? begin() : end());
  // A page that was not seen, on a tablet that slept, has heard nothing meanwhile.
  const seen = () => {
    look();
    if (document.visibilityState === 'visible') take({ returned: true });
  };
  look();
  channel?.postMessage({ asks: true } satisfies Told);
  document.addEventListener('visibilitychange', seen);
  return () => {
    document.removeEventListener('visibilitychange', seen);
    end();
    channel?.close();
  };
}

/** Says where this page's stage is, where anybody may follow it. */
export function tellStage(at: Omit<StageMessage, 'kind' | 'page'>): void {
  if (devices < 2) return;
  const body = JSON.stringify({ kind: 'stage', page: PAGE, ...at } satisfies StageMessage);
  const headers = { 'content-type': 'application/json' };
  // One that is lost is followed by the next.
  fetch('/api/live', { method: 'POST', headers, body }).catch(() => undefined);
}
