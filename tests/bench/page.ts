/** What the browser loads and how long a step takes. */
import { gzipSync } from 'node:zlib';
import type { WebDriver } from 'selenium-webdriver';
import { TUNINGS } from '../../src/core/neck/instruments';
import { LAYER_KINDS } from '../../src/core/neck/layers';
import {
  type ChromiumWebDriver,
  find,
  makeChart,
  type TestServer,
  visit,
} from '../browser/harness';
import { LONG_CHART } from './core';
import { type Figure, median } from './report';

/** Gzipped bytes of every script a page loads before anything lazy is asked for. */
async function scriptKilobytes(driver: WebDriver, url: string): Promise<number> {
  await visit(driver, url);
  const scripts: string[] = await driver.executeScript(
    `return performance.getEntriesByType('resource').map(({ name }) => name)
       .filter((name) => name.endsWith('.js'))`,
  );
  const bodies = await Promise.all(
    scripts.map(async (script) => Buffer.from(await (await fetch(script)).arrayBuffer())),
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

export async function* pageFigures(
  driver: ChromiumWebDriver,
  server: TestServer,
): AsyncGenerator<Figure> {
  const id = await makeChart(server, LONG_CHART);
  const plan = `${server.url}/plan/${id}`;
  yield {
    what: 'scripts of the Book before any lazy part, gzipped',
    value: await scriptKilobytes(driver, server.url),
    unit: 'kB',
    most: 180,
  };
  yield {
    what: 'scripts of Plan before any lazy part, gzipped',
    value: await scriptKilobytes(driver, plan),
    unit: 'kB',
    most: 180,
  };
  const value = await usableAfter(driver, plan);
  yield { what: 'Plan usable after navigation, 64 bars', value, unit: 'ms', most: 1000 };
  await driver.sendAndGetDevToolsCommand('Performance.enable', {});
  yield* stepFigures(driver, 'a step to the next chord');
  await fullNeck(driver, server, plan, id);
  yield* stepFigures(driver, 'a step on 8 strings, 27 frets, every layer');
}

async function* stepFigures(driver: ChromiumWebDriver, what: string): AsyncGenerator<Figure> {
  const before = await scriptTime(driver);
  const long = await stepThrough(driver);
  const script = ((await scriptTime(driver)) - before) / STEPS;
  yield { what: `script of ${what}`, value: script, unit: 'ms', most: 16 };
  yield { what: `tasks over 50 ms in ${STEPS} steps`, value: long, unit: 'tasks', most: 0 };
}

/** The largest neck with all its layers, whole. */
async function fullNeck(
  driver: ChromiumWebDriver,
  server: TestServer,
  plan: string,
  id: string,
): Promise<void> {
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
  await visit(driver, plan);
  await driver.actions().sendKeys('w').perform();
}
