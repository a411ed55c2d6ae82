import { readFileSync } from 'node:fs';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import {
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
let driver: WebDriver;

beforeAll(async () => {
  server = await startServer();
  driver = await openBrowser();
});

afterAll(async () => {
  await driver.quit();
  await server.remove();
});

const press = (...keys: string[]) => pressKeys(driver, ...keys);

const nowName = () => textOf(driver, '[data-chord-name="now"]');
const nextName = () => textOf(driver, '[data-chord-name="next"]');
const saved = () =>
  eventually(
    driver,
    async () => (await find(driver, '[data-save-state]')).getAttribute('data-save-state'),
    (state) => state === 'saved',
  );

/** Labels of the marks on the neck that are of now, by string and fret. */
const labelsNow = async (): Promise<Record<string, string>> =>
  driver.executeScript(
    `return Object.fromEntries([...document.querySelectorAll('[data-mark][data-now]')]
       .map((mark) => [mark.dataset.mark, mark.nextElementSibling.textContent]))`,
  );

async function openDemo(title: string) {
  await visit(driver, server.url);
  await (await findText(driver, 'a', title)).click();
  await find(driver, '[data-chord-name="now"]');
  await find(driver, 'html[data-ready="plan"]');
}

/** A demo chart's text with no choices made yet. */
async function openUnplanned(name: string) {
  const text = readFileSync(`src/lib/server/demo/${name}.txt`, 'utf8');
  await visit(driver, `${server.url}/plan/${await makeChart(server, text)}`);
}

async function typeChart(text: string) {
  const editor = await find(driver, '.cm-content');
  await editor.click();
  await driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  // Typed as a paste would be: line breaks must not be indented for us.
  await press(text);
}

describe('stepping through a chart', () => {
  test('a demo chart is two clicks away, and the keys walk it', async () => {
    await openDemo('Locksmith Waltz');
    expect(await nowName()).toBe('F♯m6');
    expect(await nextName()).toBe('G♯m7♭5');
    await press(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await eventually(driver, nowName, (name) => name === 'G♯m7♭5');
    expect(await nextName()).toBe('C♯7♭9');
    expect(await driver.getCurrentUrl()).toContain('at=3');
    await press(Key.HOME, Key.ARROW_LEFT);
    await eventually(driver, nowName, (name) => name === 'F♯m6');
  });

  test('marks and labels are what theory says', async () => {
    await openUnplanned('ferry-at-half-past');
    await visit(driver, `${(await driver.getCurrentUrl()).split('?')[0]}?at=1&zone=3-6`);
    await press('c');
    // A flat major seven between frets 3 and 6, worked out by hand.
    await eventually(driver, labelsNow, (labels) => Object.keys(labels).length === 10);
    expect(await labelsNow()).toEqual({
      '6-3': '7',
      '6-4': '1',
      '5-3': '3',
      '5-6': '5',
      '4-5': '7',
      '4-6': '1',
      '3-5': '3',
      '2-4': '5',
      '1-3': '7',
      '1-4': '1',
    });
    await press('l', 'l', 'l', 'l');
    await eventually(
      driver,
      labelsNow,
      (labels) => labels['6-4'] === 'A♭' && labels['5-3'] === 'C',
    );
    await press('l', 'l', 'p');
    await eventually(driver, labelsNow, (labels) => labels['6-6'] === '2');
    // B flat minor seven comes next: A flat is held as its flat seventh, G is new to neither.
    const held = await find(driver, '[data-mark="6-4"]');
    expect(await held.getAttribute('data-fate')).toBe('holds');
    expect(await held.getAttribute('data-next')).toBe('definer');
  });

  test('the whole neck is one key away, and the zone moves by key and by drag', async () => {
    const url = (await driver.getCurrentUrl()).replace(/zone=[^&]*/u, 'zone=3-7');
    await visit(driver, url);
    const inside = Object.keys(await labelsNow()).length;
    await press('w');
    await eventually(driver, labelsNow, (labels) => Object.keys(labels).length > inside * 2);
    await press('w', ']', ']');
    await eventually(
      driver,
      () => driver.getCurrentUrl(),
      (now) => now.includes('zone=5-9'),
    );
    const bracket = await find(driver, '[role="slider"]');
    await driver
      .actions()
      .move({ origin: bracket })
      .press()
      .move({ origin: bracket, x: 180 })
      .release()
      .perform();
    const dragged = await eventually(
      driver,
      () => driver.getCurrentUrl(),
      (now) => !now.includes('zone=5-9'),
    );
    const [low = 0, high = 0] = (/zone=(\d+)-(\d+)/u.exec(dragged) ?? []).slice(1).map(Number);
    expect(low).toBeGreaterThan(5);
    expect(high - low).toBe(4);
  });

  test('the neck is walked by keyboard alone, and each note speaks', async () => {
    await openUnplanned('ferry-at-half-past');
    await visit(driver, `${(await driver.getCurrentUrl()).split('?')[0]}?at=1&zone=3-6`);
    await press('c');
    const focused = async () =>
      driver.executeScript<string>('return document.activeElement.dataset.mark ?? ""');
    for (let count = 0; count < 80 && (await focused()) === ''; count++) await press(Key.TAB);
    expect(await focused()).not.toBe('');
    const before = await nowName();
    const walked = new Set<string>();
    for (const key of [
      Key.ARROW_UP,
      Key.ARROW_UP,
      Key.ARROW_RIGHT,
      Key.ARROW_DOWN,
      Key.ARROW_LEFT,
    ]) {
      await press(key);
      walked.add(await focused());
    }
    expect(walked.size).toBeGreaterThan(2);
    expect(await nowName()).toBe(before);
    const spoken = await (await find(driver, '[data-mark="5-3"]')).getAttribute('aria-label');
    expect(spoken).toBe(
      'string 5, fret 3, C, third of A flat major 7, moves up a half step to D flat',
    );
    const read = await driver.executeScript<string>(
      'return document.activeElement.getAttribute("aria-label")',
    );
    expect(await textOf(driver, '[data-readout]')).toBe(read);
  });
});

describe('writing a chart', () => {
  test('a mistake is named at its place, the last good reading stays, and the fix is kept', async () => {
    await visit(driver, server.url);
    await (await findText(driver, 'button', 'New chart')).click();
    await find(driver, '[data-workbench]');
    await press('t');
    await find(driver, '.cm-content');
    await typeChart('title: Two Spoons\nkey: Eb\n| Ebmaj7 | Cm7 |\n');
    await eventually(driver, nowName, (name) => name === 'E♭maj7');
    await press('| Fm7 | Bbq7 |');
    const verdict = await eventually(
      driver,
      () => textOf(driver, '[data-problem]'),
      (text) => text.includes('Bb'),
    );
    expect(verdict).toBe('Line 4, column 9: “q7” after Bb is not a chord spelling Corvel knows.');
    expect(await nowName()).toBe('E♭maj7');
    for (let count = 0; count < 4; count++) await press(Key.BACK_SPACE);
    await press('7 |');
    await eventually(
      driver,
      async () => (await driver.findElements(By.css('[data-chord="3"]'))).length,
      (count) => count === 1,
    );
    await saved();
    await driver.navigate().refresh();
    await find(driver, 'html[data-ready="plan"]');
    expect(await textOf(driver, 'h1')).toBe('Two Spoons');
    await visit(driver, server.url);
    await findText(driver, 'a', 'Two Spoons');
  });

  test('undo and redo go through the text', async () => {
    await (await findText(driver, 'a', 'Two Spoons')).click();
    await find(driver, 'html[data-ready="plan"]');
    await press('t');
    await typeChart('| C | F |');
    await eventually(driver, nowName, (name) => name === 'C');
    await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
    await eventually(driver, nowName, (name) => name === 'E♭maj7');
    await driver.actions().keyDown(Key.CONTROL).sendKeys('y').keyUp(Key.CONTROL).perform();
    await eventually(driver, nowName, (name) => name === 'C');
    await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
    await eventually(driver, nowName, (name) => name === 'E♭maj7');
    await saved();
  });

  test('two tabs edit the same chart and neither loses work', async () => {
    const url = (await driver.getCurrentUrl()).split('?')[0] ?? '';
    const first = await driver.getWindowHandle();
    await visit(driver, `${url}?edit=text`);
    await find(driver, '.cm-content');
    await driver.switchTo().newWindow('tab');
    const second = await driver.getWindowHandle();
    await visit(driver, `${url}?edit=text`);
    await find(driver, '.cm-content');
    await typeChart('title: Second tab\n| G |');
    await saved();
    await driver.switchTo().window(first);
    await typeChart('title: First tab\n| A |');
    await findText(driver, '*[@role="heading"]', 'Changed in two places');
    const shown = await eventually(
      driver,
      () => textOf(driver, '[role="dialog"]'),
      (text) => text.includes('| A |'),
    );
    expect(shown).toContain('| G |');
    await (await findText(driver, 'button', 'Keep both')).click();
    await saved();
    await eventually(driver, nowName, (name) => name === 'G');
    await visit(driver, server.url);
    await findText(driver, 'a', 'First tab');
    await findText(driver, 'a', 'Second tab');
    await driver.switchTo().window(second);
    await driver.close();
    await driver.switchTo().window(first);
  });
});

describe('the Book', () => {
  const rowMenu = async (title: string, item: string) => {
    await (await find(driver, `[aria-label="Actions for ${title}"]`)).click();
    await (await findText(driver, 'div[@role="menuitem"]', item)).click();
  };
  const titles = () =>
    driver.executeScript<string[]>(
      `return [...document.querySelectorAll('td a')].map((a) => a.textContent)`,
    );

  test('finds, renames, duplicates, deletes and brings back', async () => {
    await visit(driver, server.url);
    const search = await find(driver, 'input[type="search"]');
    await search.sendKeys('kite');
    await eventually(driver, titles, (list) => list.length === 1 && list[0] === 'Four Corner Kite');
    await search.clear();
    await search.sendKeys('zzz');
    await findText(driver, 'p', 'No chart matches');
    await (await findText(driver, 'button', 'Show all')).click();

    await rowMenu('Four Corner Kite', 'Rename');
    await press('Paper Kite', Key.ENTER);
    await eventually(driver, titles, (list) => list.includes('Paper Kite'));
    await rowMenu('Paper Kite', 'Duplicate');
    await eventually(driver, titles, (list) => list.includes('Paper Kite (copy)'));
    await rowMenu('Paper Kite (copy)', 'Delete');
    await eventually(driver, titles, (list) => !list.includes('Paper Kite (copy)'));
    await (await findText(driver, 'button', 'Undo')).click();
    await eventually(driver, titles, (list) => list.includes('Paper Kite (copy)'));
  });
});

describe('for everyone', () => {
  test.each(['light', 'dark'])('axe finds nothing serious in the %s theme', async (theme) => {
    await visit(driver, server.url);
    await driver.executeScript(
      `localStorage.setItem('mode-watcher-mode', ${JSON.stringify(theme)})`,
    );
    await visit(driver, server.url);
    expect(await seriousFaults(driver)).toEqual([]);
    await openDemo('Gravel Road Receipt');
    expect(await seriousFaults(driver)).toEqual([]);
    await press('t');
    await find(driver, '.cm-content');
    expect(await seriousFaults(driver)).toEqual([]);
  });

  test('the keys are listed under the question mark', async () => {
    await openDemo('Gravel Road Receipt');
    await press('?');
    expect(await textOf(driver, '[role="dialog"]')).toContain('Whole neck');
    await press(Key.ESCAPE);
  });
});

describe('when the server goes away', () => {
  test('edits wait here and are sent on return', async () => {
    await openDemo('Slow Tide Counting');
    await press('t');
    await find(driver, '.cm-content');
    await server.kill('SIGTERM');
    await typeChart('title: Offline Tide\n| Gm9 | Fm9 |');
    await eventually(
      driver,
      async () => (await find(driver, '[data-save-state]')).getAttribute('data-save-state'),
      (state) => state === 'offline',
    );
    await server.restart();
    await saved();
    await visit(driver, server.url);
    await findText(driver, 'a', 'Offline Tide');
  });
});
