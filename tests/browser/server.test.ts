import { spawn } from 'node:child_process';
import { openSync, closeSync, writeSync, statSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, describe, expect, test } from 'vitest';
import { startServer, type TestServer } from './harness';

let server: TestServer | null = null;

afterEach(async () => {
  await server?.remove();
  server = null;
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

  test('SIGTERM stops it cleanly', async () => {
    server = await startServer();
    expect(await server.kill('SIGTERM')).toBe(0);
  });
});

describe('the engine over HTTP', () => {
  test('answers every error with its code and never with a 500', async () => {
    server = await startServer();
    const { url } = server;
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
});

describe('safety', () => {
  test('headers forbid inline script, and a foreign form is refused', async () => {
    server = await startServer();
    const page = await fetch(server.url);
    const policy = page.headers.get('content-security-policy') ?? '';
    expect(/script-src[^;]*/u.exec(policy)?.[0]).not.toContain('unsafe-inline');
    expect(page.headers.get('x-content-type-options')).toBe('nosniff');
    const form = await post(server.url, '/unlock', 'passcode=x', {
      'content-type': 'application/x-www-form-urlencoded',
      origin: 'http://elsewhere.example',
    });
    expect(form.status).toBe(403);
    expect((await fetch(server.url, { headers: { host: 'elsewhere.example' } })).status).toBe(200);
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
    const answer = await fetch(`${url}/recover`, {
      method: 'POST',
      body: new URLSearchParams({ backup }),
      headers: { origin: url, accept: 'text/html' },
      redirect: 'manual',
    });
    expect(answer.status).toBe(303);
    expect(await (await fetch(url)).text()).toContain('Ferry at Half Past');
  });
});
