/** Plan on one screen: nothing scrolls the page, nothing is cut, the keys step wherever the focus stands. */
import { Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { suite } from './suite';

const app = suite();

const { press } = app;

const LONG = `title: Sixty-Four\nkey: Db\n${['A', 'B', 'C', 'D']
  .map((name) => `[${name}]\n${'| Dbmaj7#11 | Ebm7b5 Ab7alt | Gbm(maj7) | Bbm7 '.repeat(4)}|`)
  .join('\n')}`;

const { resize } = app;

/** The addresses of the demo charts, and of a long one. */
async function charts(): Promise<readonly string[]> {
  await app.visit(app.url);
  const demo = await app.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('[data-row]')].map((link) => link.href)`,
  );
  return [...demo, `${app.url}/plan/${await app.makeChart(LONG)}`];
}

/** Adds to what was found the lines of the strip that end in sight only in part. */
const CUT_LINES = `
    const form = document.querySelector('[aria-label^="The form"]');
    const { top: above, bottom: below } = form.getBoundingClientRect();
    for (const line of form.querySelectorAll('ol')) {
      const { top, bottom } = line.getBoundingClientRect();
      const seen = Math.min(bottom, below) - Math.max(top, above);
      if (seen > 3 && seen < bottom - top - 1) found.push('line cut: ' + line.textContent.trim());
    }`;

/** What of the page is out of sight: it scrolls, or a head's or a bar's words are cut. */
const outOfSight = (least: number, gap: number): Promise<readonly string[]> =>
  app.driver.executeScript(
    `
    const found = [];
    const page = document.documentElement;
    if (page.scrollHeight > innerHeight) found.push('scrolls down');
    if (page.scrollWidth > innerWidth) found.push('scrolls sideways');
    const head = document.querySelector('main > header');
    if (head.offsetHeight > 52) found.push('head of ' + head.offsetHeight);
    for (const chord of document.querySelectorAll('[data-chord]')) {
      const edge = chord.closest('li').getBoundingClientRect().right;
      const words = chord.querySelectorAll('.heading, [data-name] [aria-hidden], [data-numeral]');
      for (const word of words) {
        const range = document.createRange();
        range.selectNodeContents(word);
        if (range.getBoundingClientRect().right > edge + 1) found.push('cut: ' + word.textContent);
      }
    }
    const panel = document.querySelector('[data-option]')?.closest('.overflow-y-auto');
    const bottom = panel?.getBoundingClientRect().bottom ?? 0;
    const whole = [...document.querySelectorAll('[data-option]')].filter(
      (row) => row.getBoundingClientRect().bottom <= bottom + 1,
    );
    if (whole.length < arguments[0]) found.push('options in sight: ' + whole.length);
    const strings = [...document.querySelectorAll('[data-neck] line')]
      .filter((line) => line.getAttribute('y1') === line.getAttribute('y2'))
      .map((line) => line.getBoundingClientRect().top).sort((a, b) => a - b);
    const gap = (strings.at(-1) - strings[0]) / (strings.length - 1);
    if (gap < arguments[1] - 0.5) found.push('strings apart: ' + gap);
    const strip = document.querySelector('[aria-label^="The form"]').offsetHeight;
    if (strip > 200) found.push('strip of ' + strip);
    ${CUT_LINES}
    const visible = [...document.querySelectorAll('main :is(a, button, select, input)')].filter(
      (one) => one.getClientRects().length > 0 && !one.closest('[aria-label^="The form"]'),
    );
    if (arguments[0] === 0 && visible.length > 14) found.push('controls: ' + visible.length);
    return found;`,
    least,
    gap,
  );

const STANDS = [
  [1280, 800],
  [1366, 768],
  [1024, 768],
] as const;

describe('the stage on one screen', () => {
  /** A neck of six strings grows no higher than this, whatever the room. */
  const MOST = 340;

  const measures = () =>
    app.driver.executeScript<Readonly<Record<string, number>>>(
      `const bottom = (css) => document.querySelector(css).getBoundingClientRect().bottom;
       const neck = document.querySelector('.stage-neck');
       return {
         scrolls: document.documentElement.scrollHeight - innerHeight,
         cut: neck.scrollHeight - neck.clientHeight,
         height: neck.clientHeight,
         spare: innerHeight - bottom('[data-stage-says]'),
       };`,
    );

  test('the neck takes the room there is, for every demo chart and a long one', async () => {
    for (const address of await charts()) {
      await app.visit(`${address}/play?at=3`);
      for (const [width, height] of STANDS) {
        await resize(width, height);
        // It grows once the room is known.
        const { scrolls, cut } = await app.eventually(
          measures,
          ({ height: drawn = 0, spare = 0 }) => drawn > MOST || spare < 12,
        );
        expect([address, width, scrolls, cut]).toEqual([address, width, 0, 0]);
      }
    }
  });

  test('with all its settings open it scrolls no page while it plays', async () => {
    const [first = '', ...others] = await charts();
    for (const address of [first, ...others.slice(-1)]) {
      await app.visit(`${address}/play?at=3`);
      await press('o');
      const ramp = await app.find('#stage-more [name="ramp"]');
      if (!(await ramp.isSelected())) await ramp.click();
      await app.find('[name="ramp-goal"]');
      await app.driver.executeScript(
        'document.querySelector("[data-stage-controls] button").click()',
      );
      await app.find('[data-pass]');
      for (const [width, height] of STANDS) {
        await resize(width, height);
        const page = await app.driver.executeScript<readonly number[]>(
          `const { scrollHeight, scrollWidth } = document.documentElement;
           return [scrollHeight - innerHeight, scrollWidth - innerWidth];`,
        );
        expect([address, width, ...page]).toEqual([address, width, 0, 0]);
      }
    }
  });
});

describe('Plan on one screen', () => {
  test('at every stand, for every demo chart and a long one', async () => {
    for (const address of await charts()) {
      await app.visit(`${address}?at=3`);
      const title = await app.textOf('h1');
      for (const [width, height] of STANDS) {
        await resize(width, height);
        // At rest the neck takes what there is; the strip and the neck are a stop of Tab each.
        const apart = width === 1280 ? 52 : 40;
        await app.eventually(
          () => outOfSight(0, apart),
          (found) => found.length === 0,
        );
      }
      await app.leaf('scales');
      for (const [width, height] of STANDS) {
        await resize(width, height);
        const apart = width === 1280 ? 34 : 28;
        expect([title, width, await outOfSight(2, apart)]).toEqual([title, width, []]);
      }
    }
  });

  test('a key steps wherever the focus stands, and a list keeps its own way', async () => {
    await resize(1280, 800);
    const [first = ''] = await charts();
    await app.visit(`${first}?at=1`);
    await app.leaf('scales');
    const now = () =>
      app.driver.executeScript<string>(
        `return document.querySelector('[data-time="now"]').dataset.chord`,
      );
    let at = 0;
    for (const focused of ['[data-option]', '[aria-label="Intent"] button', '#drawer select']) {
      for (const key of [Key.ARROW_RIGHT, Key.PAGE_DOWN, '.']) {
        await app.driver.executeScript('arguments[0].focus()', await app.find(focused));
        await press(key);
        at += 1;
        const wanted = String(at);
        await app.eventually(now, (index) => index === wanted);
      }
    }
  });
});

describe('what is pressed', () => {
  /** Remembers where all of it lies, or says what lies elsewhere since. */
  const moved = (remembers: boolean) =>
    app.driver.executeAsyncScript<readonly string[]>(
      `
      const [remembers, done] = arguments;
      const place = (one) => {
        const { x, y } = one.getBoundingClientRect();
        return [x, y].map(Math.round).join(' ');
      };
      const all = () => [...document.querySelectorAll('main :is(a, button, select, input)')];
      document.fonts.ready.then(() => {
        if (remembers) window.first = new Map(all().map((one) => [one, place(one)]));
        const elsewhere = [...window.first].filter(([one, at]) => one.isConnected && place(one) !== at);
        done(elsewhere.map(([one, at]) => one.textContent.trim() + ': ' + at + ', ' + place(one)));
      });`,
      remembers,
    );

  test.each([
    [1280, 800],
    [1024, 768],
    [360, 740],
  ])('at %d × %d stands still when what is late comes', async (width, height) => {
    const [chart = ''] = await charts();
    await resize(width, height);
    for (const address of [app.url, chart, `${chart}/region`, `${chart}/shapes`]) {
      await app.visit(address);
      await moved(true);
      await app.find(
        '[data-today], [data-sentence] [data-landing]:not(:empty), [data-shapes], [data-region]',
      );
      expect(await moved(false)).toEqual([]);
    }
    // The row of what comes next stands in the Book before its words are worked out.
    expect(await (await fetch(app.url)).text()).toContain('data-next-line');
  });

  test.each([
    [360, 740],
    [412, 915],
    [768, 1024],
  ])('at %i × %i every change stands on one screen, and the neck stands still', async (...at) => {
    const all = await charts();
    await resize(...at);
    for (const address of all.slice(-2)) {
      await app.visit(address);
      await app.find('[data-sentence] [data-landing]:not(:empty)');
      const found = await app.driver.executeAsyncScript<readonly string[]>(`
        const done = arguments[0];
        const found = [];
        const bar = document.querySelector('nav[aria-label="Chords and screens"]');
        const [, scales, next] = bar.querySelectorAll('button');
        // As it is at rest: a test before may have left the drawer open.
        if (scales.ariaExpanded === 'true') scales.click();
        const under = Math.min(innerHeight, bar.getBoundingClientRect().top || innerHeight);
        const neck = () => {
          const { top, height } = document.querySelector('[role="slider"]').closest('svg').getBoundingClientRect();
          return [top, height].map(Math.round).join();
        };
        let first = null;
        const look = (step) => {
          const said = document.querySelector('[data-sentence]').textContent.trim();
          const own = [...document.querySelectorAll('main button')].filter((one) => !bar.contains(one));
          first ??= neck();
          if (neck() !== first) found.push('neck moved from ' + first + ' to ' + neck() + ': ' + said);
          if (document.documentElement.scrollHeight > innerHeight) found.push('scrolls: ' + said);
          if (own.at(-1).getBoundingClientRect().bottom > under) found.push('covered: ' + said);
          ${CUT_LINES}
          if (step === 0) return done(found);
          next.click();
          requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(look, 30, step - 1)));
        };
        setTimeout(look, 100, 12);`);
      expect(found, address).toEqual([]);
    }
  });
});
