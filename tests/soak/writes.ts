/** Every kind of write there is, each kept up while the server is killed, locked out or out of room. */
import { join } from 'node:path';
import Database from 'libsql';
import type { TestServer } from '../browser/harness';

const JSON_TYPE = { 'content-type': 'application/json' } as const;

export const send = (url: string, method: string, body: unknown): Promise<Response> =>
  fetch(url, { method, headers: JSON_TYPE, body: JSON.stringify(body) });

const json = async <T>(response: Response): Promise<T> => (await response.json()) as T;

/** Something that is written again and again: each write says what must be there once it is acknowledged. */
interface Writing {
  /** Writes once; whether it was acknowledged. Throws where nobody answers. */
  readonly write: () => Promise<number>;
  /** Whether the last acknowledged write, or a later one, is there. */
  readonly isKept: () => Promise<boolean>;
}

const STINT = {
  at: '2026-06-15T18:00:00+02:00',
  chart: 'general',
  exercise: 'free',
  zone: { low: 5, high: 8 },
  tempoFrom: 90,
  tempo: 96,
};
const LICK = { title: 'Soaked', tags: [], source: 'mine', chart: '| Dm7 | G7 |', notes: [] };
const wav = (bytes: number): Uint8Array<ArrayBuffer> => {
  const sound = new Uint8Array(bytes);
  sound.set(new TextEncoder().encode('RIFF....WAVE'));
  return sound;
};
const freshId = (): string => `soak${Math.random().toString(36).slice(2, 12).padEnd(10, '0')}`;

/** What is saved on a revision: the revision that was acknowledged last must be there. */
async function onRevision(
  path: string,
  begin: () => Promise<number>,
  content: (turn: number) => object,
  stands: () => Promise<number>,
): Promise<Writing> {
  let revision = await begin();
  return {
    async write() {
      const answer = await send(path, 'PUT', { revision, ...content(revision) });
      if (answer.ok) ({ revision } = await json<{ revision: number }>(answer));
      // What arrived without its answer is there already.
      else if (answer.status === 409)
        ({ revision } = (await json<{ current: { revision: number } }>(answer)).current);
      return answer.status;
    },
    isKept: async () => (await stands()) >= revision,
  };
}

const made = async (url: string, body: object): Promise<string> =>
  (await json<{ id: string }>(await send(url, 'POST', body))).id;

/** Each kind of write, on a thing of its own. */
export const WRITES: Readonly<Record<string, (server: TestServer) => Promise<Writing>>> = {
  async chart({ url }) {
    const id = await made(`${url}/api/charts`, { text: '| C |' });
    return onRevision(
      `${url}/api/charts/${id}`,
      async () => 1,
      (turn) => ({ text: `| C | // ${turn}`, plan: '{}' }),
      async () =>
        (await json<{ revision: number }>(await fetch(`${url}/api/charts/${id}`))).revision,
    );
  },
  async lick({ url }) {
    const id = await made(`${url}/api/licks`, LICK);
    return onRevision(
      `${url}/api/licks/${id}`,
      async () => 1,
      (turn) => ({ ...LICK, title: `Soaked ${turn}` }),
      async () =>
        (await json<{ revision: number }>(await fetch(`${url}/api/licks/${id}`))).revision,
    );
  },
  async stint({ url }) {
    const id = freshId();
    const stands = async () =>
      (await json<{ id: string; revision: number }[]>(await fetch(`${url}/api/stints`))).find(
        (one) => one.id === id,
      )?.revision ?? 0;
    return onRevision(
      `${url}/api/stints/${id}`,
      async () => 0,
      (turn) => ({ ...STINT, minutes: 1 + (turn % 1_000) }),
      stands,
    );
  },
  async settings({ url }) {
    const read = async () =>
      json<{ revision: number; instruments: object[] }>(await fetch(`${url}/api/settings`));
    const settings: Record<string, unknown> = { ...(await read()) };
    Reflect.deleteProperty(settings, 'revision');
    return onRevision(
      `${url}/api/settings`,
      async () => (await read()).revision,
      (turn) => ({ ...settings, input: `input ${turn}` }),
      async () => (await read()).revision,
    );
  },
  async card(server) {
    const id = `soak ${freshId()}`;
    let seen = 0;
    return {
      async write() {
        const body = { id, right: true, seen, answer: freshId() };
        const answer = await send(`${server.url}/api/cards`, 'POST', body);
        if (answer.ok) ({ seen } = await json<{ seen: number }>(answer));
        else if (answer.status === 409)
          ({ seen } = (await json<{ current: { seen: number } }>(answer)).current);
        return answer.status;
      },
      async isKept() {
        const file = new Database(join(server.data, 'corvel.sqlite'), { readonly: true });
        const row = file.prepare('select seen from card where id = ?').get(id) as
          { seen: number } | undefined;
        file.close();
        return (row?.seen ?? 0) >= seen;
      },
    };
  },
  async take({ url }) {
    const chart = await made(`${url}/api/charts`, { text: '| C |' });
    const kept: string[] = [];
    const sound = wav(60_000);
    return {
      async write() {
        const id = freshId();
        const path = `${url}/api/takes/${id}`;
        const answer = await send(path, 'PUT', { takeOf: chart, ...LICK });
        if (!answer.ok) return answer.status;
        const heard = await fetch(`${path}/sound`, {
          method: 'PUT',
          headers: { 'content-type': 'audio/wav' },
          body: sound,
        });
        if (heard.ok) kept.push(id);
        return heard.status;
      },
      async isKept() {
        const takes = await json<{ id: string; sound: number | null }[]>(
          await fetch(`${url}/api/takes?of=${chart}`),
        );
        for (const id of kept) {
          if (takes.find((one) => one.id === id)?.sound !== sound.length) return false;
          const heard = await fetch(`${url}/api/takes/${id}/sound`);
          if ((await heard.arrayBuffer()).byteLength !== sound.length) return false;
        }
        return true;
      },
    };
  },
  async log({ url }) {
    const kept: string[] = [];
    let at = Date.parse('2020-01-01T00:00:00Z') + Math.floor(Math.random() * 1e9) * 1_000;
    return {
      async write() {
        const stints = Array.from({ length: 50 }, () => ({
          ...STINT,
          minutes: 5,
          at: new Date((at += 1_000)).toISOString(),
        }));
        const answer = await send(`${url}/api/stints`, 'PUT', { stints });
        if (answer.ok) kept.push(...stints.map((one) => one.at));
        return answer.status;
      },
      async isKept() {
        const all = await json<{ at: string }[]>(await fetch(`${url}/api/stints`));
        const there = new Set(all.map((one) => one.at));
        return kept.every((one) => there.has(one));
      },
    };
  },
  async archive({ url }) {
    const archive = await (await fetch(`${url}/api/archive`)).arrayBuffer();
    return {
      write: async () =>
        (
          await fetch(`${url}/api/archive?mode=merge`, {
            method: 'POST',
            headers: { 'content-type': 'application/zip' },
            body: archive,
          })
        ).status,
      // Everything it held is still there: taking it in once more would change nothing.
      isKept: async () => {
        const answer = await fetch(`${url}/api/archive?mode=merge&preview=1`, {
          method: 'POST',
          headers: { 'content-type': 'application/zip' },
          body: archive,
        });
        return (await answer.text()).includes('Nothing is new');
      },
    };
  },
};

