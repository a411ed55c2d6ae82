/** The long runs of `npm run soak`; `npm test` has a short form of each. */
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { Key } from 'selenium-webdriver';
import {
  type ChromiumWebDriver,
  eventually,
  find,
  makeChart,
  type TestServer,
  visit,
} from '../browser/harness';
import { send } from './writes';

const JSON_TYPE = { 'content-type': 'application/json' } as const;

export interface RequestResult {
  readonly requests: number;
  readonly serverErrors: number;
  /** Longest wait of all, and of those who only asked whether anyone is there, in milliseconds. */
  readonly longest: number;
  readonly others: number;
}

const TEXTS = [
  '',
  '| C |',
  '| Dm7 | G7 | Cmaj7 |',
  '|: C :| x64',
  '(',
  '%',
  '[A] x64\n| C |',
  'key: \n| I |',
];
const VALUES: readonly unknown[] = [
  null,
  0,
  -1,
  1e99,
  '',
  'x'.repeat(300),
  [],
  {},
  true,
  '\u0000',
  '\ud800',
];
const QUESTIONS = [
  'chart',
  'collections',
  'zones',
  'triads',
  'homes',
  'options',
  'coverage',
].concat([...['crossings', 'chains', 'route', 'into', 'exercise', 'constructor', 'none']]);
const METHODS = ['POST', 'PUT', 'PATCH', 'DELETE', 'GET'] as const;

/** A generated request, the same for the same number: some sensible, most wrong in some way. */
function generated(number: number): { path: string; method: string; body: string } {
  const pick = <T>(list: readonly T[], salt: number): T =>
    list[(number * 2654435761 + salt * 40503) % list.length] as T;
  const chart = pick(TEXTS, 1);
  const fields = { chart, text: chart, plan: pick(VALUES, 2), revision: pick([1, ...VALUES], 3) };
  const extra = { [pick(['index', 'zone', 'neck', 'kind', 'name', 'title'], 4)]: pick(VALUES, 5) };
  const body = JSON.stringify(pick([fields, { ...fields, ...extra }, extra, pick(VALUES, 6)], 7));
  const broken = number % 11 === 0 ? body.slice(0, -1) : body;
  const path = pick(
    [
      `/api/engine/${pick(QUESTIONS, 8)}`,
      ...['/api/charts', '/api/charts/none', '/api/charts/none/view', '/api/charts/none/opened'],
      ...['/api/charts/none/restore', '/api/charts/none/duplicate', '/api/charts/forms?ids=a,b'],
      ...['/api/settings', '/api/licks', '/api/licks/none', '/api/licks/none/fits'],
      ...['/api/licks/none/restore', '/api/takes', '/api/takes?of=none', '/api/takes/soaknone01'],
      ...['/api/takes/none/sound', '/api/stints', '/api/stints?since=zzz', '/api/stints?as=csv'],
      ...['/api/stints/soaknone01', '/api/stints/none/restore', '/api/cards', '/api/session'],
      ...[
        '/api/session?minutes=zzz',
        '/api/archive?mode=none',
        '/api/archive?mode=merge&preview=1',
      ],
      ...['/', '/log', '/log?minutes=-1&skip=x&at=zzz', '/drills?chart=none', '/licks/none'],
      ...['/plan/none', '/settings', '/docs/api', '/api/nowhere'],
    ],
    9,
  );
  return { path, method: pick(METHODS, 10), body: broken };
}

