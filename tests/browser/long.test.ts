/** A book, a lick book and a log that are long: rows as they are seen, and every one to be reached. */
import { Key } from 'selenium-webdriver';
import { beforeAll, describe, expect, test } from 'vitest';
import { fillBook } from '../soak/archive';
import { suite } from './suite';

const app = suite();
const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const CHARTS = 600;

beforeAll(async () => {
  await app.server.kill('SIGTERM');
  fillBook(app.server.data, { charts: CHARTS, licks: 600, stints: 900, takes: 0, sound: 0 });
  await app.server.restart();
});

/** Places in the list of the rows that are on the page. */
const drawn = () =>
  script<number[]>(
    `return [...document.querySelectorAll('[data-at]')].map((row) => Number(row.dataset.at))`,
  );

describe('a long book', () => {
  test('draws what is in sight, wherever it is scrolled, and has the length of all', async () => {
    await app.visit(app.url);
    expect((await drawn()).length).toBeLessThan(60);
    const height = () => script<number>('return document.documentElement.scrollHeight');
    expect(await height()).toBeGreaterThan(CHARTS * 50);
    await script('window.scrollTo(0, 20_000)');
    const rows = await app.eventually(drawn, (places) => (places[0] ?? 0) > 100);
    expect(rows.length).toBeLessThan(80);
    // What is seen has its form, which did not come with the page.
    const last = rows[Math.floor(rows.length / 2)] ?? 0;
    await app.find(`[data-at="${last}"] [data-form], [data-at="${last}"] svg`);
    await script('window.scrollTo(0, document.documentElement.scrollHeight)');
    const all = CHARTS + 6;
    await app.eventually(drawn, (places) => places.at(-1) === all - 1);
    expect(await script(`return document.querySelector('table').ariaRowCount`)).toBe(
      String(all + 1),
    );
    expect(await app.seriousFaults()).toEqual([]);
  });

  test('is walked by arrows beyond what was drawn, and searched at once', async () => {
    await app.visit(app.url);
    await (await app.find('[data-row]')).sendKeys('');
    await script(`document.querySelector('[data-row]').focus()`);
    for (let step = 0; step < 70; step++) await app.press(Key.ARROW_DOWN);
    await app.eventually(
      () => script<string>(`return document.activeElement.closest('[data-at]')?.dataset.at ?? ''`),
      (place) => place === '70',
    );
    const find = await app.find('input[type="search"]');
    await find.sendKeys(`Soaked ${CHARTS - 1}`);
    await app.eventually(
      () => script<string>(`return document.querySelector('[data-row]')?.textContent ?? ''`),
      (title) => title === `Soaked ${CHARTS - 1}`,
    );
  });

  test('has its licks and its days as they are asked for', async () => {
    await app.visit(`${app.url}/licks`);
    const titles = () =>
      script<string[]>(
        `return [...document.querySelectorAll('[data-lick]')].map((row) => row.dataset.lick)`,
      );
    const first = await titles();
    expect(first.length).toBeLessThan(60);
    await script(`document.querySelector('[data-lick]').closest('ul').scrollTop = 12_000`);
    await app.eventually(titles, (now) => now.length > 0 && now[0] !== first[0]);
    await app.visit(`${app.url}/log`);
    const stints = () => script<number>(`return document.querySelectorAll('[data-stint]').length`);
    const before = await stints();
    await (await app.findText('button', 'Show older ones')).click();
    await app.eventually(stints, (now) => now === before + 200);
    // What is taken out and brought back is in neither twice, and the older ones stay.
    const all = () => stints();
    await script(`document.querySelector('[data-stint] button').click()`);
    await app.eventually(all, (now) => now === before + 199);
    await (await app.findText('button', 'Undo')).click();
    await app.eventually(all, (now) => now === before + 200);
    await script(`[...document.querySelectorAll('[data-stint] button')].at(-1).click()`);
    await app.eventually(all, (now) => now === before + 199);
  });
});
