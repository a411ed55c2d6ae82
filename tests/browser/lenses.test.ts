import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { suite } from './suite';

const app = suite();

const { press } = app;
const control = (key: string) => app.held(Key.CONTROL, key);

const MINOR = 'key: Cm\ntempo: 80\n| Dm7b5 | G7alt | Cm6 | % |';
const BLUES = 'key: A\ntempo: 90\n| A7 | D9 | A7 | % |\n| D9 | % | A7 | % |\n| E7 | D9 | A7 | E7 |';

/** Opens a chart on Plan with its scales. */
async function openChart(text: string, place = ''): Promise<string> {
  const address = await app.openChart(text, place);
  await app.leaf('scales');
  return address;
}

const materials = (): Promise<readonly string[]> =>
  app.driver.executeScript(
    `return [...document.querySelectorAll('[data-material]')].map((cell) => cell.dataset.name)`,
  );
/** What is played over the chord sounding now, as the page says it. */
const materialNow = (): Promise<string> =>
  app.driver.executeScript(
    `return document.querySelector('[data-material-name="now"]').textContent.trim()`,
  );
const { labelsNow } = app;
const { saved } = app;

describe('choosing', () => {
  test('an option is seen on the neck before it is chosen, undone, and found after a reload', async () => {
    await openChart(MINOR, '?at=2&zone=3-7');
    await app.school('mode');
    // A new chart opens on what ranks first, here the altered scale.
    expect(await materialNow()).toBe('G altered');
    await (await app.find('[data-option="G phrygian dominant"]')).click();
    await app.eventually(materialNow, (name) => name === 'G phrygian dominant');
    const altered = await app.find('[data-option="G altered"]');
    expect(await altered.getText()).toContain('Ab melodic minor'.replace('b', '♭'));
    await app.driver.actions().move({ origin: altered }).perform();
    // The flat fourth of G altered is the third of G7alt, its flat third the sharp ninth.
    const seen = await app.eventually(labelsNow, (labels) => labels['6-6'] === '♯9');
    expect(seen['6-7']).toBe('3');
    expect(await materialNow()).not.toBe('G altered');
    await altered.click();
    await app.eventually(materialNow, (name) => name === 'G altered');
    await saved();
    await app.driver.navigate().refresh();
    await app.find('html[data-ready]');
    await app.eventually(materialNow, (name) => name === 'G altered');
    await app.school('mode');
    await (await app.find('[data-option="G phrygian dominant"]')).click();
    await app.eventually(materialNow, (name) => name === 'G phrygian dominant');
    await control('z');
    await app.eventually(materialNow, (name) => name === 'G altered');
  });

  test('modes are named by their parent scale where that is chosen', async () => {
    await app.onNeck(() => app.pick('modes', 'parent'));
    await app.eventually(materialNow, (name) => name === 'A♭ melodic minor from its seventh');
    await app.onNeck(() => app.pick('modes', 'mode'));
    await app.eventually(materialNow, (name) => name === 'G altered');
  });

  test('a choice reaches as far as it is told, the intent by key', async () => {
    await openChart(BLUES, '?at=1');
    await app.school('blues');
    await (await app.find('[data-option="A major blues"]')).click();
    await app.eventually(
      materials,
      (all) => all.filter((name) => name === 'A major blues').length === 5,
    );
    // The strip opens the line of now: the last of them stands in the next one.
    await press(...Array.from({ length: 8 }, () => Key.PAGE_DOWN));
    await app.eventually(materials, (all) => all.length === 4 && all[2] === 'A major blues');
    await press(Key.HOME);
    await press('i');
    expect(await (await app.find('[data-chord="0"]')).getAttribute('innerHTML')).toContain(
      'title="Coast: ',
    );
  });

  test('a style is taken whole, differs from the next, and is one undo away', async () => {
    await openChart(MINOR);
    const before = await materials();
    await app.leaf('style');
    await (await app.find('[data-style="modes"]')).click();
    await app.eventually(materials, (all) => all[1] === 'G altered');
    expect(await materials()).toEqual([
      'D locrian natural 2',
      'G altered',
      'C melodic minor',
      'C melodic minor',
    ]);
    await control('z');
    await app.eventually(materials, (all) => all.join() === before.join());
  });

  test('two options stand side by side', async () => {
    await openChart(MINOR, '?at=2');
    await app.school('mode');
    await (await app.findText('button', 'Compare')).click();
    const other = await app.find('[data-option="G whole tone"]');
    await app.driver.actions().move({ origin: other }).perform();
    const table = await app.find('[data-compare]');
    await app.eventually(
      () => table.getText(),
      (text) => text.includes('G whole tone'),
    );
    expect(await table.getText()).toContain('Only here');
  });

  test('the table of borrowed pentatonics and the stack of thirds choose too', async () => {
    await openChart('key: Ab\n| Abmaj7 | Fm7 |');
    await app.school('borrowed-pentatonic');
    expect(await app.driver.findElements(By.css('[data-matrix] tbody button'))).toHaveLength(48);
    await (await app.find('[data-matrix] button[aria-label^="G minor pentatonic"]')).click();
    await app.eventually(materialNow, (name) => name === 'G minor pentatonic');
    await app.school('stacked-arpeggio');
    await (await app.find('[data-stack] [aria-label^="E♭maj7 arpeggio"]')).click();
    await app.eventually(materialNow, (name) => name === 'E♭maj7 arpeggio');
    expect(await app.textOf('[data-why]')).toContain('♯11');
  });
});

