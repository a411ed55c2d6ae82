import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
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
const CHART = 'title: Nine Lamps\nkey: C\ntempo: 100\n| Dm7 | G7 | Cmaj7 | A7 |';

async function openPlan(place: string): Promise<string> {
  const id = await makeChart(server, CHART);
  await visit(driver, `${server.url}/plan/${id}${place}`);
  return `${server.url}/plan/${id}`;
}

const settled = () => find(driver, '[data-targets="settled"]');
const flagAt = async (time: 'now' | 'next') =>
  (await find(driver, `[data-target="${time}"]`)).getAttribute('data-place');
const saved = () =>
  eventually(
    driver,
    async () => (await find(driver, '[data-save-state]')).getAttribute('data-save-state'),
    (state) => state === 'saved',
  );

describe('targets on Plan', () => {
  test('a key shows them, and each step says what it does', async () => {
    await openPlan('?at=1&zone=3-7');
    await press('f');
    await settled();
    await find(driver, '[data-target="now"]');
    expect(await textOf(driver, '[data-step="now"]')).toMatch(/^Now Begin on [A-G]/u);
    await press(Key.ARROW_RIGHT);
    await eventually(
      driver,
      () => textOf(driver, '[data-step="now"]'),
      (text) => /^Now .* (?:third|seventh) of G7\.$/u.test(text),
    );
  });

  test('another preference is solved anew, an alternative is one click away', async () => {
    await openPlan('?at=1&zone=3-7');
    await press('f');
    await settled();
    const select = await find(driver, '[data-targets] select');
    await (await select.findElement(By.css('option[value="1"]'))).click();
    await eventually(
      driver,
      () => textOf(driver, '[data-step="now"]'),
      (text) => text.includes('root of Dm7'),
    );
    const ways = await driver.findElements(By.css('[data-targets] ul button'));
    expect(ways.length).toBeGreaterThan(1);
    await ways[1]?.click();
    await eventually(
      driver,
      async () => ways[1]?.getAttribute('aria-pressed'),
      (pressed) => pressed === 'true',
    );
  });

  test('a note that is clicked shows the ways onward, and can be landed on', async () => {
    const url = await openPlan('?at=1&zone=3-7');
    // F on string 4, fret 3: the third of D minor 7, which G7 holds as its seventh.
    await (await find(driver, '[data-mark="4-3"]')).click();
    const panel = await find(driver, '[data-from-here]');
    expect(await panel.getText()).toContain('F ♭7 of G7: holds');
    await (await findText(driver, 'button', 'Land here on Dm7')).click();
    await (await findText(driver, 'button', 'Close')).click();
    await settled();
    await eventually(
      driver,
      () => flagAt('now'),
      (place) => place === '4-3',
    );
    await saved();
    await visit(driver, `${url}?at=1&zone=3-7`);
    await eventually(
      driver,
      () => flagAt('now'),
      (place) => place === '4-3',
    );
    expect(await textOf(driver, '[data-targets]')).toContain('One target is pinned.');
  });

  test('a pennant is dragged to another note, which pins it there', async () => {
    await openPlan('?at=1&zone=3-7');
    await press('f');
    await settled();
    const goal = (await flagAt('now')) === '2-6' ? '4-3' : '2-6';
    const flag = await find(driver, '[data-target="now"] path');
    const mark = await find(driver, `[data-mark="${goal}"]`);
    await driver.actions().dragAndDrop(flag, mark).perform();
    await eventually(
      driver,
      () => flagAt('now'),
      (place) => place === goal,
    );
  });

  test('the route is a lane under the bars', async () => {
    await openPlan('?at=1&zone=3-7');
    // From guide tones on to the route.
    await press('u');
    await eventually(
      driver,
      async () =>
        (await driver.findElements(By.css('[aria-label^="The form"] li .relative span'))).length,
      (count) => count >= 4,
    );
  });

  test('axe finds nothing serious with targets and ways onward shown', async () => {
    await openPlan('?at=1&zone=3-7');
    await press('f');
    await settled();
    expect(await seriousFaults(driver)).toEqual([]);
    await (await find(driver, '[data-mark="4-3"]')).click();
    await find(driver, '[data-from-here]');
    expect(await seriousFaults(driver)).toEqual([]);
  });
});

