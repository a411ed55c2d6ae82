/** The lick book: written with keys, read as it is typed, moved, found and put on a chart. */
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { playedWith } from '$core/listening/simulated';
import { pdfWords } from '../pdf';
import { suite } from './suite';
import { BEAT } from 'corvel-core';

const app = suite();

const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const count = (css: string) => script<number>(`return document.querySelectorAll('${css}').length`);
const texts = (css: string) =>
  script<string[]>(
    `return [...document.querySelectorAll('${css}')].map((one) => one.textContent.trim())`,
  );
const press = (...keys: string[]) =>
  app.driver
    .actions()
    .sendKeys(...keys)
    .perform();
const kept = () => app.find('[data-save="saved"]');
const title = () =>
  script<string>(
    `return document.querySelector('[data-lick-words] .heading')?.textContent.trim() ?? ''`,
  );
/** Opens the words of the lick: its title, chords, tags and source. */
async function openWords(): Promise<void> {
  const words = await app.find('[data-lick-words]');
  if ((await words.getAttribute('aria-expanded')) !== 'true') await words.click();
  await app.find('input[name="title"]');
}

async function newLick(): Promise<void> {
  await app.visit(`${app.url}/licks`);
  await (await app.findText('button', 'New')).click();
  await app.eventually(
    () => app.driver.getCurrentUrl(),
    (address) => /\/licks\/\w+$/u.test(address),
  );
  // It is written without a press on it.
  await app.find('[data-grid][data-notes="0"]:focus');
}

async function openStarter(name: string): Promise<void> {
  await app.visit(`${app.url}/licks`);
  await (await app.find('input[type="search"]')).sendKeys(name);
  await app.eventually(
    () => count('[data-lick]'),
    (found) => found === 1,
  );
  await (await app.find('[data-lick]')).click();
  await app.eventually(title, (shown) => shown === name);
}