describe('the change', () => {
  test('the moving third of a blues is said, and the half steps are arrows', async () => {
    await openChart(BLUES, '?at=1&zone=2-6');
    await app.take('chord-tones');
    await press(Key.ARROW_RIGHT);
    await app.take('chord-tones');
    await press(Key.ARROW_LEFT);
    await app.eventually(materialNow, (name) => name === 'A7 arpeggio');
    await app.leaf('scales');
    expect(await app.textOf('[data-why]')).toContain(
      'The moving third: C♯, third of A7, falls a half step to C, seventh of D9.',
    );
    const arrows = await app.find('[data-arrows]');
    expect(Number(await arrows.getAttribute('data-arrows'))).toBeGreaterThan(0);
    await app.leaf('change');
    const ladder = await app.find('[data-ladder] svg');
    await app.eventually(
      () => ladder.getAttribute('aria-label'),
      (said) => (said ?? '').includes('C sharp falls a half step to C.'),
    );
  });

  test('what one scale costs is said chord by chord, and leads there', async () => {
    await openChart('key: Eb\n| Eb | Ab | Bb |');
    await app.school('key-scale');
    await (await app.find('[data-option="Eb major pentatonic"]')).click();
    const price = await app.find('[data-price]');
    expect(await price.getText()).toBe(
      'Bar 2, A♭: no root (A♭); the third and fifth are there.\n' +
        'Bar 3, B♭: no third (D): the change will not be heard.',
    );
    await (await app.findText('button', 'Bar 3')).click();
    await app.eventually(
      () => app.textOf('[data-chord-name="now"]'),
      (name) => name === 'B♭',
    );
  });
});

describe('choices and the chart', () => {
  test('a choice whose chord is gone is set aside and can be put back', async () => {
    const address = await openChart(MINOR, '?at=2');
    const stored = address.replace('/plan/', '/api/charts/');
    await app.school('mode');
    await (await app.find('[data-option="G whole tone"]')).click();
    await saved();
    const kept = (await (await fetch(stored)).json()) as {
      plan: string;
      revision: number;
    };
    await fetch(stored, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...kept, text: MINOR.replace('G7alt', 'Db9') }),
    });
    await app.visit(`${address}?at=2`);
    await (await app.find('[data-set-aside] summary')).click();
    expect(await app.textOf('[data-set-aside]')).toContain('G7alt, bar 2: G whole tone');
    await (await app.findText('button', 'Put on D♭9')).click();
    await app.eventually(materialNow, (name) => name === 'G whole tone');
    expect(await app.driver.findElements(By.css('[data-set-aside]'))).toHaveLength(0);
  });

  test('a chart travels with its choices as JSON', async () => {
    await openChart('title: Two Ladders\n' + MINOR, '?at=2');
    await app.school('mode');
    await (await app.find('[data-option="G altered"]')).click();
    await app.eventually(materialNow, (name) => name === 'G altered');
    await app.menu('Save chart and plan (JSON)');
    expect(JSON.parse((await app.downloaded(/\.json$/u)).toString())).toMatchObject({
      format: 'corvel-chart',
      version: 1,
      plan: { choices: { '1': { lens: 'mode', name: 'G altered' } } },
    });
    await app.visit(app.url);
    await (await app.findText('button', 'Import')).click();
    await (await app.find('#import-file')).sendKeys(join(app.files, 'Two Ladders.json'));
    await app.find('[data-chord-name="now"]');
    await app.eventually(materials, (all) => all[1] === 'G altered');
  });
});

test('the demo charts come with different plans', async () => {
  await app.visit(app.url);
  const links: readonly string[] = await app.driver.executeScript(
    `return [...document.querySelectorAll('main a.heading')].map((link) => link.href)`,
  );
  const plans = new Set<string>();
  const demos = links.slice(-6);
  for (const link of demos) {
    await app.visit(link);
    plans.add((await materials()).join());
  }
  expect(plans.size).toBe(demos.length);
});

test('axe finds nothing serious in any lens, in either theme', async () => {
  await openChart(BLUES);
  for (const theme of ['light', 'dark']) {
    await app.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
      features: [{ name: 'prefers-color-scheme', value: theme }],
    });
    for (const lens of ['key-scale', 'borrowed-pentatonic', 'stacked-arpeggio', 'blues']) {
      await app.school(lens);
      expect(await app.seriousFaults()).toEqual([]);
    }
  }
});
