/** The local network: a second browser, by another name and address, over HTTPS with the server's own certificate. */
import { readFileSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import {
  type ChromiumWebDriver,
  eventually,
  find,
  findText,
  freePort,
  makeChart,
  openBrowser,
  pressKeys,
  startServer,
  type TestServer,
  untilKept,
} from './harness';

const NAME = 'tablet.corvel.test';
let server: TestServer;
let tablet: ChromiumWebDriver;
/** Who sits at the machine itself. */
let machine: ChromiumWebDriver;
let address: string;
let port: number;

/** What the shared port answers, trusting the certificate that is kept. */
const ask = (path: string, headers: Readonly<Record<string, string>> = {}) =>
  new Promise<{ status: number; body: string }>((resolve, reject) => {
    const ca = readFileSync(join(server.data, 'share', 'authority.pem'));
    request({ host: '127.0.0.1', port, path, headers, ca }, (answer) => {
      let body = '';
      answer.setEncoding('utf8').on('data', (part: string) => (body += part));
      answer.on('end', () => {
        resolve({ status: answer.statusCode ?? 0, body });
      });
    })
      .on('error', reject)
      .end();
  });
const kept = (name: string) => readFileSync(join(server.data, 'share', name), 'utf8').trim();

beforeAll(async () => {
  port = await freePort();
  server = await startServer({ CORVEL_SHARED: '1', SHARE_PORT: String(port) });
  address = `https://${NAME}:${port}`;
  machine = await openBrowser([]);
  tablet = await openBrowser([
    `--host-resolver-rules=MAP ${NAME} 127.0.0.2`,
    // The device has trusted the certificate.
    '--ignore-certificate-errors',
  ]);
});
afterAll(async () => {
  await tablet.quit();
  await machine.quit();
  await server.remove();
});

test('what a device trusts and the passcode are made once, kept for their owner alone, and outlast a start', async () => {
  const names = ['authority.pem', 'certificate.pem', 'key.pem', 'passcode.txt', 'signing.txt'];
  const before = names.map(kept);
  expect(before[3]?.split(' ')).toHaveLength(6);
  await server.kill('SIGTERM');
  await server.restart();
  expect(names.map(kept)).toEqual(before);
});

test('where the address is another, what a device trusts signs a new certificate', async () => {
  const [authority, certificate] = ['authority.pem', 'certificate.pem'].map(kept);
  await server.kill('SIGTERM');
  // As it was made for a network this machine has left.
  const { generate } = await import('selfsigned');
  const ca = { key: kept('authority-key.pem'), cert: authority ?? '' };
  const left = await generate([{ name: 'commonName', value: 'Corvel' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    ca,
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 7, ip: '10.9.8.7' }] }],
  });
  writeFileSync(join(server.data, 'share', 'certificate.pem'), left.cert);
  writeFileSync(join(server.data, 'share', 'key.pem'), left.private);
  await server.restart();
  expect(kept('authority.pem')).toBe(authority);
  expect([certificate, left.cert.trim()]).not.toContain(kept('certificate.pem'));
  // A device that trusts what it trusted before is answered.
  expect((await ask('/share/certificate')).body.trim()).toBe(authority);
});

test('who sits at the machine is not asked; others are, and nobody can say that he sits there', async () => {
  expect((await fetch(server.url)).status).toBe(200);
  const page = await (await fetch(`${server.url}/share`)).text();
  expect(page).toContain(kept('passcode.txt'));
  expect((await ask('/')).status).toBe(303);
  expect((await ask('/', { 'x-corvel-local': 'yes' })).status).toBe(303);
  expect((await ask('/share')).body).not.toContain(kept('passcode.txt'));
  expect((await ask('/api/settings')).status).toBe(401);
  expect(await ask('/share/certificate')).toMatchObject({
    status: 200,
    body: expect.stringContaining('BEGIN CERTIFICATE'),
  });
  expect(JSON.parse((await ask('/manifest.webmanifest')).body)).toMatchObject({
    display: 'standalone',
  });
});

