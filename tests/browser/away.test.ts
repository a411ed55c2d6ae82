/** What is done while the server is away: kept in the browser over a reload, and on the server once it is back. */
import { join } from 'node:path';
import Database from 'libsql';
import { Key } from 'selenium-webdriver';
import { afterEach, describe, expect, test } from 'vitest';
import { makeChart, untilKept } from './harness';
import { suite } from './suite';

const app = suite();
const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const text = (css: string) =>
  script<string>(
    `return document.querySelector('${css}')?.textContent?.replaceAll(/\\s+/gu, ' ').trim() ?? ''`,
  );
const waiting = () =>
  script<number>(`return Number(document.querySelector('[data-waiting]')?.dataset.waiting ?? -1)`);
const read = async <T>(path: string) => (await (await fetch(app.url + path)).json()) as T;

/** Opens a page that is kept for use without the server, and stops the server. */
async function openAndStop(path: string) {
  await app.visit(app.url + path);
  await untilKept(app.driver);
  await app.server.kill('SIGTERM');
}

async function comeBack(path: string) {
  await app.server.restart();
  await app.visit(app.url + path);
  await app.eventually(waiting, (count) => count === 0);
  await app.eventually(
    () =>
      script<number>(
        `return Object.keys(localStorage).filter((key) => key.startsWith('corvel:out:')).length`,
      ),
    (count) => count === 0,
  );
}

// A test that fails while the server is stopped leaves it so.
afterEach(async () => {
  if (!(await fetch(app.url).catch(() => null))) await app.server.restart();
});

