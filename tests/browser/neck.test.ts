/** The neck's layers, zones, shapes, the region view and instruments. */
import { readdirSync } from 'node:fs';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { pdfWords } from '../pdf';
import { suite } from './suite';

const app = suite();

const { press } = app;

const { openChart } = app;

const E_FLAT = 'title: Third Fret\nkey: Eb\n| Eb | Ab | Bb | Cm7 |';

/** Every mark on the neck by string and fret: its label, and whether it is of now or next. */
const marks = (): Promise<Record<string, { label: string; chosen: boolean }>> =>
  app.driver.executeScript(
    `return Object.fromEntries([...document.querySelectorAll('[data-mark]')].map((mark) =>
       [mark.dataset.mark, { label: document.querySelector('[data-label="' + mark.dataset.mark + '"]').textContent,
         chosen: 'now' in mark.dataset || 'next' in mark.dataset }]))`,
  );

describe('layers', () => {
  test('a scale position lies under the pentatonic, by one key, and each note speaks', async () => {
    await openChart('title: Relatives\nkey: Eb\n| Eb | Cm | Ab | Bb |', '?at=1&zone=3-6');
    const before = await marks();
    await app.tick('Scale position');
    const after = await app.eventually(
      marks,
      (now) => Object.keys(now).length > Object.keys(before).length,
    );
    // The coming chord's pentatonic has the same notes; A flat and D are of neither.
    expect(after['6-3']).toEqual({ label: '3', chosen: true });
    expect(after['6-4']).toEqual({ label: '11', chosen: false });
    expect(after['5-5']).toEqual({ label: '7', chosen: false });
    const seventh = await app.find('[data-mark="5-5"]');
    expect(await seventh.getAttribute('aria-label')).toBe(
      'string 5, fret 5, D, major seventh over E flat major',
    );
    await app.driver.executeScript('arguments[0].focus()', seventh);
    await press(Key.ARROW_RIGHT);
    expect(await app.driver.executeScript('return document.activeElement.dataset.mark')).toBe(
      '5-6',
    );
  });

  test('triad and grip are joined, one octave and a string set narrow the neck', async () => {
    await openChart(E_FLAT, '?at=1&zone=3-6');
    await app.tick('Triad', 'Grip');
    const lines = () => app.driver.findElements(By.css('[role="group"] polyline'));
    await app.eventually(
      async () => (await lines()).length,
      (count) => count === 2,
    );
    expect(await app.textOf('[data-in-hand]')).toContain('triad, ');
    const all = Object.keys(await marks()).length;
    await app.tick('One octave');
    await app.eventually(marks, (now) => Object.keys(now).length < all);
    await app.tick('One octave');
    await app.onNeck(async () =>
      (await app.find('[aria-label="Neck"] select option[value="1-2-3"]')).click(),
    );
    await app.eventually(marks, (now) => Object.keys(now).every((id) => Number(id[0]) <= 3));
  });

  test('labels follow every view', async () => {
    await openChart(E_FLAT, '?at=2&zone=3-6');
    const label = async () => (await marks())['6-4']?.label;
    // A flat over A flat, over B flat, in the key, in its collection, by name, by finger.
    for (const [labels, expected] of [
      ['degree', '1'],
      ['next', '1'],
      ['key', '4'],
      ['collection', '1'],
      ['name', 'A♭'],
      ['finger', '2'],
    ] as const) {
      await app.label(labels);
      await app.eventually(label, (shown) => shown === expected);
    }
  });

  test('keyboard and ear hold with every layer on', async () => {
    await openChart(E_FLAT, '?at=1&zone=3-6');
    await app.tick('Pentatonic box', 'Scale position', 'Arpeggio', 'Triad', 'Grip', 'Home');
    await press('w');
    await app.eventually(marks, (now) => Object.keys(now).length > 40);
    const silent = await app.driver.executeScript<number>(
      `return [...document.querySelectorAll('[data-mark]')].filter((mark) => !mark.getAttribute('aria-label')).length`,
    );
    expect(silent).toBe(0);
    expect(await app.seriousFaults()).toEqual([]);
  });
});

describe('zones', () => {
  test('from a chart to the pattern of each chord at the third fret, in one key', async () => {
    await openChart(E_FLAT, '?at=1&zone=3-6');
    await press('z');
    await (await app.find('[aria-label="All five zones"] option[value="major"]')).click();
    const rows = await app.eventually(
      async () => (await app.textOf('[data-zone-map]')).split('\n'),
      (lines) => lines.some((line) => line.includes('pattern')),
    );
    const text = rows.join(' ');
    const patterns = (chord: string) =>
      [...text.slice(text.indexOf(` ${chord} pattern`)).matchAll(/pattern (\d)/gu)]
        .slice(0, 5)
        .map(([, digit]) => digit);
    expect(patterns('E♭')[1]).toBe('3');
    expect(patterns('A♭')[1]).toBe('1');
    expect(patterns('B♭')[1]).toBe('5');
    await press(Key.ESCAPE);
    await app.eventually(
      () => app.driver.findElements(By.css('[data-zone-map]')),
      (open) => open.length === 0,
    );
    await press('4');
    await app.eventually(
      () => app.driver.getCurrentUrl(),
      (url) => url.includes('zone=8-11'),
    );
  });
});