test('a plain port that other machines reach lets nobody in without the passcode', async () => {
  const open = await startServer({
    CORVEL_SHARED: '1',
    SHARE_PORT: String(await freePort()),
    HOST: '0.0.0.0',
    CORVEL_PASSCODE: 'six words of our own are here',
  });
  try {
    expect((await fetch(`${open.url}/api/settings`)).status).toBe(401);
    expect(new URL((await fetch(open.url)).url).pathname).toBe('/unlock');
  } finally {
    await open.remove();
  }
});

/** Opens something of the chart on both devices; it is made on the machine. */
async function onBoth(text: string, path: string): Promise<string> {
  const id = await makeChart(server, text);
  await machine.get(`${server.url}/plan/${id}${path}`);
  await tablet.get(`${address}/plan/${id}${path}`);
  for (const device of [machine, tablet])
    await find(device, '[data-mark], html[data-ready="play"] [data-now-chord]');
  return id;
}
const textOf = (device: ChromiumWebDriver, css: string) =>
  device.executeScript<string>(
    `return document.querySelector(${JSON.stringify(css)})?.textContent.trim() ?? ''`,
  );

test('a second browser is let in by the passcode, may hear and be installed, and works without the server after one visit', async () => {
  await tablet.get(`${address}/`);
  const field = await find(tablet, 'input[name="passcode"]');
  await field.sendKeys(kept('passcode.txt'));
  await (await tablet.findElement(By.css('form button'))).click();
  await find(tablet, 'a[href^="/plan/"]');
  expect(
    await tablet.executeScript(
      `return [isSecureContext, typeof navigator.mediaDevices?.getUserMedia, document.querySelector('link[rel=manifest]') !== null]`,
    ),
  ).toEqual([true, 'function', true]);
  await (await find(tablet, 'a[href^="/plan/"]')).click();
  await find(tablet, '[data-mark]');
  await untilKept(tablet);
  const here = await tablet.getCurrentUrl();
  await server.kill('SIGTERM');
  await tablet.get(here);
  await find(tablet, '[data-mark]');
  await server.restart();
});

test('both devices see what either changes, within a second, and neither loses what it has', async () => {
  const id = await onBoth('title: Two Stands\nkey: F\n| Gm7 | C7 | F6 | % |', '');
  const save = async (text: string) => {
    const before = (await (await fetch(`${server.url}/api/charts/${id}`)).json()) as {
      plan: string;
      revision: number;
    };
    const body = JSON.stringify({ text, plan: before.plan, revision: before.revision });
    const headers = { 'content-type': 'application/json' };
    const answer = await fetch(`${server.url}/api/charts/${id}`, { method: 'PUT', headers, body });
    expect(answer.status).toBe(200);
  };
  await save('title: Two Stands\nkey: F\n| Am7 | C7 | F6 | % |');
  const began = Date.now();
  for (const device of [machine, tablet])
    await eventually(
      device,
      () => textOf(device, '[data-chord-name="now"]'),
      (now) => now === 'Am7',
    );
  // Within a second, with the time that a busy machine takes to ask.
  expect(Date.now() - began).toBeLessThan(5_000);
  // What was here before is one undo away.
  await tablet.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  for (const device of [tablet, machine])
    await eventually(
      device,
      () => textOf(device, '[data-chord-name="now"]'),
      (now) => now === 'Gm7',
    );
  // A device that was not looked at, as one that slept, takes up what it missed.
  const other = await tablet.getWindowHandle();
  await tablet.switchTo().newWindow('tab');
  await tablet.get('about:blank');
  await save('title: Two Stands\nkey: F\n| Bbm7 | C7 | F6 | % |');
  await tablet.close();
  await tablet.switchTo().window(other);
  for (const device of [tablet, machine])
    await eventually(
      device,
      () => textOf(device, '[data-chord-name="now"]'),
      (now) => now === 'B♭m7',
    );
  // After the server was away, what was missed is taken up.
  await server.kill('SIGTERM');
  await server.restart();
  await save('title: Two Stands\nkey: F\n| Dm7 | C7 | F6 | % |');
  for (const device of [machine, tablet])
    await eventually(
      device,
      () => textOf(device, '[data-chord-name="now"]'),
      (now) => now === 'Dm7',
    );
});

