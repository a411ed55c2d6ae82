/** How the server bears a stream of saves, and how much memory it keeps. */
import { closeSync, fsyncSync, openSync, readFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import type { TestServer } from '../browser/harness';
import { type Figure, quantile } from './report';
import { LONG_CHART } from './core';

const RATE = 200;
const SECONDS = 10;
/** Saves before those that count, so that a server just started is not what is measured. */
const WARM_UP = 2 * RATE;

interface Answer {
  readonly body: unknown;
  /** Milliseconds the server itself took. */
  readonly served: number;
}

async function call(url: string, method: string, body: unknown): Promise<Answer> {
  const answer = await fetch(url, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${method} ${url}: ${answer.status}`);
  const served = Number(/dur=([\d.]+)/u.exec(answer.headers.get('server-timing') ?? '')?.[1]);
  return { body: await answer.json(), served };
}

interface Latencies {
  readonly seen: readonly number[];
  readonly served: readonly number[];
}

/** Saves at a steady rate over eight charts; each save waits for the one before it on its chart. */
async function saveLatencies(server: TestServer): Promise<Latencies> {
  const charts = await Promise.all(
    Array.from({ length: 8 }, async () => {
      const made = await call(`${server.url}/api/charts`, 'POST', { text: LONG_CHART });
      const { id } = made.body as { readonly id: string };
      return { id, revision: 1, last: Promise.resolve() };
    }),
  );
  const seen: number[] = [];
  const served: number[] = [];
  const start = performance.now();
  for (let sent = 0; sent < WARM_UP + RATE * SECONDS; sent++) {
    const due = start + (sent * 1000) / RATE;
    const wait = due - performance.now();
    if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
    const chart = charts[sent % charts.length];
    if (!chart) continue;
    chart.last = chart.last.then(async () => {
      const began = performance.now();
      const text = `${LONG_CHART}\n// ${sent}`;
      const body = { text, plan: '{}', revision: chart.revision };
      const saved = await call(`${server.url}/api/charts/${chart.id}`, 'PUT', body);
      chart.revision = (saved.body as { readonly revision: number }).revision;
      if (sent < WARM_UP) return;
      seen.push(performance.now() - began);
      served.push(saved.served);
    });
    // Awaited below; until then a failure must not end the process before the server is removed.
    chart.last.catch(() => undefined);
  }
  await Promise.all(charts.map(({ last }) => last));
  return { seen, served };
}

const residentMegabytes = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/u.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** What the disk alone takes to keep a page, at the pace of the saves: no save can be faster. */
async function flushes(folder: string): Promise<readonly number[]> {
  const file = openSync(join(folder, 'flush'), 'w');
  const spent: number[] = [];
  for (let round = 0; round < 2 * RATE; round++) {
    await new Promise((resolve) => setTimeout(resolve, 1000 / RATE));
    writeSync(file, Buffer.alloc(4096));
    const began = performance.now();
    fsyncSync(file);
    spent.push(performance.now() - began);
  }
  closeSync(file);
  return spent;
}

export async function* serverFigures(server: TestServer): AsyncGenerator<Figure> {
  const { seen, served } = await saveLatencies(server);
  const what = `saving a chart at ${RATE} requests a second`;
  yield { what: `${what}, p99`, value: quantile(served, 0.99), unit: 'ms', most: 20 };
  yield { what: '… as the client sees it, median', value: quantile(seen, 0.5), unit: 'ms' };
  yield { what: '… as the client sees it, p99', value: quantile(seen, 0.99), unit: 'ms' };
  const alone = quantile(await flushes(server.data), 0.99);
  yield { what: 'a flush of this machine’s disk alone, p99', value: alone, unit: 'ms' };
  const chart = { chart: LONG_CHART };
  for (let round = 0; round < 500; round++) {
    await call(`${server.url}/api/engine/chart`, 'POST', chart);
  }
  if (process.platform === 'linux') {
    const value = residentMegabytes(server.pid());
    const after = `memory of the server after ${RATE * SECONDS} saves and 500 readings`;
    yield { what: after, value, unit: 'MB', most: 200 };
  }
}
