/** What the browser loads and how long a step takes. */
import { gzipSync } from 'node:zlib';
import { Key, type WebDriver } from 'selenium-webdriver';
import { TUNINGS } from '../../src/core/neck/instruments';
import { LAYER_KINDS } from '../../src/core/neck/layers';
import {
  type ChromiumWebDriver,
  find,
  makeChart,
  openBrowser,
  type TestServer,
  visit,
} from '../browser/harness';
import { LONG_CHART } from './core';
import { type Figure, median, quantile } from './report';

/** Milliseconds in which a page comes to rest after it is loaded. */
const AT_REST = 3_000;

/**
 * Opens a page and waits until the app's files are kept and it is at rest. It is the first page of its browser:
 * what another left behind would be collected in the midst of what is measured.
 */
async function visitAtRest(driver: WebDriver, url: string): Promise<void> {
  await visit(driver, url);
  await driver.executeAsyncScript(`navigator.serviceWorker.ready.then(() => arguments[0]())`);
  await driver.executeAsyncScript(`setTimeout(arguments[0], ${AT_REST})`);
}

/** Gzipped bytes of the scripts a page names itself; what is lazy is asked for by those, at some time. */
async function scriptKilobytes(url: string): Promise<number> {
  const page = await fetch(url);
  const words = `${page.headers.get('link') ?? ''} ${await page.text()}`;
  const scripts = new Set(words.match(/[^"'<]*\/_app\/immutable\/[^"'>]+\.js/gu));
  const bodies = await Promise.all(
    [...scripts].map(async (script) =>
      Buffer.from(await (await fetch(new URL(script, url))).arrayBuffer()),
    ),
  );
  return bodies.reduce((sum, body) => sum + gzipSync(body).length, 0) / 1000;
}

/** Milliseconds from the start of a navigation to the page answering to keys. */
async function usableAfter(driver: WebDriver, url: string): Promise<number> {
  const spent: number[] = [];
  for (let round = 0; round < 5; round++) {
    await driver.get('about:blank');
    const start = performance.now();
    await driver.get(url);
    await find(driver, 'html[data-ready]');
    spent.push(performance.now() - start);
  }
  return median(spent);
}

const STEPS = 60;

/** Milliseconds of script since the page began, as the browser's own counter has them. */
async function scriptTime(driver: ChromiumWebDriver): Promise<number> {
  const answer = (await driver.sendAndGetDevToolsCommand('Performance.getMetrics', {})) as unknown;
  const { metrics } = answer as { readonly metrics: readonly { name: string; value: number }[] };
  return 1000 * (metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? Number.NaN);
}

/** Steps through a chart a frame at a time; answers how many tasks took over 50 ms. */
const stepThrough = (driver: WebDriver): Promise<number> =>
  driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    let long = 0;
    let steps = 0;
    new PerformanceObserver((list) => (long += list.getEntries().length)).observe({ type: 'longtask' });
    const step = () => {
      if (steps++ === ${STEPS}) return done(long);
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
      setTimeout(() => requestAnimationFrame(step), 30);
    };
    step();`);

/** Slows the page's own processor, as a tablet's would be. */
const slowDown = (driver: ChromiumWebDriver, rate: number): Promise<unknown> =>
  driver.sendAndGetDevToolsCommand('Emulation.setCPUThrottlingRate', { rate });

/** What the browser's event timing leaves out is shorter than this, in milliseconds. */
const SHORTEST = 16;
const PRESSES = 40;

/** Milliseconds from real presses of keys to the next painted frame, by the browser's event timing. */
async function keyToPaint(
  driver: ChromiumWebDriver,
  keys: readonly string[],
): Promise<readonly number[]> {
  await driver.executeScript(`
    window.presses = [];
    window.pressed?.disconnect();
    window.pressed = new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        if (entry.name === 'keydown') window.presses.push(entry.duration);
    });
    window.pressed.observe({ type: 'event', durationThreshold: ${SHORTEST} });`);
  for (let press = 0; press < PRESSES; press++) {
    await driver
      .actions()
      .sendKeys(keys[press % keys.length] ?? '')
      .perform();
    // As fast as a player would step, not faster than the page can draw.
    await driver.executeAsyncScript(`setTimeout(arguments[arguments.length - 1], 250)`);
  }
  const seen: number[] = await driver.executeScript('return window.presses');
  return [...seen, ...Array<number>(Math.max(0, PRESSES - seen.length)).fill(SHORTEST)];
}

/** Keys to paint, at the processor's own speed and slowed four times. */
async function* keyFigures(
  driver: ChromiumWebDriver,
  what: string,
  keys: readonly string[],
): AsyncGenerator<Figure> {
  for (const [rate, middle, late] of [
    [1, 24, 40],
    [4, 72, 120],
  ] as const) {
    await slowDown(driver, rate);
    const presses = await keyToPaint(driver, keys);
    const how = rate === 1 ? what : `${what}, slowed four times`;
    yield { what: `${how}: median`, value: median(presses), unit: 'ms', most: middle };
    yield { what: `${how}: 95th`, value: quantile(presses, 0.95), unit: 'ms', most: late };
  }
  await slowDown(driver, 1);
}

/** Milliseconds between 500 frames that follow each other. */
const framesOf = (driver: WebDriver): Promise<readonly number[]> =>
  driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    const frames = [];
    let last = performance.now();
    const next = () => {
      const now = performance.now();
      frames.push(now - last);
      last = now;
      if (frames.length < 500) requestAnimationFrame(next);
      else done(frames);
    };
    requestAnimationFrame(next);`);