test('the lists of one device show what the other saves, and what is open stays open', async () => {
  const put = async (path: string, body: object) => {
    const headers = { 'content-type': 'application/json' };
    const sent = { method: 'PUT', headers, body: JSON.stringify({ revision: 0, ...body }) };
    expect((await fetch(`${server.url}/api/${path}`, sent)).status).toBe(200);
  };
  const listed = (words: string) =>
    eventually(
      tablet,
      () => textOf(tablet, '#main'),
      (text) => text.includes(words),
    );
  await tablet.get(`${address}/`);
  await find(tablet, 'html[data-ready]');
  await makeChart(server, 'title: Aired Just Now\n| C | F |');
  await listed('Aired Just Now');
  await tablet.get(`${address}/licks?session=5.1&block=1`);
  const titled = () => tablet.executeScript<string>('return document.title');
  await find(tablet, '[data-grid]');
  const open = await titled();
  await put('licks/aaaaaaaaaaaa', {
    title: 'A first of all licks',
    tags: [],
    source: 'mine',
    chart: '| C |',
    notes: [],
  });
  await listed('A first of all licks');
  expect(await titled()).toBe(open);
  expect(new URL(await tablet.getCurrentUrl()).search).toBe('?session=5.1&block=1');
  await tablet.get(`${address}/log`);
  await find(tablet, 'html[data-ready]');
  const stint = {
    chart: 'general',
    exercise: 'free',
    zone: { low: 5, high: 8 },
    tempoFrom: 90,
    tempo: 90,
    minutes: 4,
  };
  await put('stints/bbbbbbbbbbbb', { ...stint, at: '2026-11-01T10:00:00+00:00' });
  await listed('Free playing of no chart, frets 5 to 8');
  const today = () => textOf(tablet, '[data-today]');
  const before = await eventually(tablet, today, (said) => said !== '');
  await put('stints/cccccccccccc', { ...stint, at: new Date().toISOString() });
  await eventually(tablet, today, (said) => said !== before);
});

test('what is saved after a page was made and before it listens is on it too', async () => {
  const late = await tablet.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: `
      const Own = window.EventSource;
      window.EventSource = function (url) {
        const late = { close() { clearTimeout(late.timer); late.own?.close(); } };
        const begin = () => {
          late.own = new Own(url);
          late.own.onopen = () => late.onopen?.();
          late.own.onmessage = (message) => late.onmessage?.(message);
        };
        late.timer = setTimeout(begin, 1500);
        return late;
      };`,
  });
  await tablet.get(`${address}/`);
  await find(tablet, 'html[data-ready]');
  await makeChart(server, 'title: Before It Listened\n| C | F |');
  await findText(tablet, 'a', 'Before It Listened');
  const { identifier } = late as unknown as { readonly identifier: string };
  await tablet.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { identifier });
});

test('a page that is on its way arrives, whatever another device saves meanwhile', async () => {
  const chart = await makeChart(server, 'title: Slow Road\n| Ebm7 | Ab7 |');
  await tablet.get(`${address}/`);
  await find(tablet, 'html[data-ready]');
  const link = await find(tablet, `a[href^="/plan/${chart}"]`);
  // The road is slower than a list is asked for anew.
  await tablet.executeScript(`
    const { fetch } = window;
    window.fetch = async (...asked) => {
      if (String(asked[0]).includes('/plan/')) await new Promise((go) => setTimeout(go, 1500));
      return fetch(...asked);
    };`);
  await link.click();
  await makeChart(server, 'title: Saved On The Way\n| C | F |');
  await eventually(
    tablet,
    () => textOf(tablet, '[data-chord-name="now"]'),
    (now) => now === 'E♭m7',
  );
});