describe('the lick book', () => {
  test('opens on the starter book, is searched, and walked', async () => {
    await app.visit(`${app.url}/licks`);
    expect(await count('[data-lick]')).toBeGreaterThan(55);
    await (await app.find('input[type="search"]')).sendKeys('minor sixth fall');
    await app.eventually(
      () => texts('[data-lick] span:first-child'),
      (names) => names.length === 3 && names.every((name) => name.startsWith('Fall')),
    );
    await (await app.find('[data-lick]')).click();
    await app.eventually(title, (name) => name.startsWith('Fall to the'));
    expect((await texts('[data-reading] li')).length).toBeGreaterThan(0);
    expect(await app.seriousFaults()).toEqual([]);
  });

  test('what is typed into its fields is kept while they are typed into, and undone at once', async () => {
    await newLick();
    const before = await title();
    const id = (await app.driver.getCurrentUrl()).split('/').at(-1) ?? '';
    const stored = async () =>
      (await (await fetch(`${app.url}/api/licks/${id}`)).json()) as Record<string, unknown>;
    const fields = [
      ['title', 'Round the Bend', { title: 'Round the Bend' }],
      ['chords', 'Am7 D7', { chart: '| Am7 D7 |' }],
      ['tags', 'slow, blues, ', { tags: ['slow', 'blues'] }],
      ['source', 'mine too', { source: 'mine too' }],
    ] as const;
    for (const [name, text, kept] of fields) {
      const field = await app.find(`input[name="${name}"]`);
      await field.clear();
      await field.sendKeys(text);
      // It is still typed into, and stands as it was typed.
      await app.eventually(stored, (lick) =>
        Object.entries(kept).every(([key, value]) =>
          JSON.stringify(lick[key]).includes(JSON.stringify(value).slice(1, -1)),
        ),
      );
      expect(await field.getAttribute('value')).toBe(text);
    }
    // The list says so too.
    const listed = () => texts('[data-lick][aria-current="page"] span');
    expect(await listed()).toEqual(['Round the Bend', '| Am7 D7 |']);
    await (await app.find('input[name="title"]')).click();
    for (let steps = 0; steps < 12 && (await title()) !== before; steps += 1)
      await (await app.find('button[aria-label="Undo"]')).click();
    // One step for each field, and one for each that was emptied first.
    expect(await title()).toBe(before);
    expect((await listed())[0]).toBe(before);
  });

  test('a lick is typed with keys: each note shows its degree, a bend both ends, and it is kept', async () => {
    await newLick();
    const keys = ['7', '9', 's', Key.ARROW_UP, '6', '8', 'b', '6', Key.ARROW_DOWN, '7', '5'];
    await press(...keys);
    await app.eventually(
      () => texts('[data-grid] [data-degree]'),
      (degrees) => degrees.length === 7,
    );
    const degrees = await texts('[data-grid] [data-degree]');
    // D, then a slide to E, F, and G bent to A over Dm7.
    expect(degrees.slice(0, 4)).toEqual(['1', '2', '♭3', '4→5']);
    // The cursor is as long as what is written next: an eighth ends before the one after it begins.
    const [cursor, apart] = await script<[number, number]>(`
      const left = (one) => one.getBoundingClientRect().left;
      const [first, second] = document.querySelectorAll('[data-grid] [data-degree]');
      const { width } = document.querySelector('[data-cursor]').getBoundingClientRect();
      return [width, left(second) - left(first)]`);
    expect(cursor).toBeLessThan(apart);
    expect(cursor).toBeGreaterThan(apart / 2);
    await kept();
    await app.driver.navigate().refresh();
    await app.find('html[data-ready]');
    await app.eventually(
      () => texts('[data-grid] [data-degree]'),
      (again) => again.join() === degrees.join(),
    );
    // Undone and done again.
    await script('document.querySelector("[data-grid]").focus()');
    await press(Key.END, Key.BACK_SPACE);
    await app.eventually(
      () => count('[data-grid] [data-fret]'),
      (notes) => notes === 6,
    );
    await app.held(Key.CONTROL, 'z');
    await app.eventually(
      () => count('[data-grid] [data-fret]'),
      (notes) => notes === 7,
    );
  });

  const MADE: readonly (readonly [string, string, () => Promise<void>, () => Promise<void>])[] = [
    [
      'a lick is being made',
      'The new lick is in Licks.',
      () => app.visit(`${app.url}/licks`),
      async () => (await app.findText('button', 'New')).click(),
    ],
    [
      'a chart is being made',
      'The new chart is in the Book.',
      () => app.visit(app.url),
      async () => (await app.findText('button', 'New chart')).click(),
    ],
    [
      'a melody is being written as a lick',
      'The melody is in Licks.',
      async () => {
        await app.openChart('title: Low Door\nkey: C\n| Am7 | Dm7 | G7 | Cmaj7 |', '/practice');
        await (await app.find('select[name="kind"] option[value="melody"]')).click();
        await app.find('[data-write-melody]');
      },
      async () => (await app.find('[data-write-melody]')).click(),
    ],
    [
      'a lick is being put on a chart',
      'The lick is on the chart.',
      async () => {
        await app.makeChart(
          'title: Salt Wagon\nkey: F\n| Bbmaj7 | Gm7 | C7 | Fmaj7 | Fmaj7 | D7 |',
        );
        await openStarter('ii–V–I: land on the third of Cmaj7');
        await (await app.find('[data-find]')).click();
        await app.findText('button', 'Salt Wagon');
      },
      async () => (await app.findText('button', 'Salt Wagon')).click(),
    ],
  ];
  test.each(MADE)('who goes elsewhere while %s stays there', async (_, said, there, make) => {
    await there();
    // What is saved is answered only once he is elsewhere.
    await script(`
      const { fetch } = window;
      const elsewhere = new Promise((go) => (window.elsewhere = go));
      window.fetch = async (...asked) => {
        const answer = await fetch(...asked);
        if (asked[1]?.method && asked[1].method !== 'GET') await elsewhere;
        return answer;
      };`);
    await make();
    // The list may give its own address a lick's meanwhile: where he goes is the link's.
    const link = await app.find('header nav a[href="/log"], header nav a[href*="/shapes"]');
    const { pathname: goal } = new URL(String(await link.getAttribute('href')), app.url);
    const here = async () => new URL(await app.driver.getCurrentUrl()).pathname;
    await link.click();
    await app.eventually(here, (now) => now === goal);
    await script('window.elsewhere()');
    await app.findText('li', said);
    expect(await here()).toBe(goal);
  });

  test('it is heard while it is written, alone and with the band', async () => {
    await newLick();
    await press('7', '9', '5');
    await (await app.findText('button', 'Play')).click();
    await app.findText('button', 'Stop');
    await (await app.find('input[name="band"]')).click();
    await app.findText('button', 'Stop');
    await press(Key.ESCAPE);
    await (await app.findText('button', 'Stop')).click();
    await app.findText('button', 'Play');
  });

  test('tablature of six lines with dashes is pasted', async () => {
    await newLick();
    await (await app.findText('button', 'Paste tablature')).click();
    const pasted =
      'e|-----------|\nB|-----5-8b10|\nG|-5-7-------|\nD|-----------|\nA|-----------|\nE|-----------|';
    await script(
      `const field = document.querySelector('textarea[name="pasted"]'); field.value = ${JSON.stringify(pasted)}; field.dispatchEvent(new Event('input', { bubbles: true }))`,
    );
    await (await app.findText('button', 'Read it')).click();
    await app.eventually(
      () => count('[data-grid] [data-fret]'),
      (notes) => notes === 4,
    );
    expect((await texts('[data-grid] [data-fret]')).at(-1)).toContain('8b10');
  });

  test('it goes out as MusicXML, moves with its chords, and becomes an exercise', async () => {
    await openStarter('Climb to the third, Cmaj7');
    const before = await texts('[data-grid] [data-fret]');
    await (await app.find('select[name="export"] option[value="musicxml"]')).click();
    expect(String(await app.downloaded(/\.musicxml$/u))).toContain('<score-partwise');
    await (await app.find('select[name="export"]:enabled option[value="pdf"]')).click();
    const [page, ...more] = await pdfWords(await app.downloaded(/\.pdf$/u));
    expect([page?.startsWith('Climb to the third, Cmaj7'), more]).toEqual([true, []]);
    expect(page).toContain('Landings');
    await (await app.findText('button', 'Half step up')).click();
    await app.eventually(
      () => texts('[data-grid] [data-fret]'),
      (after) => after.join() !== before.join(),
    );
    await openWords();
    expect(
      await script<string>(`return document.querySelector('input[name="chords"]').value`),
    ).toBe('| C♯maj7 | % |'.replace('C♯', 'Db'));
    await (await app.find('select[name="chain"] option[value="half steps"]')).click();
    await app.find('[data-notation]');
    await press(Key.ESCAPE);
    await (await app.find('button[aria-label="Undo"]')).click();
    await app.eventually(
      () => texts('[data-grid] [data-fret]'),
      (after) => after.join() === before.join(),
    );
  });

  test('it is found in a chart and put there, to be played with the band', async () => {
    await app.makeChart('title: Salt Wagon\nkey: F\n| Bbmaj7 | Gm7 | C7 | Fmaj7 | Fmaj7 | D7 |');
    await openStarter('ii–V–I: land on the third of Cmaj7');
    await (await app.find('[data-find]')).click();
    const place = await app.findText('button', 'Salt Wagon');
    expect(await place.getText()).toContain('the same changes');
    await place.click();
    await app.find('html[data-ready="play"]');
    await app.eventually(
      () => app.driver.findElements(By.css('[data-notation]')),
      (shown) => shown.length > 0,
    );
  });

  test('the melody of a tune is written over its form and put back with it', async () => {
    await app.openChart('title: Low Door\nkey: C\n| Am7 | Dm7 | G7 | Cmaj7 |', '/practice');
    await app.find('[data-goal]');
    // What is pressed stands still when the words of the exercise come, which are worked out.
    const [before, after] = await app.driver.executeAsyncScript<[number, number][]>(`
      const done = arguments[arguments.length - 1];
      const list = document.querySelector('select[name="kind"]');
      list.value = 'melody';
      list.dispatchEvent(new Event('change', { bubbles: true }));
      const place = () => {
        const { x, y } = document.querySelector('[data-write-melody]').getBoundingClientRect();
        return [x, y];
      };
      const goal = document.querySelector('[data-goal]').textContent;
      let first = null;
      const look = () => {
        if (document.querySelector('[data-write-melody]')) first ??= place();
        const changed = document.querySelector('[data-goal]').textContent !== goal;
        if (first && changed) done([first, place()]);
        else requestAnimationFrame(look);
      };
      queueMicrotask(look);
    `);
    expect(after).toEqual(before);
    await (await app.find('[data-write-melody]')).click();
    await app.find('[data-grid][data-notes="0"]');
    await script('document.querySelector("[data-grid]").focus()');
    await press('5', '7', Key.ARROW_UP, '5', '8');
    await kept();
    await (await app.find('[data-find]')).click();
    await (await app.findText('button', 'Use as the chart’s melody')).click();
    await app.find('html[data-ready="practice"]');
    await (await app.find('select[name="kind"] option[value="melody"]')).click();
    await app.eventually(
      () => texts('[data-goal]'),
      (goals) => goals.some((goal) => goal.startsWith('Know the tune')),
    );
    await app.find('[data-notation][data-drawn]');
    await app.findText('button', 'Remove the melody');
  });
});