describe('shapes', () => {
  test('a picked shape takes the zone of Plan there', async () => {
    await openChart(E_FLAT, '/shapes?at=3&zone=3-6');
    expect(await app.textOf('[data-heading]')).toContain('Shapes of B♭:');
    const boxes = await app.driver.findElements(
      By.css('section:first-of-type [data-neck-picture]'),
    );
    expect(boxes).toHaveLength(5);
    await app.driver.executeScript('arguments[0].closest("a").click()', boxes[1]);
    await app.find('[data-chord-name="now"]');
    const zone = /zone=(\d+)-(\d+)/u.exec(await app.driver.getCurrentUrl());
    expect(Number(zone?.[2]) - Number(zone?.[1])).toBeLessThanOrEqual(4);
  });

  test('morphing marks the one note that moved', async () => {
    await openChart(E_FLAT, '/shapes?at=1');
    for (const [symbol, moved] of [
      ['E♭maj7', 0],
      ['E♭7', 1],
      ['E♭m7', 1],
    ] as const) {
      await (await app.findText('button', 'Next quality')).click();
      await app.eventually(
        () => app.textOf('[data-heading]'),
        (title) => title.startsWith(`Shapes of ${symbol}:`),
      );
      const rings = await app.driver.findElements(
        By.css('[aria-label="Homes"] a:first-of-type .stroke-next'),
      );
      expect(rings.length > 0).toBe(moved > 0);
    }
    expect(await app.seriousFaults()).toEqual([]);
  });
});

describe('the overview', () => {
  // Named as the player chose on the zones' map above: the choice is kept.
  test('one neck for each chord in order, downloads as SVG and PNG, and prints', async () => {
    await openChart(E_FLAT, '/region?zone=3-6');
    const captions = async () =>
      Promise.all(
        (await app.driver.findElements(By.css('figure'))).map((figure) =>
          figure.getAttribute('data-caption'),
        ),
      );
    expect(await captions()).toEqual([
      '1  E♭  pattern 3',
      '2  A♭  pattern 1',
      '3  B♭  pattern 5',
      '4  Cm7  pattern 3',
    ]);
    await app.menu('Save as a picture (SVG)');
    await app.menu('Save as a picture (PNG)');
    await app.menu('Save as PDF');
    const name = 'Third Fret zone 3-6';
    await app.eventually(
      async () => readdirSync(app.files).sort(),
      (names) => names.join() === ['pdf', 'png', 'svg'].map((kind) => `${name}.${kind}`).join(),
    );
    // Its words are outlines that say what they are.
    const svg = String(await app.downloaded(/\.svg$/u));
    expect(svg.match(/<svg/gu)).toHaveLength(1);
    expect(svg).not.toContain('class=');
    for (const word of ['E♭', 'Cm7', 'pattern 5', 'bar 4']) expect(svg).toContain(`<title>${word}`);
    const png = await app.downloaded(/\.png$/u);
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    const [page, ...more] = await pdfWords(await app.downloaded(/\.pdf$/u));
    expect(more).toEqual([]);
    expect(page).toMatch(/^Third Fret .*zone 3–6.* E ♭ bar 1 pattern 3/u);
    // What is pressed on the screen is not on paper.
    expect(page).not.toMatch(/Practice|All five|Degrees/u);
    const pdf = (await app.driver.sendAndGetDevToolsCommand('Page.printToPDF', {
      paperWidth: 8.27,
      paperHeight: 11.69,
      printBackground: true,
    })) as unknown as { data: string };
    expect(Buffer.from(pdf.data, 'base64').subarray(0, 5).toString()).toBe('%PDF-');
    await (await app.findText('button', 'All five')).click();
    await app.eventually(captions, (all) => all.length === 20);
    expect(await app.seriousFaults()).toEqual([]);
  });
});

describe('instruments', () => {
  test('another instrument is kept, shown as it is set, and remembered by the chart', async () => {
    await app.visit(`${app.url}/settings`);
    await (await app.findText('button', 'Add an instrument')).click();
    const second = '[data-instrument]:nth-of-type(2)';
    await (await app.find(`${second} option[value="Seven-string"]`)).click();
    const strings = () => app.driver.findElements(By.css(`${second} svg line.stroke-ink-soft`));
    await app.eventually(
      async () => (await strings()).length,
      (count) => count === 7,
    );
    const tuning = await app.find(`${second} input.w-64`);
    await tuning.clear();
    await tuning.sendKeys('E2 A2 nonsense', Key.TAB);
    await app.findText('p', '“nonsense” is not an open string');
    expect((await strings()).length).toBe(7);

    const plan = await openChart(E_FLAT, '?at=1');
    await app.menu('Instrument and tuning');
    await (await app.findText('option', 'Another guitar')).click();
    const onNeck = () =>
      app.driver.findElements(By.css('svg[role="group"][aria-label^="Neck"] line.stroke-ink-soft'));
    await app.eventually(
      async () => (await onNeck()).length,
      (count) => count === 7,
    );
    await app.eventually(
      async () => (await app.find('[data-save-state]')).getAttribute('data-save-state'),
      (state) => state === 'saved',
    );
    await app.visit(plan);
    expect(await onNeck()).toHaveLength(7);
    expect(await app.seriousFaults()).toEqual([]);
  });
});