export interface KillResult {
  readonly kills: number;
  readonly acknowledged: number;
  readonly lost: readonly string[];
  /** Answers that were a fault of the server's. */
  readonly faults: number;
}

/** Writes one after another until nobody answers or it is time to stop. */
async function keepWriting(
  { write }: Writing,
  counts: { acknowledged: number; faults: number },
  until = Infinity,
): Promise<void> {
  while (Date.now() < until) {
    try {
      const status = await write();
      if (status < 300) counts.acknowledged += 1;
      else if (status >= 500 && status !== 503) counts.faults += 1;
    } catch {
      return;
    }
  }
}

/**
 * Kills the server in the midst of every kind of write in turn, a fifth of the times while another program
 * holds the lock for a while. What was acknowledged must be there afterwards.
 */
export async function killInWrites(
  server: TestServer,
  kills: number,
  kinds: readonly string[] = Object.keys(WRITES),
): Promise<KillResult> {
  const counts = { acknowledged: 0, faults: 0 };
  const lost: string[] = [];
  for (let kill = 0; kill < kills; kill++) {
    const kind = kinds[kill % kinds.length] ?? '';
    const writing = await WRITES[kind]?.(server);
    if (!writing) continue;
    const held = kill % 5 === 4 ? new Database(join(server.data, 'corvel.sqlite')) : null;
    held?.exec('begin immediate');
    const release = setTimeout(() => held?.exec('rollback'), 40);
    const burst = keepWriting(writing, counts);
    await new Promise((resolve) => setTimeout(resolve, 60 + ((kill * 37) % 240)));
    await server.kill('SIGKILL');
    await burst;
    clearTimeout(release);
    held?.close();
    await server.restart();
    if (!(await writing.isKept())) lost.push(kind);
  }
  return { kills, ...counts, lost };
}

export interface RoomResult {
  /** How each kind of write was answered when there was no room: refused in words, or kept after all. */
  readonly answers: Readonly<Record<string, readonly number[]>>;
  readonly lost: readonly string[];
  /** Whether everything can be saved again once there is room. */
  readonly again: boolean;
}

/** Every kind of write on a disk without room; `fill` takes what there is, `free` gives it back. */
export async function writeWithoutRoom(
  server: TestServer,
  fill: () => void,
  free: () => void,
): Promise<RoomResult> {
  const writings = new Map<string, Writing>();
  for (const [kind, begin] of Object.entries(WRITES)) writings.set(kind, await begin(server));
  const answers: Record<string, number[]> = {};
  const lost: string[] = [];
  fill();
  for (const [kind, { write }] of writings) {
    answers[kind] = [];
    for (let turn = 0; turn < 3; turn++) answers[kind].push(await write().catch(() => 0));
  }
  free();
  await server.kill('SIGKILL');
  await server.restart();
  let again = true;
  for (const [kind, { write, isKept }] of writings) {
    if (!(await isKept())) lost.push(kind);
    again &&= (await write()) < 300;
  }
  return { answers, lost, again };
}

/** Every kind of write while another program holds the lock: kept late, or refused in words. */
export async function writeUnderLock(
  server: TestServer,
  milliseconds: number,
): Promise<KillResult> {
  const counts = { acknowledged: 0, faults: 0 };
  const lost: string[] = [];
  for (const [kind, begin] of Object.entries(WRITES)) {
    const writing = await begin(server);
    const held = new Database(join(server.data, 'corvel.sqlite'));
    held.exec('begin immediate');
    const release = setTimeout(() => held.exec('rollback'), milliseconds);
    await keepWriting(writing, counts, Date.now() + milliseconds + 300);
    clearTimeout(release);
    held.close();
    if (!(await writing.isKept())) lost.push(kind);
  }
  return { kills: 0, ...counts, lost };
}