async function openSheet(): Promise<string> {
  const id = await makeChart(server, CHART);
  const url = `${server.url}/plan/${id}/practice?at=1&zone=3-7`;
  await visit(driver, url);
  await find(driver, '[data-notation][data-drawn]');
  return url;
}

const drawn = async () => (await find(driver, '[data-notation]')).getAttribute('data-drawn');

async function choose(name: string, value: string): Promise<void> {
  const select = await find(driver, `select[name="${name}"]`);
  await (await select.findElement(By.css(`option[value="${value}"]`))).click();
}

async function downloaded(format: string, extension: string): Promise<Buffer> {
  await choose('export', format);
  const name = await eventually(
    driver,
    async () => readdirSync(files).find((one) => one.endsWith(extension)) ?? '',
    (found) => found !== '',
  );
  return readFileSync(join(files, name));
}

describe('the practice sheet', () => {
  test('an exercise is drawn, walked note by note on the neck, and changed', async () => {
    await openSheet();
    await choose('kind', 'ascending');
    await eventually(driver, drawn, (count) => count === '32');
    expect(await textOf(driver, '[data-goal]')).toContain('Climb each chord’s notes');
    await driver.executeScript('document.activeElement.blur()');
    await press(Key.ARROW_RIGHT);
    // Ascending over D minor 7 begins on its lowest root in the zone: string 5, fret 5.
    await find(driver, '[data-sounding="5-5"]');
    await press(Key.ARROW_RIGHT);
    await eventually(
      driver,
      async () => (await find(driver, '[data-sounding]')).getAttribute('data-sounding'),
      (place) => place !== '5-5',
    );
    await choose('subdivision', 'quarters');
    await eventually(driver, drawn, (count) => count === '16');
    await choose('extent', 'isolate');
    expect(await textOf(driver, 'h1')).toBe('Ascending: Dm7');
  });

  test('a sheet is kept under a name and found again', async () => {
    const url = await openSheet();
    await choose('kind', 'degrees');
    const name = await find(driver, 'input[name="sheet"]');
    await name.sendKeys('Inversions, low', Key.ENTER);
    await find(driver, '[data-sheet="Inversions, low"]');
    await saved();
    await visit(driver, url);
    await (await find(driver, '[data-sheet="Inversions, low"]')).click();
    await eventually(
      driver,
      () => textOf(driver, '[data-goal]'),
      (text) => text.startsWith('Begin the arpeggio on 1'),
    );
  });

  test('goes out in every format and comes back the same', async () => {
    await openSheet();
    await choose('kind', 'continuous');
    await eventually(driver, drawn, (count) => count === '32');
    const midi = await downloaded('midi', '.mid');
    expect(midi.subarray(0, 4).toString()).toBe('MThd');
    expect((await downloaded('musicxml', '.musicxml')).toString()).toContain('<sign>TAB</sign>');
    expect((await downloaded('tab', '.txt')).toString()).toMatch(/^E4\|/mu);
    const json = JSON.parse((await downloaded('json', '.json')).toString()) as { notes: unknown[] };
    expect(json.notes).toHaveLength(32);
    for (const extension of ['.mid', '.musicxml', '.txt', '.json']) {
      const file = readdirSync(files).find((one) => one.endsWith(extension)) ?? '';
      await (await find(driver, '#melody-file')).sendKeys(join(files, file));
      await findText(driver, 'p', 'A melody from a file');
      await eventually(driver, drawn, (count) => count === '32');
      await (await findText(driver, 'button', 'Back to the exercise')).click();
    }
    writeFileSync(join(files, 'bad.mid'), 'MThd and no more');
    await (await find(driver, '#melody-file')).sendKeys(join(files, 'bad.mid'));
    await findText(driver, 'div', 'This is no Standard MIDI File, or it is damaged.');
  });

  test('axe finds nothing serious on it, in either theme', async () => {
    await openSheet();
    for (const theme of ['light', 'dark']) {
      await driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
        features: [{ name: 'prefers-color-scheme', value: theme }],
      });
      expect(await seriousFaults(driver)).toEqual([]);
    }
  });
});