test('the stage of the tablet follows the one of the machine: chord, key, zone and chart', async () => {
  await onBoth('title: Lead\nkey: F\ntempo: 160\n| Gm7 | C7 | Am7 | D7 |', '/play');
  const choose = async (item: string) => {
    await (await find(tablet, '[data-menu]')).click();
    await tablet.wait(
      async () =>
        tablet.executeScript<boolean>(
          `const item = [...document.querySelectorAll('[role="menuitem"]')].find((one) => one.textContent.trim() === ${JSON.stringify(item)}); return Boolean(item)`,
        ),
      10_000,
    );
    await (
      await tablet.findElement(By.xpath(`//*[@role="menuitem"][normalize-space(.)="${item}"]`))
    ).click();
  };
  const now = (device: ChromiumWebDriver) => textOf(device, '[data-now-chord] [data-symbol]');
  await choose('Follow another device');
  await find(tablet, '[data-following]');
  for (const chord of ['C7', 'Am7']) {
    await pressKeys(machine, Key.ARROW_RIGHT);
    await eventually(
      tablet,
      () => now(tablet),
      (shown) => shown.startsWith(chord),
    );
  }
  await pressKeys(machine, ']');
  const zone = async (device: ChromiumWebDriver) =>
    /frets (\d+ to \d+)/u.exec(
      await device.executeScript<string>(
        `return document.querySelector('svg[aria-label^="Neck"]').getAttribute('aria-label')`,
      ),
    )?.[1];
  const there = await zone(machine);
  await eventually(
    tablet,
    () => zone(tablet),
    (here) => here === there,
  );
  // While it plays, chord by chord, without a sound of its own.
  await pressKeys(machine, ' ');
  const seen = new Set<string>();
  await eventually(
    tablet,
    async () => seen.add(await now(tablet)).size,
    (size) => size >= 3,
  );
  await pressKeys(machine, ' ');
  // It goes along to another chart.
  const other = await makeChart(server, 'title: Next One\n| Ebmaj7 | Ab7 |');
  await machine.get(`${server.url}/plan/${other}/play`);
  await eventually(
    tablet,
    () => tablet.getCurrentUrl(),
    (url) => url.includes(other),
  );
  await eventually(
    tablet,
    () => now(tablet),
    (shown) => shown.startsWith('E♭maj7'),
  );
  // In the key that is sounding there.
  const said = await fetch(`${server.url}/api/live`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      kind: 'stage',
      page: 'elsewhere',
      chart: other,
      playing: true,
      index: 1,
      shift: 2,
      zone: { low: 5, high: 8 },
    }),
  });
  expect(said.status).toBe(204);
  await eventually(
    tablet,
    () => now(tablet),
    (shown) => shown.startsWith('B♭7'),
  );
  await choose('Stop following');
  await pressKeys(tablet, Key.HOME);
  await eventually(
    tablet,
    () => now(tablet),
    (shown) => shown.startsWith('E♭maj7'),
  );
  await pressKeys(machine, Key.ARROW_RIGHT);
  await eventually(
    machine,
    () => now(machine),
    (shown) => shown.startsWith('A♭7'),
  );
  expect(await now(tablet)).toContain('E♭maj7');
});

test('the tablet plays, and hears the simulated guitarist', async () => {
  const id = await makeChart(server, 'title: Heard Here\nkey: C\ntempo: 200\n| Dm7 | G7 |');
  await tablet.get(`${address}/plan/${id}/play`);
  await (await findText(tablet, 'button', 'Listen')).click();
  await (await find(tablet, 'select[name="input"] option[value="simulated"]')).click();
  await tablet.executeScript(
    `[...document.querySelectorAll('[data-listen-sheet] button')].find((one) => one.textContent.trim() === 'Listen')?.click()`,
  );
  await findText(tablet, 'button', 'Stop listening');
  await pressKeys(tablet, Key.ESCAPE);
  await (await findText(tablet, 'button', 'Play')).click();
  // Passes are over, and the targets of one were judged.
  await find(tablet, '[data-landings-say]');
  await pressKeys(tablet, ' ');
});
