/** Tells every browser that is open what the others save and play, as server-sent events. */
import { randomUUID } from 'node:crypto';
import { isShown, isWholeBook } from '$lib/kept/addresses';
import type { Message } from '$lib/live/messages';

/** Browsers at once; each holds a connection. */
const LIMIT = 64;
/** So often a silent connection says that it is there, in milliseconds. */
const SIGN_OF_LIFE = 20_000;

type Send = (chunk: string) => void;

const open = new Set<{ readonly send: Send; readonly end: () => void }>();

export function tellAll(message: Message): void {
  for (const { send } of open) send(`data: ${JSON.stringify(message)}\n\n`);
}

/** Of this run of the server: after another all may be different. */
const RUN = randomUUID();
let changes = 0;

/** Up to what has been told; a page that was made before knows less. */
export const toldSoFar = (): string => `${RUN} ${changes}`;

const tellDevices = () => tellAll({ kind: 'devices', count: open.size, told: toldSoFar() });

let endsWithProcess = false;

/** A server that is asked to stop waits for no stream. */
function endWithProcess(): void {
  if (endsWithProcess) return;
  endsWithProcess = true;
  const endAll = () => {
    for (const { end } of open) end();
  };
  process.once('sveltekit:shutdown', endAll);
}

/** A stream of messages to one browser; null when too many are open. */
export function liveStream(): ReadableStream<Uint8Array> | null {
  if (open.size >= LIMIT) return null;
  endWithProcess();
  const encoder = new TextEncoder();
  let leave = (): void => undefined;
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const send: Send = (chunk) => {
        try {
          controller.enqueue(encoder.encode(chunk));
        } catch {
          leave();
        }
      };
      const signs = setInterval(() => send(': here\n\n'), SIGN_OF_LIFE);
      signs.unref();
      const one = {
        send,
        end() {
          leave();
          controller.close();
        },
      };
      leave = () => {
        clearInterval(signs);
        if (open.delete(one)) tellDevices();
      };
      open.add(one);
      // A browser that loses its connection asks again this soon, in milliseconds.
      send('retry: 1000\n\n');
      tellDevices();
    },
    cancel: () => leave(),
  });
}

/** Tells of a request that has changed something. */
export function tellOfChange({ method }: Request, path: string, response: Response): void {
  if (method === 'GET' || method === 'HEAD' || !response.ok) return;
  if (!isShown(path) && !isWholeBook(path)) return;
  const revision = Number.parseInt(response.headers.get('etag')?.replace(/"/gu, '') ?? '', 10);
  changes += 1;
  const known = Number.isNaN(revision) ? null : revision;
  tellAll({ kind: 'changed', path, revision: known, told: toldSoFar() });
}
