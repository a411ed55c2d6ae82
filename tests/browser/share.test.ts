/** The local network: a second browser, by another name and address, over HTTPS with the server's own certificate. */
import { readFileSync } from 'node:fs';
import { request } from 'node:https';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import {
  type ChromiumWebDriver,
  find,
  freePort,
  openBrowser,
  startServer,
  type TestServer,
  untilKept,
} from './harness';

const NAME = 'tablet.corvel.test';
let server: TestServer;
let tablet: ChromiumWebDriver;
let address: string;
let port: number;

/** What the shared port answers, trusting the certificate that is kept. */
const ask = (path: string, headers: Readonly<Record<string, string>> = {}) =>
  new Promise<{ status: number; body: string }>((resolve, reject) => {
    const ca = readFileSync(join(server.data, 'share', 'certificate.pem'));
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
  tablet = await openBrowser([
    `--host-resolver-rules=MAP ${NAME} 127.0.0.2`,
    // The device has trusted the certificate.
    '--ignore-certificate-errors',
  ]);
});
afterAll(async () => {
  await tablet.quit();
  await server.remove();
});

test('certificate and passcode are made once, kept for their owner alone, and outlast a start', async () => {
  const before = ['certificate.pem', 'key.pem', 'passcode.txt'].map(kept);
  expect(before[2]?.split(' ')).toHaveLength(6);
  await server.kill('SIGTERM');
  await server.restart();
  expect(['certificate.pem', 'key.pem', 'passcode.txt'].map(kept)).toEqual(before);
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
    ...{ CORVEL_SHARED: '1', SHARE_PORT: String(await freePort()), HOST: '0.0.0.0' },
    CORVEL_PASSCODE: 'six words of our own are here',
  });
  try {
    expect((await fetch(`${open.url}/api/settings`)).status).toBe(401);
    expect(new URL((await fetch(open.url)).url).pathname).toBe('/unlock');
  } finally {
    await open.remove();
  }
});

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
