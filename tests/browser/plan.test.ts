import { readFileSync } from 'node:fs';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { untilKept } from './harness';
import { suite } from './suite';

const app = suite();

const { press } = app;

const nowName = () => app.textOf('[data-chord-name="now"]');
const nextName = () => app.textOf('[data-chord-name="next"]');
const { saved } = app;

/** Labels of the marks on the neck that are of now, by string and fret. */
const { labelsNow } = app;
async function openDemo(title: string) {
  await app.visit(app.url);
  await (await app.findText('a', title)).click();
  await app.find('[data-chord-name="now"]');
  await app.find('html[data-ready="plan"]');
}

/** A demo chart's text with no choices made yet. */
async function openUnplanned(name: string) {
  const text = readFileSync(`src/lib/server/demo/${name}.txt`, 'utf8');
  await app.visit(`${app.url}/plan/${await app.makeChart(text)}`);
}

async function typeChart(text: string) {
  const editor = await app.find('.cm-content');
  await editor.click();
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  // Typed as a paste would be: line breaks must not be indented for us.
  await press(text);
}

describe('stepping through a chart', () => {
  test('a demo chart is two clicks away, and the keys walk it', async () => {
    await openDemo('Locksmith Waltz');
    expect(await nowName()).toBe('F♯m6');
    expect(await nextName()).toBe('G♯m7♭5');
    await press(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await app.eventually(nowName, (name) => name === 'G♯m7♭5');
    expect(await nextName()).toBe('C♯7♭9');
    expect(await app.driver.getCurrentUrl()).toContain('at=3');
    await press(Key.HOME, Key.ARROW_LEFT);
    await app.eventually(nowName, (name) => name === 'F♯m6');
  });

  test('marks and labels are what theory says', async () => {
    await openUnplanned('ferry-at-half-past');
    await app.visit(`${(await app.driver.getCurrentUrl()).split('?')[0]}?at=1&zone=3-6`);
    await app.take('chord-tones');
    // A flat major seven between frets 3 and 6, worked out by hand.
    await app.eventually(labelsNow, (labels) => Object.keys(labels).length === 10);
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
    await app.label('name');
    await app.eventually(labelsNow, (labels) => labels['6-4'] === 'A♭' && labels['5-3'] === 'C');
    await app.label('degree');
    await app.take('own-pentatonic');
    await app.eventually(labelsNow, (labels) => labels['6-6'] === '9');
    // B flat minor seven comes next: A flat is held as its flat seventh, G is new to neither.
    const held = await app.find('[data-mark="6-4"]');
    expect(await held.getAttribute('data-motion')).toBe('holds');
    expect(await held.getAttribute('data-next')).toBe('guide');
  });

  test('the whole neck is one key away, and the zone moves by key and by drag', async () => {
    const url = (await app.driver.getCurrentUrl()).replace(/zone=[^&]*/u, 'zone=3-7');
    await app.visit(url);
    const inside = Object.keys(await labelsNow()).length;
    await press('w');
    await app.eventually(labelsNow, (labels) => Object.keys(labels).length > inside * 2);
    await press('w');
    // The bracket lifts it too, when it is pressed and not dragged.
    const zone = () => app.find('[role="slider"]');
    await (await zone()).click();
    await app.eventually(labelsNow, (labels) => Object.keys(labels).length > inside * 2);
    await (await zone()).click();
    await app.eventually(labelsNow, (labels) => Object.keys(labels).length === inside);
    await press(']', ']');
    await app.eventually(
      () => app.driver.getCurrentUrl(),
      (now) => now.includes('zone=5-9'),
    );
    const bracket = await zone();
    await app.driver
      .actions()
      .move({ origin: bracket })
      .press()
      .move({ origin: bracket, x: 180 })
      .release()
      .perform();
    const dragged = await app.eventually(
      () => app.driver.getCurrentUrl(),
      (now) => !now.includes('zone=5-9'),
    );
    const [low = 0, high = 0] = (/zone=(\d+)-(\d+)/u.exec(dragged) ?? []).slice(1).map(Number);
    expect(low).toBeGreaterThan(5);
    expect(high - low).toBe(4);
  });

  test('the neck is walked by keyboard alone, and each note speaks', async () => {
    await openUnplanned('ferry-at-half-past');
    await app.visit(`${(await app.driver.getCurrentUrl()).split('?')[0]}?at=1&zone=3-6`);
    await app.take('chord-tones');
    const focused = async () =>
      app.driver.executeScript<string>('return document.activeElement.dataset.mark ?? ""');
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
    const spoken = await (await app.find('[data-mark="5-3"]')).getAttribute('aria-label');
    expect(spoken).toBe(
      'string 5, fret 3, C, third of A flat major 7, then ninth of B flat minor 7, holds',
    );
    const read = await app.driver.executeScript<string>(
      'return document.activeElement.getAttribute("aria-label")',
    );
    expect(await app.textOf('[data-readout]')).toBe(read);
  });
});

describe('writing a chart', () => {
  test('a mistake is named at its place, the last good reading stays, and the fix is kept', async () => {
    await app.visit(app.url);
    await (await app.findText('button', 'New chart')).click();
    await app.find('[data-workbench]');
    // While the bars are edited letters are chords: the text is opened by its button.
    await app.menu('Edit the text');
    await app.find('.cm-content');
    await typeChart('title: Two Spoons\nkey: Eb\n| Ebmaj7 | Cm7 |\n');
    await app.eventually(nowName, (name) => name === 'E♭maj7');
    await press('| Fm7 | Bbq7 |');
    const verdict = await app.eventually(
      () => app.textOf('[data-problem]'),
      (text) => text.includes('Bb'),
    );
    expect(verdict).toBe('Line 4, column 9: “q7” after Bb is not a chord spelling Corvel knows.');
    expect(await nowName()).toBe('E♭maj7');
    for (let count = 0; count < 4; count++) await press(Key.BACK_SPACE);
    await press('7 |');
    await app.eventually(
      async () => (await app.driver.findElements(By.css('[data-chord="3"]'))).length,
      (count) => count === 1,
    );
    await saved();
    await app.driver.navigate().refresh();
    await app.find('html[data-ready="plan"]');
    expect(await app.textOf('h1')).toBe('Two Spoons');
    await app.visit(app.url);
    await app.findText('a', 'Two Spoons');
  });

  test('undo and redo go through the text', async () => {
    await (await app.findText('a', 'Two Spoons')).click();
    await app.find('html[data-ready="plan"]');
    await app.menu('Edit the text');
    await app.find('.cm-content');
    await typeChart('| C | F |');
    await app.eventually(nowName, (name) => name === 'C');
    // What was typed with a pause in it is undone in as many steps.
    const until = (key: string, wanted: string) =>
      app.eventually(
        async () => {
          const name = await nowName();
          if (name !== wanted)
            await app.driver
              .actions()
              .keyDown(Key.CONTROL)
              .sendKeys(key)
              .keyUp(Key.CONTROL)
              .perform();
          return name;
        },
        (name) => name === wanted,
      );
    await until('z', 'E♭maj7');
    await until('y', 'C');
    await until('z', 'E♭maj7');
    await saved();
  });

  test('two tabs edit the same chart and neither loses work', async () => {
    const url = (await app.driver.getCurrentUrl()).split('?')[0] ?? '';
    const first = await app.driver.getWindowHandle();
    await app.visit(`${url}?edit=text`);
    await app.find('.cm-content');
    await app.driver.switchTo().newWindow('tab');
    const second = await app.driver.getWindowHandle();
    await app.visit(`${url}?edit=text`);
    await app.find('.cm-content');
    // What the first has typed is still on its way when the second saves.
    await app.driver.switchTo().window(first);
    await app.driver.executeScript(
      `const go = window.fetch; const way = new Promise((done) => (window.letGo = done));
       window.fetch = (...asked) => (asked[1]?.method === 'PUT' ? way.then(() => go(...asked)) : go(...asked));`,
    );
    await typeChart('title: First tab\n| A |');
    await app.driver.switchTo().window(second);
    await typeChart('title: Second tab\n| G |');
    await saved();
    await app.driver.switchTo().window(first);
    await app.driver.executeScript('window.letGo()');
    await app.findText('*[@role="heading"]', 'Changed in two places');
    const shown = await app.eventually(
      () => app.textOf('[role="dialog"]'),
      (text) => text.includes('| A |'),
    );
    expect(shown).toContain('| G |');
    await (await app.findText('button', 'Keep both')).click();
    await saved();
    await app.eventually(nowName, (name) => name === 'G');
    await app.visit(app.url);
    await app.findText('a', 'First tab');
    await app.findText('a', 'Second tab');
    await app.driver.switchTo().window(second);
    await app.driver.close();
    await app.driver.switchTo().window(first);
  });
});

describe('the Book', () => {
  const rowMenu = async (title: string, item: string) => {
    await (await app.find(`[aria-label="Actions for ${title}"]`)).click();
    await app.choose(item);
  };
  const titles = () =>
    app.driver.executeScript<string[]>(
      `return [...document.querySelectorAll('[data-row]')].map((a) => a.textContent)`,
    );

  test('finds, renames, duplicates, deletes and brings back', async () => {
    await app.visit(app.url);
    const search = await app.find('input[type="search"]');
    await search.sendKeys('kite');
    await app.eventually(titles, (list) => list.length === 1 && list[0] === 'Four Corner Kite');
    await search.clear();
    await search.sendKeys('zzz');
    await app.findText('p', 'No chart matches');
    await (await app.findText('button', 'Show all')).click();

    await rowMenu('Four Corner Kite', 'Rename');
    await press('Paper Kite', Key.ENTER);
    await app.eventually(titles, (list) => list.includes('Paper Kite'));
    await rowMenu('Paper Kite', 'Duplicate');
    await app.eventually(titles, (list) => list.includes('Paper Kite (copy)'));
    await rowMenu('Paper Kite (copy)', 'Delete');
    await app.eventually(titles, (list) => !list.includes('Paper Kite (copy)'));
    await (await app.findText('button', 'Undo')).click();
    await app.eventually(titles, (list) => list.includes('Paper Kite (copy)'));
  });
});

describe('for everyone', () => {
  test.each(['light', 'dark'])('axe finds nothing serious in the %s theme', async (theme) => {
    await app.visit(app.url);
    await app.driver.executeScript(
      `localStorage.setItem('mode-watcher-mode', ${JSON.stringify(theme)})`,
    );
    await app.visit(app.url);
    expect(await app.seriousFaults()).toEqual([]);
    await openDemo('Gravel Road Receipt');
    expect(await app.seriousFaults()).toEqual([]);
    await app.menu('Edit the text');
    await app.find('.cm-content');
    await app.find('.cm-content');
    expect(await app.seriousFaults()).toEqual([]);
  });

  test('the keys are listed under the question mark', async () => {
    await openDemo('Gravel Road Receipt');
    await press('?');
    expect(await app.textOf('[role="dialog"]')).toContain('Whole neck');
    await press(Key.ESCAPE);
  });
});

describe('when the server goes away', () => {
  test('edits wait here and are sent on return', async () => {
    await openDemo('Slow Tide Counting');
    await app.menu('Edit the text');
    await app.find('.cm-content');
    await app.find('.cm-content');
    await app.server.kill('SIGTERM');
    await typeChart('title: Offline Tide\n| Gm9 | Fm9 |');
    await app.eventually(
      async () => (await app.find('[data-save-state]')).getAttribute('data-save-state'),
      (state) => state === 'offline',
    );
    await app.server.restart();
    await saved();
    await app.visit(app.url);
    await app.findText('a', 'Offline Tide');
  });

  test('after a first visit the chart opens and is edited without it, and is sent on return', async () => {
    await openDemo('Locksmith Waltz');
    const address = (await app.driver.getCurrentUrl()).split('?')[0] ?? '';
    await untilKept(app.driver);
    await app.server.kill('SIGTERM');
    await app.visit(`${address}?edit=text`);
    await app.find('.cm-content');
    await typeChart('title: Away Waltz\ntime: 3/4\n| Fm9 | Gm9 |');
    const state = async () => (await app.find('[data-save-state]')).getAttribute('data-save-state');
    await app.eventually(state, (now) => now === 'offline');
    // What was typed outlives the page.
    await app.visit(`${address}?edit=text`);
    await app.eventually(
      () => app.textOf('.cm-content'),
      (text) => text.includes('Away Waltz'),
    );
    await (await app.findText('a', 'Book')).click();
    await app.find('[aria-label="Actions for Locksmith Waltz"]');
    await app.server.restart();
    await app.visit(address);
    await saved();
    await app.visit(app.url);
    await app.findText('a', 'Away Waltz');
  });

  test('a page that was never opened here is a sentence with a way back', async () => {
    await app.server.kill('SIGTERM');
    await app.driver.get(`${app.url}/plan/neveropened`);
    expect(await app.textOf('body')).toContain('The server does not answer');
    await app.find('a[href="/"]');
    await app.server.restart();
  });
});

describe('key and idiom', () => {
  const text = (id: string) =>
    fetch(`${app.url}/api/charts/${id}`)
      .then((answer) => answer.json())
      .then((stored) => (stored as { text: string }).text);
  const details = async (id: string) => {
    await app.visit(`${app.url}/plan/${id}`);
    await app.menu('Key, tempo and title');
    return app.find('input[name="key"]');
  };

  test('a key that is typed is kept with Escape; over a stated one the question stays', async () => {
    const id = await app.makeChart('title: Six Doors\n| C | F | C | F |');
    await (await details(id)).sendKeys('F', Key.ESCAPE);
    await app.eventually(
      () => text(id),
      (kept) => kept.includes('key: F\n| C | F |'),
    );
    const field = await details(id);
    // Typed over what stands there: emptied first, the chart would state no key to ask about.
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'G', Key.ESCAPE);
    // It is asked whether the chords move, and nothing is dropped.
    await app.find('[data-key-asked]');
    await (await app.findText('button', 'Only rename')).click();
    await app.eventually(
      () => text(id),
      (kept) => kept.includes('key: G\n| C | F |'),
    );
  });

  test('the idiom is guessed, and what is chosen is kept with the chart', async () => {
    const id = await app.makeChart('title: Coal Shed\nfeel: shuffle\n| C | F | C | G |');
    await details(id);
    const shown = await app.driver.executeScript<string>(
      'return document.querySelector(\'select[name="idiom"]\').selectedOptions[0].textContent',
    );
    expect(shown).toBe('blues, as heard');
    await app.pick('idiom', 'jazz');
    await app.eventually(
      () => text(id),
      (kept) => kept.includes('feel: shuffle\nidiom: jazz\n'),
    );
    await app.pick('idiom', '');
    await app.eventually(
      () => text(id),
      (kept) => !kept.includes('idiom'),
    );
  });
});