describe('a lick by ear', () => {
  const verdicts = () =>
    script<string[]>(
      `return [...document.querySelectorAll('[data-fret]')].map((one) => one.dataset.verdict)`,
    );
  const fretsShown = () =>
    script<string[]>(
      `return [...document.querySelectorAll('[data-fret]')].map((one) => one.dataset.fret)`,
    );

  test('is checked note by note against what is written', async () => {
    await openStarter('Climb to the third, Cmaj7');
    const frets = await fretsShown();
    await app.listenTo('simulated', 'missed');
    await (await app.findText('button', 'Test my playing')).click();
    await app.find('[data-checked]');
    const notes = frets.map((_, beat) => ({ beat: beat * BEAT, beats: BEAT, midi: 60 }));
    const played = playedWith(notes, 'missed', 1);
    expect(played.length).toBeLessThan(notes.length);
    expect(await verdicts()).toEqual(
      notes.map((note) => (played.includes(note) ? 'as written' : 'missed')),
    );
    expect(await app.textOf('[data-checked]')).toContain(
      `${played.length} of ${notes.length} notes as written`,
    );
    // What is changed was not checked.
    await script('document.querySelector("[data-grid]").focus()');
    await press(Key.END, '7');
    await app.eventually(
      () => count('[data-checked]'),
      (found) => found === 0,
    );
  });

  test('is played in and written, and can be taken back', async () => {
    await newLick();
    await app.listenTo('simulated', 'none');
    await (await app.findText('button', 'Record by playing')).click();
    await app.find('[data-count]');
    await app.find('[data-grid]:not([data-notes="0"])');
    // He plays the root and the third of each of Dm7, G7, Cmaj7, Cmaj7.
    await app.eventually(
      () => texts('[data-grid] [data-degree]'),
      (degrees) => degrees.join() === '1,♭3,1,3,1,3,1,3',
    );
    await (await app.find('button[aria-label="Undo"]')).click();
    await app.find('[data-grid][data-notes="0"]');
    await kept();
  });
});
