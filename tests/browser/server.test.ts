import { spawn } from 'node:child_process';
import { Agent, get, request } from 'node:http';
import {
  closeSync,
  cpSync,
  openSync,
  readdirSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest';
import { killInMigrations } from '../soak/migrations';
import { flipBytes, generateRequests, killInBackups } from '../soak/runs';
import { killInWrites, writeUnderLock, WRITES } from '../soak/writes';
import { startServer, type TestServer } from './harness';
import { throwAway } from './started';

let server: TestServer | null = null;

afterEach(async () => {
  await server?.remove();
  server = null;
});

/** The status of a page asked for under some name: fetch sends its own, whatever it is told. */
const statusUnderName = (url: string, name: string): Promise<number> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(url);
    get({ hostname, port, path: '/', headers: { host: `${name}:${port}` } }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    }).on('error', reject);
  });

const post = (url: string, path: string, body: string, headers: Record<string, string> = {}) =>
  fetch(url + path, {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json', ...headers },
  });

describe('saving', () => {
  test('every acknowledged save survives SIGKILL in the middle of a burst', async () => {
    server = await startServer();
    const { url } = server;
    const made = await post(url, '/api/charts', JSON.stringify({ text: '| C |' }));
    const { id } = (await made.json()) as { id: string };
    let acknowledged = 1;
    let running = true;
    const burst = (async () => {
      while (running) {
        const body = JSON.stringify({
          revision: acknowledged,
          text: `| C | // ${acknowledged}`,
          plan: '{}',
        });
        try {
          const answer = await fetch(`${url}/api/charts/${id}`, {
            method: 'PUT',
            body,
            headers: { 'content-type': 'application/json' },
          });
          acknowledged = ((await answer.json()) as { revision: number }).revision;
          if (acknowledged === 40) void server?.kill('SIGKILL');
        } catch {
          running = false;
        }
      }
    })();
    await burst;
    expect(acknowledged).toBeGreaterThanOrEqual(40);
    await server.restart();
    const chart = (await (await fetch(`${url}/api/charts/${id}`)).json()) as { revision: number };
    // The last save may have landed without its answer having been heard.
    expect([acknowledged, acknowledged + 1]).toContain(chart.revision);
  });
});

