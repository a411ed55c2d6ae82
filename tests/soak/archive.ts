/** A very large book out and in again, while others go on saving. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { dequal } from 'dequal/lite';
import { unzipSync } from 'fflate';
import Database from 'libsql';
import { megabytesOf, type TestServer } from '../browser/harness';
import { send } from './writes';

export interface BookSize {
  readonly charts: number;
  readonly licks: number;
  readonly stints: number;
  readonly takes: number;
  /** Bytes of each take's sound. */
  readonly sound: number;
}

type Row = Readonly<Record<string, unknown>>;

/** Fills the book of a server that is stopped: copies of what the demo has. */
export function fillBook(data: string, size: BookSize): void {
  const file = new Database(join(data, 'corvel.sqlite'));
  const all = (table: string) => file.prepare(`select * from ${table}`).all() as Row[];
  const put = (table: string, row: Row) => {
    const names = Object.keys(row);
    const marks = names.map(() => '?').join(', ');
    file
      .prepare(`insert into ${table} (${names.join(', ')}) values (${marks})`)
      .run(...names.map((name) => row[name]));
  };
  const [charts, licks, stints] = [all('chart'), all('lick'), all('stint')];
  mkdirSync(join(data, 'takes'), { recursive: true });
  file.exec('begin');
  for (let one = 0; one < size.charts; one++) {
    const chart = charts[one % charts.length] as Row;
    const title = `Soaked ${one}`;
    const text = String(chart['text']).replace(/title:.*/u, `title: ${title}`);
    put('chart', { ...chart, id: `soakchart${one}`, title, text });
  }
  for (let one = 0; one < size.licks; one++)
    put('lick', {
      ...(licks[0] as Row),
      id: `soaklick${one}`,
      title: `Soaked ${one}`,
      source: 'mine',
    });
  for (let one = 0; one < size.stints; one++) {
    const time = Date.parse('2020-01-01T00:00:00Z') + one * 3_600_000;
    const at = new Date(time).toISOString();
    const chart = `soakchart${one % 400}`;
    put('stint', { ...(stints[0] as Row), id: `soakstint${one}`, time, at, chart });
  }
  for (let one = 0; one < size.takes; one++) {
    const id = `soaktake${one}`;
    const sound = new Uint8Array(size.sound).map((_, at) => (at * 31 + one * 7 + (at >> 7)) & 255);
    sound.set(new TextEncoder().encode('RIFF....WAVE'));
    writeFileSync(join(data, 'takes', `${id}.wav`), sound);
    put('lick', { ...(licks[0] as Row), id, take_of: 'soakchart0', sound: size.sound });
  }
  file.exec('commit');
  file.close();
}

export interface Beside {
  readonly seconds: number;
  readonly saves: number;
  /** Of the server's own time for a save, in milliseconds. */
  readonly p99: number;
  readonly longest: number;
  /** The server's memory at its most, in megabytes. */
  readonly memory: number;
}

/** Pages that save, and how often each does, in milliseconds: two hundred saves a second together. */
const PAGES = 8;
const EVERY = 40;

/** Does something while pages save, each at its own moments, as pages of several players do. */
async function beside(server: TestServer, work: () => Promise<void>): Promise<Beside> {
  const took: number[] = [];
  let going = true;
  let memory = 0;
  const page = async (_: unknown, place: number) => {
    const made = await send(`${server.url}/api/charts`, 'POST', { text: '| C |' });
    const { id } = (await made.json()) as { id: string };
    let due = began + (place * EVERY) / PAGES;
    for (let revision = 1; going;) {
      // What could not be saved in time is not made up for: a page saves once for all that was typed.
      do due += EVERY;
      while (due < performance.now());
      await sleep(due - performance.now());
      const body = { revision, text: `| C | // ${revision}`, plan: '{}' };
      const answer = await send(`${server.url}/api/charts/${id}`, 'PUT', body);
      took.push(Number(/dur=([\d.]+)/u.exec(answer.headers.get('server-timing') ?? '')?.[1]));
      ({ revision } = (await answer.json()) as { revision: number });
      memory = Math.max(memory, megabytesOf(server.pid()));
    }
  };
  const began = performance.now();
  const pages = Array.from({ length: PAGES }, page);
  await work();
  const seconds = (performance.now() - began) / 1_000;
  going = false;
  await Promise.all(pages);
  took.sort((a, b) => a - b);
  const p99 = took[Math.floor(took.length * 0.99)] ?? 0;
  return { seconds, saves: took.length, p99, longest: took.at(-1) ?? 0, memory };
}

export interface ArchiveResult {
  readonly out: Beside;
  readonly back: Beside;
  /** Whether what went out a second time is what went out first, byte for byte. */
  readonly same: boolean;
}

const archiveOf = async ({ url }: TestServer): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await (await fetch(`${url}/api/archive`)).arrayBuffer());

/** Whether two archives hold the same files, byte for byte; a manifest says when each was made. */
function holdSame(one: Uint8Array, other: Uint8Array): boolean {
  const filter = ({ name }: { readonly name: string }) => name !== 'manifest.json';
  const [files, others] = [unzipSync(one, { filter }), unzipSync(other, { filter })];
  const names = Object.keys(files);
  return (
    dequal(names, Object.keys(others)) &&
    names.every((name) => Buffer.compare(files[name] ?? NONE, others[name] ?? NONE) === 0)
  );
}
const NONE = new Uint8Array();

/** The book of one server goes out, and into another's, and out of that. */
export async function archiveThere(from: TestServer, into: TestServer): Promise<ArchiveResult> {
  // A server that has just begun compiles what it runs.
  for (const server of [from, into]) await beside(server, () => sleep(8_000));
  const first = await archiveOf(from);
  const out = await beside(from, async () => void (await archiveOf(from)));
  const take = async (mode: string) => {
    const answer = await fetch(`${into.url}/api/archive?mode=${mode}`, {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: first,
    });
    if (!answer.ok) throw new Error(await answer.text());
  };
  const back = await beside(into, () => take('merge'));
  await take('replace');
  const again = await archiveOf(into);
  const same = holdSame(again, first);
  return { out, back, same };
}
