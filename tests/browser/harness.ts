/** A production server with a throw-away data folder, and a browser to drive it. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import axe from 'axe-core';
import { Browser, Builder, By, type WebDriver, type WebElement } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';
import { SERVER_SETTINGS } from '../../scripts/tools.js';
import { remember, throwAway } from './started';

// Long, for machines that are busy with others: a test that passes never waits for it.
const WAIT = 40_000;
/** How soon a page is asked again, in milliseconds: at once at first, then less and less often. */
const AGAIN = { first: 15, longer: 1.4, most: 200 } as const;

const CHROME_FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--window-size=1280,800',
] as const;

export async function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.on('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => {
        resolve(typeof address === 'object' && address ? address.port : 0);
      });
    });
  });
}

export interface TestServer {
  readonly url: string;
  readonly data: string;
  readonly pid: () => number;
  readonly kill: (signal: NodeJS.Signals) => Promise<number | null>;
  /** Starts again on the same port and data. */
  readonly restart: () => Promise<void>;
  /** Starts again on the same port, with data as at first. */
  readonly reset: () => Promise<void>;
  readonly remove: () => Promise<void>;
}

interface Launched {
  readonly child: ChildProcess;
  /** Answered when it is ready; fails where it stops before. */
  readonly ready: Promise<void>;
}