describe('one server for them all', () => {
  let server: TestServer;
  let url = '';
  beforeAll(async () => {
    server = await startServer();
    ({ url } = server);
  });
  afterAll(() => server.remove());

  test('the engine answers every error with its code and never with a 500', async () => {
    const cases: readonly (readonly [string, number, string])[] = [
      ['{"chart":"| Dm7 | G7 | C |"}', 200, ''],
      ['{"chart":', 400, 'invalid_json'],
      ['{}', 422, 'invalid_request'],
      ['[]', 422, 'invalid_request'],
      ['null', 422, 'invalid_request'],
      ['{"chart":"| Ebmja7 |"}', 422, 'invalid_chart'],
      [JSON.stringify({ chart: 'x'.repeat(2_000_000) }), 413, 'too_large'],
    ];
    for (const [body, status, code] of cases) {
      const answer = await post(url, '/api/engine/chart', body);
      expect([body.slice(0, 20), answer.status]).toEqual([body.slice(0, 20), status]);
      const { error } = (await answer.json()) as { error?: { code: string } };
      expect(error?.code ?? '').toBe(code);
    }
    const description = (await (await fetch(`${url}/api/engine`)).json()) as { openapi: string };
    expect(description.openapi).toBe('3.1.0');
    expect((await fetch(`${url}/docs/api`)).status).toBe(200);
  });

  test('as in npm run soak, generated requests are all answered, none with a fault', async () => {
    const { serverErrors } = await generateRequests(url, 600);
    expect(serverErrors).toBe(0);
  });

  test('the largest questions are answered or refused with their limit, and saving goes on', async () => {
    const chart = `| ${'Dm7 G7 Cmaj7 A7 | '.repeat(1_000)}`;
    const neck = { tuning: ['B1', 'E2', 'A2', 'D3', 'G3', 'C4', 'E4', 'A4'], frets: 27 };
    const heavy = ['route', 'zones', 'chains', 'crossings'].map((question) =>
      post(url, `/api/engine/${question}`, JSON.stringify({ chart, neck })),
    );
    const made = await post(url, '/api/charts', JSON.stringify({ text: '| C |' }));
    expect(made.status).toBe(201);
    for (const answer of await Promise.all(heavy)) {
      const { error } = (await answer.json()) as { error?: { message: string } };
      expect([200, 422, 503]).toContain(answer.status);
      if (answer.status === 422) expect(error?.message).toMatch(/chords|seconds/u);
    }
  });

  test('a change asked for by another site is refused, in our JSON under /api', async () => {
    const text = JSON.stringify({ text: '| C |' });
    const foreign: readonly Record<string, string>[] = [
      { origin: 'http://elsewhere.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
      { origin: 'http://elsewhere.example', 'content-type': 'text/plain' },
    ];
    for (const headers of foreign) {
      const answer = await post(url, '/api/charts', text, headers);
      expect(answer.status).toBe(403);
      expect(await answer.json()).toMatchObject({ error: { code: 'forbidden' } });
    }
    expect((await post(url, '/api/charts', text, { origin: url })).status).toBe(201);
    expect((await post(url, '/api/charts', text)).status).toBe(201);
  });

  test('every error under /api is JSON, and static files are not sniffed', async () => {
    for (const [method, path, status] of [
      ['PUT', '/api/engine/chart', 405],
      ['GET', '/api/nowhere', 404],
      ['POST', '/api/engine/constructor', 404],
    ] as const) {
      const answer = await fetch(url + path, { method });
      expect(answer.status).toBe(status);
      expect(await answer.json()).toMatchObject({
        error: { message: expect.any(String) as string },
      });
    }
    const script = /_app\/immutable\/entry\/start[^"']+\.js/u.exec(await (await fetch(url)).text());
    const file = await fetch(`${url}/${script?.[0] ?? ''}`);
    expect(file.status).toBe(200);
    expect(file.headers.get('x-content-type-options')).toBe('nosniff');
  });

  test('a text that cannot be kept is refused in words', async () => {
    for (const text of ['| C |\u0000| F |', '| C | // \ud800']) {
      const answer = await post(url, '/api/charts', JSON.stringify({ text }));
      expect(answer.status).toBe(422);
      expect(await answer.text()).toContain('cannot be kept');
    }
  });

  test('a refused large body leaves its connection usable', async () => {
    const { hostname, port } = new URL(url);
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const ask = (method: string, path: string, body: string): Promise<number> =>
      new Promise((resolve, reject) => {
        const headers = { 'content-type': 'application/json', 'content-length': body.length };
        const asked = request({ agent, hostname, port, method, path, headers }, (response) => {
          response.resume();
          response.on('end', () => {
            resolve(response.statusCode ?? 0);
          });
        });
        asked.on('error', reject);
        asked.end(body);
      });
    const large = JSON.stringify({ chart: 'x'.repeat(900_000) });
    const began = Date.now();
    expect(await ask('POST', '/api/engine/chart', large)).toBe(413);
    expect(await ask('GET', '/api/charts/none', '')).toBe(404);
    expect(Date.now() - began).toBeLessThan(15_000);
    agent.destroy();
  });

  test('headers forbid inline script, and a foreign form is refused', async () => {
    const page = await fetch(url);
    const policy = page.headers.get('content-security-policy') ?? '';
    expect(/script-src[^;]*/u.exec(policy)?.[0]).not.toContain('unsafe-inline');
    expect(page.headers.get('x-content-type-options')).toBe('nosniff');
    const form = await post(url, '/unlock', 'passcode=x', {
      'content-type': 'application/x-www-form-urlencoded',
      origin: 'http://elsewhere.example',
    });
    expect(form.status).toBe(403);
    // A page elsewhere that had its own name point here would send that name.
    expect(await statusUnderName(url, 'elsewhere.example')).toBe(421);
    expect(await statusUnderName(url, 'localhost')).toBe(200);
    for (const name of [
      'localhost#.elsewhere.example',
      'localhost?.elsewhere.example',
      '127.0.0.1.nip',
    ])
      expect([400, 421], name).toContain(await statusUnderName(url, name));
  });

  test('an archive is taken in after a backup, and not without one', async () => {
    const bytes = await (await fetch(`${url}/api/archive`)).arrayBuffer();
    const take = () =>
      fetch(`${url}/api/archive?mode=replace`, {
        method: 'POST',
        body: bytes,
        headers: { 'content-type': 'application/zip', origin: url },
      });
    expect((await take()).status).toBe(200);
    const backups = join(server.data, 'backups');
    expect(readdirSync(backups).filter((name) => name.includes('import'))).toHaveLength(1);
    rmSync(backups, { recursive: true });
    writeFileSync(backups, 'a file where the folder should be');
    const refused = await take();
    expect(refused.status).toBe(503);
    expect(await refused.text()).toContain('nothing was changed');
  });

  test('SIGTERM stops it cleanly', async () => {
    expect(await server.kill('SIGTERM')).toBe(0);
  });
});

describe('an empty book', () => {
  test('Plan leads to it and says why; the first card is an easy one', async () => {
    server = await startServer({ CORVEL_SEED: '' });
    const plan = await fetch(`${server.url}/plan`);
    expect(plan.url).toBe(`${server.url}/?from=plan`);
    expect(await plan.text()).toContain('Plan needs a chart: create one here first.');
    const drills = await (await fetch(`${server.url}/drills`)).text();
    expect(drills).toMatch(/Which note is string \d, fret [0-4]\?/u);
  });
});

describe('in short, what npm run soak does at length', () => {
  test('kills in every kind of write lose nothing acknowledged, a lock held by another or not', async () => {
    server = await startServer();
    const kinds = Object.keys(WRITES);
    const { acknowledged, lost, faults } = await killInWrites(server, kinds.length + 1);
    expect(acknowledged).toBeGreaterThan(0);
    expect([lost, faults]).toEqual([[], 0]);
  });

  test('a lock held by another program loses nothing, and is no fault', async () => {
    server = await startServer();
    const { acknowledged, lost, faults } = await writeUnderLock(server, 150);
    // Each kind goes on when the lock has gone.
    expect(acknowledged).toBeGreaterThanOrEqual(Object.keys(WRITES).length);
    expect([lost, faults]).toEqual([[], 0]);
  });

  test('kills in migrations leave a folder that opens with everything in it', async () => {
    server = await startServer();
    expect(await killInMigrations(server, 1)).toMatchObject({ closed: 0, lost: 0 });
  });

  test('damaged bytes leave what is readable readable, of every table', async () => {
    server = await startServer();
    const { readable, each, down } = await flipBytes(server, { header: 3, anywhere: 4 });
    expect(down).toBe(0);
    for (const found of Object.values(readable)) expect(found).toBeGreaterThan(each * 0.8);
  });

  test('kills at a backup leave no bad one', async () => {
    server = await startServer();
    expect(await killInBackups(server, 3)).toBe(0);
  });
});

describe('one server for one data folder', () => {
  test('a second says which is running, and does not start', async () => {
    server = await startServer();
    const second = spawn(process.execPath, ['scripts/server.js'], {
      env: { ...process.env, CORVEL_DATA: server.data, PORT: '0' },
    });
    let said = '';
    second.stderr.on('data', (data: Buffer) => (said += data.toString()));
    const code = await new Promise((resolve) => second.once('close', resolve));
    expect(code).toBe(1);
    expect(said).toContain(`already running on ${server.data} at ${server.url}`);
    expect(said).not.toContain('PORT=');
  });
});

describe('safety', () => {
  test('a file of the build that is gone ends its own answer, not the server', async () => {
    const copy = throwAway('copy');
    for (const part of ['scripts', 'build', 'package.json'])
      cpSync(part, join(copy, part), { recursive: true });
    symlinkSync(join(process.cwd(), 'node_modules'), join(copy, 'node_modules'));
    server = await startServer({}, copy);
    rmSync(join(copy, 'build', 'client'), { recursive: true });
    for (const path of ['favicon.svg', 'sounds/LICENSE.txt']) {
      await expect(
        fetch(`${server.url}/${path}`).then((answer) => answer.text()),
      ).rejects.toThrow();
    }
    expect((await fetch(server.url)).status).toBe(200);
  });

  test('a passcode that is set is asked for on loopback too, and leads only inside', async () => {
    server = await startServer({ CORVEL_PASSCODE: 'open sesame' });
    const { url } = server;
    expect((await fetch(`${url}/api/charts/none`)).status).toBe(401);
    for (const to of [
      '//elsewhere.example',
      '/\t/elsewhere.example',
      '/\\elsewhere.example',
      'http:x',
    ]) {
      const opened = await fetch(`${url}/unlock?to=${encodeURIComponent(to)}`, {
        method: 'POST',
        body: new URLSearchParams({ passcode: 'open sesame' }),
        headers: { origin: url, accept: 'text/html' },
        redirect: 'manual',
      });
      const target = opened.headers.get('location') ?? '';
      expect(new URL(target, url).host).toBe(new URL(url).host);
    }
  });

  test('a public address needs a passcode', async () => {
    const refused = spawn(process.execPath, ['scripts/server.js'], {
      env: { ...process.env, HOST: '0.0.0.0', CORVEL_PASSCODE: '' },
    });
    const said = new Promise<string>((resolve) =>
      refused.stderr.once('data', (data: Buffer) => {
        resolve(data.toString());
      }),
    );
    const code = new Promise((resolve) => refused.once('exit', resolve));
    expect(await said).toContain('CORVEL_PASSCODE');
    expect(await code).toBe(1);

    server = await startServer({ HOST: '0.0.0.0', CORVEL_PASSCODE: 'open sesame' });
    const locked = await fetch(server.url, { redirect: 'manual' });
    expect(locked.headers.get('location')).toContain('/unlock');
    expect((await post(server.url, '/api/engine/chart', '{}')).status).toBe(401);
    const opened = await fetch(`${server.url}/unlock?to=/`, {
      method: 'POST',
      body: new URLSearchParams({ passcode: 'open sesame' }),
      headers: { origin: server.url },
      redirect: 'manual',
    });
    const cookie = opened.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/iu);
    expect(cookie).toMatch(/SameSite=Strict/iu);
    const inside = await fetch(server.url, { headers: { cookie: cookie.split(';')[0] ?? '' } });
    expect(await inside.text()).toContain('Ferry at Half Past');
  });

  test('a damaged file gives a clear page and the way back to a backup', async () => {
    server = await startServer();
    const { url, data } = server;
    await server.kill('SIGTERM');
    const file = join(data, 'corvel.sqlite');
    for (const suffix of ['-wal', '-shm']) rmSync(file + suffix, { force: true });
    const handle = openSync(file, 'r+');
    writeSync(handle, Buffer.alloc(statSync(file).size, 'x'), 0);
    closeSync(handle);
    await server.restart();
    const page = await (await fetch(url)).text();
    expect(page).toContain('The data file is damaged');
    const backup = /value="([^"]+\.sqlite)"/u.exec(page)?.[1] ?? '';
    const answer = await fetch(`${url}/recover?/backup`, {
      method: 'POST',
      body: new URLSearchParams({ backup }),
      headers: { origin: url, accept: 'text/html' },
      redirect: 'manual',
    });
    expect(answer.status).toBe(303);
    expect(await (await fetch(url)).text()).toContain('Ferry at Half Past');
  });
});