const TIMES = 3;

/**
 * The longest of 500 frames, slowed four times; the median of three times, since a machine that is denied its
 * processor for an instant lengthens one frame, and one is all that is looked at.
 */
async function* frameFigures(driver: WebDriver, what: string): AsyncGenerator<Figure> {
  const longest: number[] = [];
  while (longest.length < TIMES) longest.push(Math.max(...(await framesOf(driver))));
  const slowed = `${what}, slowed four times: longest of 500`;
  yield { what: slowed, value: median(longest), unit: 'ms', most: 50 };
  yield { what: `… longest of ${500 * TIMES}`, value: Math.max(...longest), unit: 'ms' };
}

/** The stage with a 64-bar form, its band and its targets, slowed four times, over a change of pass. */
async function* stageFigures(driver: ChromiumWebDriver, address: string): AsyncGenerator<Figure> {
  await visitAtRest(driver, address);
  await find(driver, 'html[data-ready="play"]');
  await driver.actions().sendKeys(' ').perform();
  await find(driver, '[data-pass]');
  await driver.executeAsyncScript(`setTimeout(arguments[0], 3000)`);
  await slowDown(driver, 4);
  yield* frameFigures(driver, 'frame of the playing stage');
}

/** A 64-bar sheet, slowed four times: until what is in view is drawn, and its frames while it plays. */
async function* sheetFigures(driver: ChromiumWebDriver, address: string): AsyncGenerator<Figure> {
  await visitAtRest(driver, address);
  await find(driver, '[data-notation][data-drawn]');
  await slowDown(driver, 4);
  const drawn: number = await driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    const list = document.querySelector('[name=kind]');
    const label = () => document.querySelector('[data-notation]')?.getAttribute('aria-label');
    const before = label();
    const began = performance.now();
    list.value = 'continuous';
    list.dispatchEvent(new Event('change', { bubbles: true }));
    const look = () => {
      const sheet = document.querySelector('[data-notation][data-drawn]');
      const inView = [...(sheet?.children ?? [])].filter((one) => {
        const { top, bottom } = one.getBoundingClientRect();
        return bottom > 0 && top < innerHeight;
      });
      const ready = sheet && label() !== before && inView.every((one) => one.firstChild);
      if (ready) requestAnimationFrame(() => done(performance.now() - began));
      else setTimeout(look, 10);
    };
    look();`);
  yield { what: '64-bar sheet drawn, slowed four times', value: drawn, unit: 'ms', most: 1500 };
  await driver.actions().sendKeys(' ').perform();
  await find(driver, '[data-sounding]');
  yield* frameFigures(driver, 'frame of a playing sheet');
}

/** What the page loads, and how soon it answers. */
async function* loadFigures(
  driver: ChromiumWebDriver,
  server: TestServer,
  plan: string,
): AsyncGenerator<Figure> {
  for (const [name, address] of [
    ['the Book', server.url],
    ['Plan', plan],
  ] as const) {
    const what = `scripts of ${name} before any lazy part, gzipped`;
    yield { what, value: await scriptKilobytes(address), unit: 'kB', most: 180 };
  }
  const value = await usableAfter(driver, plan);
  yield { what: 'Plan usable after navigation, 64 bars', value, unit: 'ms', most: 1000 };
}

async function* handFigures(driver: ChromiumWebDriver, plan: string): AsyncGenerator<Figure> {
  await visitAtRest(driver, plan);
  yield* stepFigures(driver, 'a step to the next chord');
  yield* keyFigures(driver, 'key to paint, stepping', [Key.ARROW_RIGHT]);
  yield* keyFigures(driver, 'key to paint, moving the zone', [']', ']', '[', '[']);
}

async function* fullNeckFigures(
  driver: ChromiumWebDriver,
  server: TestServer,
  id: string,
): AsyncGenerator<Figure> {
  await fillNeck(server, id);
  await visitAtRest(driver, `${server.url}/plan/${id}`);
  await driver.actions().sendKeys('w').perform();
  yield* stepFigures(driver, 'a step on 8 strings, 27 frets, every layer');
}

/** Each in a browser of its own, so that none is measured with what another has left behind. */
export async function* pageFigures(server: TestServer): AsyncGenerator<Figure> {
  const id = await makeChart(server, LONG_CHART);
  const plan = `${server.url}/plan/${id}`;
  for (const figures of [
    (driver: ChromiumWebDriver) => loadFigures(driver, server, plan),
    (driver: ChromiumWebDriver) => handFigures(driver, plan),
    (driver: ChromiumWebDriver) => sheetFigures(driver, `${plan}/practice`),
    (driver: ChromiumWebDriver) => stageFigures(driver, `${plan}/play`),
    (driver: ChromiumWebDriver) => fullNeckFigures(driver, server, id),
  ]) {
    const driver = await openBrowser();
    try {
      yield* figures(driver);
    } finally {
      await driver.quit();
    }
  }
}

async function* stepFigures(driver: ChromiumWebDriver, what: string): AsyncGenerator<Figure> {
  await driver.sendAndGetDevToolsCommand('Performance.enable', {});
  const before = await scriptTime(driver);
  const long = await stepThrough(driver);
  const script = ((await scriptTime(driver)) - before) / STEPS;
  yield { what: `script of ${what}`, value: script, unit: 'ms', most: 16 };
  yield { what: `tasks over 50 ms in ${STEPS} steps`, value: long, unit: 'tasks', most: 0 };
}

/** Gives a chart the largest neck with all its layers. */
async function fillNeck(server: TestServer, id: string): Promise<void> {
  const put = (path: string, body: unknown) =>
    fetch(`${server.url}${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const tuning = TUNINGS.find(({ name }) => name === 'Eight-string')?.strings ?? [];
  const eight = { id: 'eight', name: 'Eight', tuning, frets: 27, capo: 0, leftHanded: false };
  await put('/api/settings', { settings: { instruments: [eight] }, revision: 0 });
  const current = (await (await fetch(`${server.url}/api/charts/${id}`)).json()) as {
    revision: number;
  };
  const layers = { layers: LAYER_KINDS };
  const body = { text: LONG_CHART, plan: JSON.stringify(layers), revision: current.revision };
  await put(`/api/charts/${id}`, body);
}