function launch(environment: NodeJS.ProcessEnv, cwd: string): Launched {
  const child = spawn(process.execPath, ['scripts/server.js'], {
    cwd,
    env: { ...SERVER_SETTINGS, ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  remember(child.pid);
  const ready = new Promise<void>((resolve, reject) => {
    child.once('exit', (code) => {
      reject(new Error(`The server stopped with ${code} before it was ready.`));
    });
    child.stdout.on('data', (chunk: Buffer) => {
      if (chunk.toString().includes('Corvel is ready')) resolve();
    });
  });
  return { child, ready };
}

/** Starts a server on a data folder of its own, unless one is named in `CORVEL_DATA`; of another copy on wish. */
export async function startServer(
  environment: NodeJS.ProcessEnv = {},
  root = process.cwd(),
): Promise<TestServer> {
  const data = environment['CORVEL_DATA'] ?? throwAway('data');
  const port = await freePort();
  const settings = { CORVEL_SEED: 'demo', ...environment, CORVEL_DATA: data, PORT: String(port) };
  let child: ChildProcess;
  const start = async () => {
    const launched = launch(settings, root);
    ({ child } = launched);
    await launched.ready;
  };
  await start();
  const kill = (signal: NodeJS.Signals) =>
    new Promise<number | null>((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null) {
        resolve(child.exitCode);
        return;
      }
      child.once('exit', (code) => {
        resolve(code);
      });
      child.kill(signal);
    });
  return {
    url: `http://127.0.0.1:${port}`,
    data,
    pid: () => child.pid ?? 0,
    kill,
    restart: start,
    reset: async () => {
      await kill('SIGTERM');
      rmSync(data, { recursive: true, force: true });
      mkdirSync(data);
      await start();
    },
    remove: async () => {
      await kill('SIGTERM');
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** A driver of Chromium also speaks its developer tools' protocol. */
export type ChromiumWebDriver = chrome.Driver;

/** ChromeDriver, in a group of its own with the browsers it opens. */
async function startDriver(): Promise<{ readonly url: string; readonly end: () => void }> {
  const port = await freePort();
  const child = spawn(process.env['CHROMEDRIVER'] ?? '/usr/bin/chromedriver', [`--port=${port}`], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = `http://127.0.0.1:${port}`;
  remember(child.pid, `${url}/shutdown`);
  await new Promise<void>((resolve, reject) => {
    child.once('error', reject);
    child.stdout.on('data', (chunk: Buffer) => {
      if (chunk.toString().includes('started successfully')) resolve();
    });
  });
  return { url, end: () => child.kill() };
}

/** A browser; `flags` are Chromium's, as for what a microphone hears. */
export async function openBrowser(flags: readonly string[] = []): Promise<ChromiumWebDriver> {
  const options = new chrome.Options();
  options.setChromeBinaryPath(process.env['CHROMIUM'] ?? '/usr/bin/chromium');
  options.addArguments(...CHROME_FLAGS, ...flags, `--user-data-dir=${throwAway('profile')}`);
  const { url, end } = await startDriver();
  const driver = await new Builder()
    .forBrowser(Browser.CHROME)
    .setChromeOptions(options)
    .usingServer(url)
    .build();
  const quit = driver.quit.bind(driver);
  driver.quit = async () => {
    await quit();
    end();
  };
  return driver as ChromiumWebDriver;
}

/** Asks until there is an answer; null where there is none in time. */
async function until<T>(ask: () => Promise<T | null>): Promise<T | null> {
  const end = Date.now() + WAIT;
  for (let pause: number = AGAIN.first; ; pause = Math.min(AGAIN.most, pause * AGAIN.longer)) {
    const answer = await ask();
    if (answer !== null || Date.now() > end) return answer;
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
}

async function located(driver: WebDriver, by: By, what: string): Promise<WebElement> {
  const found = await until(async () => (await driver.findElements(by))[0] ?? null);
  if (!found) throw new Error(`No ${what}`);
  return found;
}

/** Waits for an element, in whatever state. */
export const find = (driver: WebDriver, css: string): Promise<WebElement> =>
  located(driver, By.css(css), css);

export const findText = (driver: WebDriver, tag: string, text: string): Promise<WebElement> =>
  located(
    driver,
    By.xpath(`//${tag}[contains(normalize-space(.), ${JSON.stringify(text)})]`),
    `${tag} “${text}”`,
  );

/** Waits until a reading of the page holds. */
export async function eventually<T>(
  driver: WebDriver,
  read: () => Promise<T>,
  holds: (value: T) => boolean,
): Promise<T> {
  let last: T | undefined;
  const held = await until(async () => {
    try {
      last = await read();
      return holds(last) ? { value: last } : null;
    } catch {
      // The page was between two states.
      return null;
    }
  });
  if (!held) throw new Error(`Still ${JSON.stringify(last)} at ${await driver.getCurrentUrl()}`);
  return held.value;
}

export const textOf = async (driver: WebDriver, css: string): Promise<string> =>
  (await find(driver, css)).getText();

/** Opens a page and waits until it answers to keys. */
export async function visit(driver: WebDriver, url: string): Promise<void> {
  await driver.get(url);
  await find(driver, 'html[data-ready]');
}

/** What axe finds serious or worse on the page, with the first place of each. */
export async function seriousFaults(driver: WebDriver): Promise<readonly string[]> {
  await driver.executeScript(axe.source);
  return driver.executeAsyncScript(
    `const done = arguments[arguments.length - 1];
     axe.run({ resultTypes: ['violations'] }).then((result) => done(result.violations
       .filter(({ impact }) => impact === 'serious' || impact === 'critical')
       .map(({ id, nodes }) => id + ': ' + nodes[0].html)));`,
  );
}

/** Presses keys one after another, wherever the focus is. */
export const pressKeys = (driver: WebDriver, ...keys: readonly string[]): Promise<void> =>
  driver
    .actions()
    .sendKeys(...keys)
    .perform();

/** Makes a chart as the pages do; its id. */
export async function makeChart(server: TestServer, text: string): Promise<string> {
  const answer = await fetch(`${server.url}/api/charts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ text }),
  });
  return ((await answer.json()) as { id: string }).id;
}

/** Waits until the page that is open is kept for use without the server. */
export const untilKept = (driver: ChromiumWebDriver): Promise<boolean> =>
  eventually(
    driver,
    () =>
      driver.executeAsyncScript<boolean>(
        `const done = arguments[arguments.length - 1];
         Promise.all([navigator.serviceWorker.ready,
           caches.match(location.origin + location.pathname)])
           .then(([, page]) => done(page !== undefined && navigator.serviceWorker.controller !== null))`,
      ),
    (kept) => kept,
  );

/** Memory that a process has, in megabytes. */
export const megabytesOf = (pid: number): number =>
  Math.round(
    Number(/VmRSS:\s+(\d+)/u.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024,
  );