/** Sends generated requests, several at a time, while another client only asks for the Book. */
export async function generateRequests(url: string, requests: number): Promise<RequestResult> {
  let serverErrors = 0;
  let longest = 0;
  let others = 0;
  let next = 0;
  let running = true;
  const timed = async (ask: () => Promise<Response>): Promise<number> => {
    const start = performance.now();
    const response = await ask();
    await response.arrayBuffer();
    if (response.status >= 500 && response.status !== 503) serverErrors += 1;
    return performance.now() - start;
  };
  const client = async () => {
    while (next < requests) {
      const { path, method, body } = generated(next++);
      const init = method === 'GET' ? { method } : { method, headers: JSON_TYPE, body };
      longest = Math.max(longest, await timed(() => fetch(url + path, init)));
    }
  };
  const bystander = async () => {
    while (running) {
      others = Math.max(others, await timed(() => fetch(`${url}/api/charts/none`)));
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  };
  const watching = bystander();
  await Promise.all(Array.from({ length: 6 }, client));
  running = false;
  await watching;
  return { requests, serverErrors, longest, others };
}

/** Kills the server while it backs up at its stop; answers the broken backups left behind. */
export async function killInBackups(server: TestServer, kills: number): Promise<number> {
  let broken = 0;
  for (let kill = 0; kill < kills; kill++) {
    await send(`${server.url}/api/charts`, 'POST', { text: `| C | F | // ${'x'.repeat(4_000)}` });
    const stopping = server.kill('SIGTERM');
    await new Promise((resolve) => setTimeout(resolve, kill % 12));
    await server.kill('SIGKILL');
    await stopping;
    const folder = join(server.data, 'backups');
    for (const name of readdirSync(folder).filter((one) => one.endsWith('.sqlite'))) {
      const backup = new Database(join(folder, name));
      const [check] = backup.prepare('pragma quick_check').all() as { quick_check: string }[];
      if (check?.quick_check !== 'ok') broken += 1;
      backup.close();
    }
    await server.restart();
  }
  return broken;
}

export interface FlipResult {
  readonly flips: number;
  /** Of all charts over all flips, how many could be listed or brought back; the same of licks and stints. */
  readonly readable: Readonly<Record<'charts' | 'licks' | 'stints', number>>;
  readonly each: number;
  /** How often the server did not come up or went down. */
  readonly down: number;
}

const EACH = 12;
/** Bytes of the header of an SQLite file. */
const HEADER = 100;

/**
 * Damages the data file, two neighbouring bytes of the header or one anywhere at a time; each time the server
 * must be up and give what is readable, of every table.
 */
export async function flipBytes(
  server: TestServer,
  { header, anywhere }: { readonly header: number; readonly anywhere: number },
): Promise<FlipResult> {
  const file = join(server.data, 'corvel.sqlite');
  const stint = { chart: 'general', exercise: 'free', zone: { low: 5, high: 8 }, tempoFrom: 90 };
  for (let one = 0; one < EACH; one++) {
    await send(`${server.url}/api/charts`, 'POST', { text: `title: Flip ${one}\n| C | F |` });
    await send(`${server.url}/api/licks`, 'POST', {
      title: `Flip ${one}`,
      tags: [],
      source: 'mine',
      chart: '| C |',
      notes: [],
    });
    await send(`${server.url}/api/stints`, 'POST', {
      ...stint,
      tempo: 90,
      minutes: 5,
      note: `Flip ${one}.`,
      at: `2026-06-15T18:00:${String(one).padStart(2, '0')}+02:00`,
    });
  }
  await server.kill('SIGTERM');
  const whole = readFileSync(file);
  const readable = { charts: 0, licks: 0, stints: 0 };
  let down = 0;
  const places = [
    ...Array.from({ length: header }, (_, flip) => {
      const at = Math.floor((flip * (HEADER - 1)) / header);
      return [at, at + 1];
    }),
    ...Array.from({ length: anywhere }, (_, flip) => [
      (Math.floor((flip * whole.length) / anywhere) + ((flip * 97) % 31)) % whole.length,
    ]),
  ];
  const found = async (path: string, word: (one: number) => string) => {
    const text = await (await fetch(server.url + path)).text();
    return Array.from({ length: EACH }, (_, one) => word(one)).filter((one) => text.includes(one))
      .length;
  };
  for (const place of places) {
    const bytes = Buffer.from(whole);
    for (const at of place) bytes[at] = (bytes[at] ?? 0) ^ 0x5a;
    writeFileSync(file, bytes);
    try {
      await server.restart();
      const book = await (await fetch(server.url)).text();
      if (book.includes('data-problem'))
        await fetch(`${server.url}/recover?/readable`, {
          method: 'POST',
          headers: { origin: server.url, 'content-type': 'application/x-www-form-urlencoded' },
          redirect: 'manual',
        });
      readable.charts += await found('/', (one) => `>Flip ${one}<`);
      readable.licks += await found('/api/licks', (one) => `"Flip ${one}"`);
      readable.stints += await found('/api/stints', (one) => `"Flip ${one}."`);
    } catch {
      down += 1;
    }
    await server.kill('SIGKILL');
    for (const suffix of ['-wal', '-shm']) rmSync(file + suffix, { force: true });
  }
  writeFileSync(file, whole);
  await server.restart();
  return { flips: places.length, readable, each: EACH * places.length, down };
}

export interface EditingResult {
  readonly typed: number;
  readonly lost: number;
  readonly stops: number;
}

/** Types into two tabs while the server is stopped and started and the tabs are opened anew. */
export async function editInTabs(
  server: TestServer,
  driver: ChromiumWebDriver,
  milliseconds: number,
): Promise<EditingResult> {
  const charts = await Promise.all(
    ['One', 'Two'].map((title) => makeChart(server, `title: Tab ${title}\n| C |`)),
  );
  const address = (chart: string) => `${server.url}/plan/${chart}?edit=text`;
  const tabs: string[] = [];
  for (const chart of charts) {
    if (tabs.length > 0) await driver.switchTo().newWindow('tab');
    tabs.push(await driver.getWindowHandle());
    await visit(driver, address(chart));
    await find(driver, '.cm-content');
  }
  // Without the server a page comes back once its files are kept.
  await driver.executeAsyncScript(`navigator.serviceWorker.ready.then(() => arguments[0]())`);
  const typed: string[][] = charts.map(() => []);
  let stops = 0;
  let up = true;
  const until = Date.now() + milliseconds;
  for (let turn = 0; Date.now() < until; turn++) {
    const which = turn % 2;
    await driver.switchTo().window(tabs[which] ?? '');
    const word = `w${turn}.`;
    const editor = await find(driver, '.cm-content');
    await editor.sendKeys(Key.chord(Key.CONTROL, Key.END), `\n// ${word}`);
    typed[which]?.push(word);
    // What is half a second old must outlive anything.
    await driver.sleep(500);
    if (turn % 7 === 3 && up) {
      await server.kill(turn % 2 === 0 ? 'SIGTERM' : 'SIGKILL');
      up = false;
      stops += 1;
    } else if (turn % 7 === 6 && !up) {
      await server.restart();
      up = true;
    }
    if (turn % 5 === 4) {
      await driver.navigate().refresh();
      await find(driver, '.cm-content');
      await driver.sleep(2_500);
    }
  }
  if (!up) await server.restart();
  let lost = 0;
  for (const [which, chart] of charts.entries()) {
    await driver.switchTo().window(tabs[which] ?? '');
    await eventually(
      driver,
      async () => (await find(driver, '[data-save-state]')).getAttribute('data-save-state'),
      (state) => state === 'saved',
    );
    const kept = (await (await fetch(`${server.url}/api/charts/${chart}`)).json()) as {
      text: string;
    };
    lost += (typed[which] ?? []).filter((word) => !kept.text.includes(word)).length;
  }
  return { typed: typed.flat().length, lost, stops };
}
