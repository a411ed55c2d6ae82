import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import {
  type ChromiumWebDriver,
  eventually,
  find,
  findText,
  makeChart,
  openBrowser,
  pressKeys,
  seriousFaults,
  startServer,
  type TestServer,
  textOf,
  visit,
} from './harness';

let server: TestServer;
let driver: ChromiumWebDriver;
const files = mkdtempSync(join(tmpdir(), 'corvel-files-'));

beforeAll(async () => {
  server = await startServer();
  driver = await openBrowser();
  await driver.setDownloadPath(files);
});

afterAll(async () => {
  await driver.quit();
  await server.remove();
  rmSync(files, { recursive: true, force: true });
});

const press = (...keys: string[]) => pressKeys(driver, ...keys);
const control = (key: string) =>
  driver.actions().keyDown(Key.CONTROL).sendKeys(key).keyUp(Key.CONTROL).perform();

const MINOR = 'key: Cm\ntempo: 80\n| Dm7b5 | G7alt | Cm6 | % |';
const BLUES = 'key: A\ntempo: 90\n| A7 | D9 | A7 | % |\n| D9 | % | A7 | % |\n| E7 | D9 | A7 | E7 |';

async function openPlan(text: string, place = ''): Promise<string> {
  const id = await makeChart(server, text);
  await visit(driver, `${server.url}/plan/${id}${place}`);
  return id;
}

const materials = (): Promise<readonly string[]> =>
  driver.executeScript(
    `return [...document.querySelectorAll('[data-material]')].map((cell) => cell.textContent.trim())`,
  );
/** What is played over the chord sounding now, as the page says it. */
const materialNow = (): Promise<string> =>
  driver.executeScript(
    `return document.querySelector('[data-material-name="now"]').textContent.trim()`,
  );
const labelsNow = (): Promise<Record<string, string>> =>
  driver.executeScript(
    `return Object.fromEntries([...document.querySelectorAll('[data-mark][data-now]')]
       .map((mark) => [mark.dataset.mark, mark.nextElementSibling.textContent]))`,
  );
const saved = () =>
  eventually(
    driver,
    async () => (await find(driver, '[data-save-state]')).getAttribute('data-save-state'),
    (state) => state === 'saved',
  );

describe('choosing', () => {
  test('an option is seen on the neck before it is chosen, undone, and found after a reload', async () => {
    await openPlan(MINOR, '?at=2&zone=3-7');
    await (await find(driver, '[data-lens="mode"]')).click();
    const altered = await find(driver, '[data-option="G altered"]');
    expect(await altered.getText()).toContain('Ab melodic minor'.replace('b', '♭'));
    await driver.actions().move({ origin: altered }).perform();
    // The flat fourth of G altered is the third of G7alt, its flat third the sharp ninth.
    const seen = await eventually(driver, labelsNow, (labels) => labels['6-6'] === '♯2');
    expect(seen['6-7']).toBe('3');
    expect(await materialNow()).not.toBe('G altered');
    await altered.click();
    await eventually(driver, materialNow, (name) => name === 'G altered');
    await saved();
    await driver.navigate().refresh();
    await find(driver, 'html[data-ready]');
    await eventually(driver, materialNow, (name) => name === 'G altered');
    await (await find(driver, '[data-lens="mode"]')).click();
    await (await find(driver, '[data-option="G phrygian dominant"]')).click();
    await eventually(driver, materialNow, (name) => name === 'G phrygian dominant');
    await control('z');
    await eventually(driver, materialNow, (name) => name === 'G altered');
  });

  test('modes are named by parent with one key', async () => {
    await press('m');
    await eventually(driver, materialNow, (name) => name === 'A♭ melodic minor from its seventh');
    await press('m');
    await eventually(driver, materialNow, (name) => name === 'G altered');
  });

  test('a choice reaches as far as it is told, the intent by key', async () => {
    await openPlan(BLUES, '?at=1');
    await (await find(driver, '[data-lens="blues"]')).click();
    await (await find(driver, '[data-option="A major blues"]')).click();
    await eventually(
      driver,
      materials,
      (all) => all.filter((name) => name === 'A major blues').length === 6,
    );
    await press('i');
    expect(await (await find(driver, '[data-chord="0"]')).getAttribute('innerHTML')).toContain(
      'intent: Coast',
    );
  });

  test('a style is taken whole, differs from the next, and is one undo away', async () => {
    await openPlan(MINOR);
    const before = await materials();
    await press('j');
    await (await find(driver, '[data-style="modes"]')).click();
    await eventually(driver, materials, (all) => all[1] === 'G altered');
    expect(await materials()).toEqual([
      'D locrian natural 2',
      'G altered',
      'C melodic minor',
      'C melodic minor',
    ]);
    await control('z');
    await eventually(driver, materials, (all) => all.join() === before.join());
  });

  test('two options stand side by side', async () => {
    await openPlan(MINOR, '?at=2');
    await (await find(driver, '[data-lens="mode"]')).click();
    await (await findText(driver, 'button', 'Compare')).click();
    const other = await find(driver, '[data-option="G whole tone"]');
    await driver.actions().move({ origin: other }).perform();
    const table = await find(driver, '[data-compare]');
    await eventually(
      driver,
      () => table.getText(),
      (text) => text.includes('G whole tone'),
    );
    expect(await table.getText()).toContain('Only here');
  });

  test('the table of borrowed pentatonics and the stack of thirds choose too', async () => {
    await openPlan('key: Ab\n| Abmaj7 | Fm7 |');
    await (await find(driver, '[data-lens="borrowed-pentatonic"]')).click();
    expect(await driver.findElements(By.css('[data-matrix] tbody button'))).toHaveLength(48);
    await (await find(driver, '[data-matrix] button[aria-label^="G minor pentatonic"]')).click();
    await eventually(driver, materialNow, (name) => name === 'G minor pentatonic');
    await (await find(driver, '[data-lens="stacked-arpeggio"]')).click();
    await (await find(driver, '[data-stack] [aria-label^="E♭maj7 arpeggio"]')).click();
    await eventually(driver, materialNow, (name) => name === 'E♭maj7 arpeggio');
    expect(await textOf(driver, '[data-why]')).toContain('♯11');
  });
});