describe('while the server is away', () => {
  test('answers to cards wait, are not asked again, and count once', async () => {
    await openAndStop('/drills');
    const answered: string[] = [];
    for (let card = 1; card <= 3; card++) {
      await app.eventually(
        () => text('[data-card]'),
        (says) => says.includes(`card ${card} of 10`),
      );
      answered.push(await text('[data-card]'));
      const key = (await text('[aria-label="Answers"] kbd')).toLowerCase();
      await app.press(key === '' ? Key.ENTER : key);
      await app.find('[data-answer]');
      if (card < 3) await app.press(Key.ENTER);
    }
    await app.eventually(waiting, (count) => count === 3);
    expect(await text('[data-waiting]')).toContain('3 things you did wait in this browser');
    await app.visit(`${app.url}/drills`);
    await app.eventually(
      () => text('[data-card]'),
      (says) => says.includes('card 1 of 7'),
    );
    await comeBack('/drills');
    const file = new Database(join(app.server.data, 'corvel.sqlite'), { readonly: true });
    const cards = file.prepare('select seen from card').all() as { seen: number }[];
    file.close();
    expect(cards.map(({ seen }) => seen)).toEqual([1, 1, 1]);
  });

  test('a stint and a note stand in the log, and are on the server on return', async () => {
    interface Stint {
      readonly exercise: string;
      readonly note: string;
    }
    const stints = () => read<Stint[]>('/api/stints');
    const { length } = await stints();
    await app.visit(`${app.url}/log`);
    await (await app.findText('button', 'Add by hand')).click();
    await (await app.find('form button.button-strong')).click();
    await app.find('[data-stint="targets"]');
    // The page shows it before the server has it.
    await app.eventually(stints, (all) => all.length === length + 1);
    await openAndStop('/log');
    await (await app.findText('button', 'Add by hand')).click();
    await (await app.find('form [name="exercise"] option[value="enclosures"]')).click();
    await (await app.find('form button.button-strong')).click();
    await app.find('[data-stint="enclosures"]');
    await (await app.find('[data-stint="targets"] input')).sendKeys('slower next time', Key.TAB);
    await app.eventually(waiting, (count) => count === 2);
    await app.visit(`${app.url}/log`);
    expect(await text('[data-stint="enclosures"]')).toContain('waits for the server');
    const note = await app.find('[data-stint="targets"] input');
    expect(await note.getAttribute('value')).toBe('slower next time');
    await comeBack('/log');
    const after = await stints();
    expect(after).toHaveLength(length + 2);
    expect(after.filter(({ exercise }) => exercise === 'enclosures')).toHaveLength(1);
    expect(after.some((stint) => stint.note === 'slower next time')).toBe(true);
  });

  test('a setting holds over a reload, and is saved on return', async () => {
    const instruments = () =>
      script<number>(`return document.querySelectorAll('[data-instrument]').length`);
    await openAndStop('/settings');
    await (await app.findText('button', 'Add an instrument')).click();
    await app.eventually(waiting, (count) => count === 1);
    await app.visit(`${app.url}/settings`);
    expect(await instruments()).toBe(2);
    await comeBack('/settings');
    expect(await instruments()).toBe(2);
    expect((await read<{ instruments: unknown[] }>('/api/settings')).instruments).toHaveLength(2);
    // The kept page was fetched anew: without the server once more it is as it was saved.
    await app.server.kill('SIGTERM');
    await app.visit(`${app.url}/settings`);
    expect(await instruments()).toBe(2);
    await app.server.restart();
  });

  test('a lick that is edited is there after a reload, and saved on return', async () => {
    await app.visit(`${app.url}/licks`);
    await (await app.find('[data-lick]')).click();
    const path = await app.eventually(
      async () => new URL(await app.driver.getCurrentUrl()).pathname,
      (address) => /\/licks\/\w+$/u.test(address),
    );
    const field = async () => {
      const words = await app.find('[data-lick-words]');
      if ((await words.getAttribute('aria-expanded')) !== 'true') await words.click();
      return app.find('input[name="title"]');
    };
    const title = async () => (await field()).getAttribute('value');
    const before = await title();
    await openAndStop(path);
    await (await field()).sendKeys(Key.END, ' away');
    const state = async () => (await app.find('[data-save]')).getAttribute('data-save');
    await app.eventually(state, (now) => now === 'away');
    await app.visit(app.url + path);
    await app.eventually(title, (now) => now === `${before} away`);
    await app.server.restart();
    await app.visit(app.url + path);
    await app.eventually(state, (now) => now === 'saved');
    expect(await read(`/api${path}`)).toMatchObject({ title: `${before} away` });
  });

  test('what was played says that it waits, and stands in the log on return', async () => {
    await app.openChart('title: Kettle Hill\ntempo: 200\n| Dm7 | G7 |', '/play?at=0');
    const path = new URL(await app.driver.getCurrentUrl()).pathname;
    await openAndStop(path);
    await script(`const now = performance.now.bind(performance);
      window.later = 0;
      performance.now = () => now() + window.later;`);
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-pass]');
    await script('window.later += 40_000');
    await app.press('9');
    await app.find('[data-kept-stint="waiting"]');
    expect(await text('[data-kept-stint]')).toContain('Kept here until the server is back');
    await app.press(' ');
    await comeBack('/log');
    const stints =
      await read<{ exercise: string; landed: number; minutes: number }[]>('/api/stints');
    expect(stints.filter(({ minutes }) => minutes > 0.6 && minutes < 2)).toMatchObject([
      { exercise: 'free', landed: 10 },
    ]);
  });

  test('a browser that keeps no site data shows every page, and says so', async () => {
    const { identifier } = (await app.driver.sendAndGetDevToolsCommand(
      'Page.addScriptToEvaluateOnNewDocument',
      {
        source: `for (const name of ['localStorage', 'sessionStorage', 'indexedDB', 'caches'])
          Object.defineProperty(window, name, {
            configurable: true,
            get() { throw new DOMException('Access is denied', 'SecurityError'); },
          });`,
      },
    )) as unknown as { identifier: string };
    try {
      const id = await makeChart(app.server, 'title: Blocked\n| Dm7 | G7 |');
      for (const path of ['/', `/plan/${id}`, `/plan/${id}/play`, '/licks', '/drills', '/log']) {
        await app.visit(app.url + path);
        await app.findText('div', 'keeps no site data');
        expect(await text('body')).not.toContain('Something went wrong');
      }
      await app.visit(`${app.url}/log`);
      await app.server.kill('SIGTERM');
      await (await app.findText('button', 'Add by hand')).click();
      await (await app.find('form [name="bpm"]')).sendKeys(Key.ENTER);
      await app.eventually(waiting, (count) => count === 1);
      expect(await text('[data-waiting]')).toContain(
        'keep it open, since this browser keeps nothing',
      );
      await app.server.restart();
      await app.eventually(waiting, (count) => count === 0);
    } finally {
      await app.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', {
        identifier,
      });
    }
  });
});