describe('the change', () => {
  test('the moving third of a blues is said, and the half steps are arrows', async () => {
    await openPlan(BLUES, '?at=1&zone=2-6');
    await press('c', Key.ARROW_RIGHT, 'c', Key.ARROW_LEFT);
    await eventually(driver, materialNow, (name) => name === 'A7 arpeggio');
    expect(await textOf(driver, '[data-why]')).toContain(
      'The moving third: C♯, third of A7, falls a half step to C, seventh of D9.',
    );
    const arrows = await find(driver, '[data-arrows]');
    expect(Number(await arrows.getAttribute('data-arrows'))).toBeGreaterThan(0);
    const ladder = await find(driver, '[data-ladder] svg');
    await eventually(
      driver,
      () => ladder.getAttribute('aria-label'),
      (said) => (said ?? '').includes('C sharp moves down a half step to C.'),
    );
  });

  test('what one scale costs is said chord by chord, and leads there', async () => {
    await openPlan('key: Eb\n| Eb | Ab | Bb |');
    await (await find(driver, '[data-lens="key-scale"]')).click();
    await (await find(driver, '[data-option="Eb major pentatonic"]')).click();
    const price = await find(driver, '[data-price]');
    expect(await price.getText()).toBe(
      'Bar 2, A♭: no root (A♭); the third and fifth are there.\n' +
        'Bar 3, B♭: no third (D): the change will not be heard.',
    );
    await (await findText(driver, 'button', 'Bar 3')).click();
    await eventually(
      driver,
      () => textOf(driver, '[data-chord-name="now"]'),
      (name) => name === 'B♭',
    );
  });
});

describe('choices and the chart', () => {
  test('a choice whose chord is gone is set aside and can be put back', async () => {
    const id = await openPlan(MINOR, '?at=2');
    await (await find(driver, '[data-lens="mode"]')).click();
    await (await find(driver, '[data-option="G whole tone"]')).click();
    await saved();
    const kept = (await (await fetch(`${server.url}/api/charts/${id}`)).json()) as {
      plan: string;
      revision: number;
    };
    await fetch(`${server.url}/api/charts/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...kept, text: MINOR.replace('G7alt', 'Db9') }),
    });
    await visit(driver, `${server.url}/plan/${id}?at=2`);
    await (await find(driver, '[data-set-aside] summary')).click();
    expect(await textOf(driver, '[data-set-aside]')).toContain('G7alt, bar 2: G whole tone');
    await (await findText(driver, 'button', 'Put on D♭9')).click();
    await eventually(driver, materialNow, (name) => name === 'G whole tone');
    expect(await driver.findElements(By.css('[data-set-aside]'))).toHaveLength(0);
  });

  test('a chart travels with its choices as JSON', async () => {
    await openPlan('title: Two Ladders\n' + MINOR, '?at=2');
    await (await find(driver, '[data-lens="mode"]')).click();
    await (await find(driver, '[data-option="G altered"]')).click();
    await eventually(driver, materialNow, (name) => name === 'G altered');
    await (await findText(driver, 'button', 'Export')).click();
    await (await findText(driver, '*[@role="menuitem"]', 'Chart with its plan')).click();
    const name = await eventually(
      driver,
      async () => readdirSync(files).find((one) => one.endsWith('.json')) ?? '',
      (found) => found !== '',
    );
    expect(JSON.parse(readFileSync(join(files, name), 'utf8'))).toMatchObject({
      format: 'corvel-chart',
      version: 1,
      plan: { choices: { '1': { lens: 'mode', name: 'G altered' } } },
    });
    await visit(driver, server.url);
    await (await findText(driver, 'button', 'Import')).click();
    await (await find(driver, '#import-file')).sendKeys(join(files, name));
    await find(driver, '[data-chord-name="now"]');
    await eventually(driver, materials, (all) => all[1] === 'G altered');
  });
});

test('the demo charts come with different plans', async () => {
  await visit(driver, server.url);
  const links: readonly string[] = await driver.executeScript(
    `return [...document.querySelectorAll('main a.heading')].map((link) => link.href)`,
  );
  const plans = new Set<string>();
  const demos = links.slice(-6);
  for (const link of demos) {
    await visit(driver, link);
    plans.add((await materials()).join());
  }
  expect(plans.size).toBe(demos.length);
});

test('axe finds nothing serious in any lens, in either theme', async () => {
  await openPlan(BLUES);
  for (const theme of ['light', 'dark']) {
    await driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
      features: [{ name: 'prefers-color-scheme', value: theme }],
    });
    for (const lens of ['key-scale', 'borrowed-pentatonic', 'stacked-arpeggio', 'blues']) {
      await (await find(driver, `[data-lens="${lens}"]`)).click();
      expect(await seriousFaults(driver)).toEqual([]);
    }
  }
});
