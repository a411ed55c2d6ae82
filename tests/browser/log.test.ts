/** The log and drills, as they are read, answered and led by. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { throwAway } from './started';
import { suite } from './suite';

const app = suite();
const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const count = (css: string) => script<number>(`return document.querySelectorAll('${css}').length`);
const text = (css: string) =>
  script<string>(`return document.querySelector('${css}')?.textContent?.trim() ?? ''`);

interface Stint {
  readonly id: string;
  readonly exercise: string;
  readonly minutes: number;
}
const stints = async () => (await (await fetch(`${app.url}/api/stints`)).json()) as Stint[];
const addStint = (stint: object) =>
  fetch(`${app.url}/api/stints`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: app.url },
    body: JSON.stringify(stint),
  });
const dropStint = (id: string) =>
  fetch(`${app.url}/api/stints/${id}`, { method: 'DELETE', headers: { origin: app.url } });

/** The page's clock, which says how long was played, can be put on. */
const holdClock = () =>
  script(`const now = performance.now.bind(performance);
    window.later = 0;
    performance.now = () => now() + window.later;`);
const putClockOn = (seconds: number) => script(`window.later += ${seconds * 1000}`);

describe('the log', () => {
  test('says what to practise next, and the blocks fill the minutes', async () => {
    await app.visit(`${app.url}/log`);
    await app.find('[data-block]');
    const minutes = () =>
      script<number>(`return [...document.querySelectorAll('[data-block] > p')]
        .reduce((sum, one) => sum + parseInt(one.textContent), 0)`);
    expect(await minutes()).toBe(20);
    await (await app.find('[name="session-minutes"] option[value="45"]')).click();
    await app.eventually(minutes, (sum) => sum === 45);
    const first = await text('[data-block] .font-semibold');
    await (await app.findText('button', 'Not today')).click();
    await app.eventually(
      () => text('[data-next-session]'),
      (all) => all.includes('Bring back what you postponed (1)'),
    );
    expect(first).not.toBe('');
    expect(await minutes()).toBe(45);
  });

  test('an untouched square leads to the stage, set up for it', async () => {
    await app.visit(`${app.url}/log`);
    const square = await app.find('[data-state="untouched"]');
    const says = (await square.getAttribute('title')) ?? '';
    await square.click();
    await app.find('html[data-ready="play"]');
    const [, low, high] = /frets (\d+) to (\d+)/u.exec(says) ?? [];
    expect(await app.driver.getCurrentUrl()).toContain(`zone=${low}-${high}`);
  });

  test('a session is begun with one key, with its tempo and line', async () => {
    await app.visit(`${app.url}/log`);
    await app.find('[data-block]');
    const bpm = /(\d+) bpm/u.exec(await text('[data-block]'))?.[1];
    await app.press(' ');
    await app.find('html[data-ready="play"]');
    await app.find('[data-pass]');
    expect(await text('[data-tempo]')).toContain(bpm ?? 'none');
    // The cautions are there when something is first played that day, and not again.
    await app.find('[data-care="cautions"]');
    await (await app.findText('button', 'Got it')).click();
    await app.press(' ');
    await app.press(' ');
    await app.find('[data-pass]');
    expect(await count('[data-care]')).toBe(0);
    await app.press(' ');
    // Back in the log the next block is offered.
    await app.driver.navigate().back();
    await app.findText('button', 'Go on');
  });

  /** What the screen says of the block it is for. */
  const blockSays = () =>
    script<{ number: string; left: string; next: string } | null>(`
      const bar = document.querySelector('[data-session-block]');
      const of = (name) => bar.querySelector('[data-block-' + name + ']').textContent.trim();
      return bar && { number: bar.querySelector('strong').textContent, left: of('left'), next: of('next') };`);

  test('goes on block after block with one key, as it was proposed, each with its clock', async () => {
    await app.visit(`${app.url}/log`);
    await app.find('[data-block]');
    const blocks = await script<string[]>(
      `return [...document.querySelectorAll('[data-block]')].map((one) => one.dataset.block)`,
    );
    const minutes = await script<string[]>(
      `return [...document.querySelectorAll('[data-block] > p')].map((one) => parseInt(one.textContent))`,
    );
    await app.press(' ');
    for (const [place, exercise] of blocks.entries()) {
      await app.eventually(
        () => app.driver.getCurrentUrl(),
        (address) =>
          address.includes('/play') &&
          address.includes(`line=${exercise === 'free' ? 'none' : exercise}`),
      );
      const says = await app.eventually(
        blockSays,
        (now) => now?.number === `Block ${place + 1} of ${blocks.length}`,
      );
      // Its time runs while it is played, and is its own.
      const least = Number(minutes[place]) - 1;
      expect(Number.parseInt(says?.left ?? '', 10)).toBeGreaterThanOrEqual(least);
      await app.find('[data-pass]');
      await app.press('>');
    }
    await app.find('[data-session-over]');
    // Nothing was played for half a minute.
    expect(await text('[data-session-over]')).toContain('half a minute is enough');
    expect(await count('[data-done]')).toBe(blocks.length);
    await (await app.findText('a', 'To the Book')).click();
    await app.eventually(
      () => app.driver.getCurrentUrl(),
      (address) => new URL(address).pathname === '/',
    );
  });

  test('a session of drills, a sheet, a line, a lick and free playing, each on its own screen, to its summary', async () => {
    const text8 = 'title: Low Shelf\nkey: C\ntempo: 200\n| Dm7 | G7 | Cmaj7 | % |';
    const chart = await app.makeChart(text8);
    const zone = { low: 7, high: 10 };
    const before = (days: number) =>
      new Date(Date.now() - days * 86_400_000).toISOString().replace('Z', '+00:00');
    // The demo's own log would take the session for itself.
    for (const { id } of await stints()) await dropStint(id);
    const post = (exercise: string, days: number, landed: number, tempo = 120) =>
      addStint({
        at: before(days),
        chart,
        exercise,
        zone,
        extent: 'form',
        tempoFrom: tempo,
        tempo,
        minutes: 5,
        asked: 20,
        landed,
        note: '',
      });
    for (const exercise of ['drills', 'sheet', 'lick'])
      expect((await post(exercise, 2, 10, exercise === 'drills' ? 1 : 120)).ok).toBe(true);
    for (const days of [2, 3, 4]) expect((await post('targets', days, 20)).ok).toBe(true);
    // Practised as it is: the sheet that comes back was kept.
    await app.visit(`${app.url}/plan/${chart}/practice`);
    await app.find('[data-notation][data-drawn]');
    await app.visit(`${app.url}/log?minutes=60`);
    await app.find('[data-block]');
    const blocks = await script<string[]>(
      `return [...document.querySelectorAll('[data-block]')].map((one) => one.dataset.block)`,
    );
    expect([...blocks].sort()).toEqual(
      expect.arrayContaining(['drills', 'free', 'lick', 'sheet', 'targets']),
    );
    expect(await text('[data-block="drills"]')).not.toContain('bpm');
    await (await app.findText('button', 'Start')).click();
    const SCREENS: Readonly<Record<string, string>> = {
      drills: '/drills',
      lick: '/licks',
      sheet: `/plan/${chart}/practice`,
    };
    for (const [place, exercise] of blocks.entries()) {
      await app.eventually(
        blockSays,
        (now) => now?.number === `Block ${place + 1} of ${blocks.length}`,
      );
      const { pathname, searchParams } = new URL(await app.driver.getCurrentUrl());
      expect(pathname.replace(/\/$/u, '')).toBe(SCREENS[exercise] ?? `/plan/${chart}/play`);
      if (pathname.endsWith('/play')) {
        expect(searchParams.get('line')).toBe(exercise === 'free' ? 'none' : exercise);
        await app.find('[data-pass]');
        // As long as it is in the log from.
        await holdClock();
        await app.press('x');
        await putClockOn(70);
        await app.eventually(
          () => blockSays(),
          (now) => now !== null,
        );
      }
      if (exercise === 'drills') {
        await holdClock();
        await putClockOn(50);
        await app.find('[data-card]');
      }
      // The bar says what comes, and leads there.
      const says = await blockSays();
      expect(says?.next).toContain(place + 1 < blocks.length ? 'Low Shelf' : 'the summary');
      await (await app.find('[data-block-next]')).click();
    }
    await app.find('[data-session-over]');
    expect(await count('[data-done]')).toBe(blocks.length);
    expect(await text('[data-tomorrow]')).toContain('Tomorrow begins with');
    const said = await text('[data-session-over]');
    // The stage's blocks were played; the rest was looked at.
    expect(said).toContain('The session as far as it was played');
    await app.eventually(
      () => text('[data-done="free"]'),
      (free) => free.includes('1 minute of'),
    );
    expect(await text('[data-done="lick"]')).toContain('not played');
  });

  test('a block made longer takes its time from the others', async () => {
    await app.visit(`${app.url}/log`);
    await app.find('[data-block]');
    const minutes = () =>
      script<number[]>(
        `return [...document.querySelectorAll('[data-block] > p')].map((one) => parseInt(one.textContent))`,
      );
    const [first = 0] = await minutes();
    await (await app.findText('button', 'Longer')).click();
    const after = await app.eventually(minutes, ([now]) => now === first + 2);
    expect(after.reduce((sum, one) => sum + one, 0)).toBe(20);
  });

  test('a sheet that is played stands in it too, and today in the head', async () => {
    const before = await stints();
    await app.openChart('title: Kettle Sheet\ntempo: 120\n| Dm7 | G7 |', '/practice?at=0');
    await app.find('[data-notation][data-drawn]');
    const today = async () =>
      Number(await (await app.find('[data-today]')).getAttribute('data-today'));
    const played = await today();
    await holdClock();
    await app.press(' ');
    await app.find('[data-sounding]');
    // More than a minute: the minutes of today are whole ones.
    await putClockOn(90);
    await app.press(' ');
    const after = await app.eventually(stints, (all) => all.length === before.length + 1);
    expect(after[0]?.minutes).toBeGreaterThanOrEqual(1.5);
    await app.eventually(today, (now) => now > played);
  });

  test('a stint is added by hand, noted on, taken out and brought back', async () => {
    await app.visit(`${app.url}/log`);
    const before = (await stints()).length;
    await (await app.findText('button', 'Add by hand')).click();
    await (await app.find('form [name="exercise"] option[value="enclosures"]')).click();
    await (await app.find('form button.button-strong')).click();
    await app.find('[data-stint="enclosures"]');
    await app.eventually(stints, (all) => all.length === before + 1);
    const note = await app.find('[data-stint="enclosures"] input');
    await note.sendKeys('thirds came la');
    // Kept while it is typed.
    await app.eventually(
      async () => (await (await fetch(`${app.url}/api/stints?as=json`)).text()).includes('came la'),
      (kept) => kept,
    );
    expect(await note.getAttribute('value')).toBe('thirds came la');
    // Emptied again before the field is left: nothing of it stays.
    await note.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, Key.TAB);
    await app.eventually(
      async () => (await (await fetch(`${app.url}/api/stints?as=json`)).text()).includes('came la'),
      (kept) => !kept,
    );
    await note.sendKeys('thirds came late', Key.ENTER);
    await app.eventually(
      async () => JSON.stringify(await stints()),
      (all) => all.includes('thirds came late'),
    );
    await (await app.find('[data-stint="enclosures"] button')).click();
    await app.eventually(stints, (all) => all.length === before);
    await (await app.findText('button', 'Undo')).click();
    await app.eventually(stints, (all) => all.length === before + 1);
  });

  test('what is played for half a minute stands in it', async () => {
    const before = await stints();
    await app.openChart('title: Kettle Hill\ntempo: 200\n| Dm7 | G7 |', '/play?at=0');
    await holdClock();
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-pass]');
    await putClockOn(20);
    await app.press('9');
    // Less than half a minute is none.
    expect(await count('[data-kept-stint]')).toBe(0);
    await putClockOn(10);
    await app.press('9');
    await app.find('[data-kept-stint]');
    await app.press(' ');
    const after = await app.eventually(stints, (all) => all.length === before.length + 1);
    expect(after[0]?.exercise).toBe('free');
    expect(after[0]?.minutes).toBeGreaterThanOrEqual(0.5);
    await app.eventually(
      async () => JSON.stringify((await stints())[0]),
      (one) => one.includes('"landed":10'),
    );
  });

  test('the whole book goes out as a file, and comes in with a look before', async () => {
    const bytes = await (await fetch(`${app.url}/api/archive`)).arrayBuffer();
    const path = join(throwAway('book'), 'book.zip');
    writeFileSync(path, Buffer.from(bytes));
    await app.openChart('title: Written Since\n| Dm7 | G7 |', '?at=0');
    await app.visit(`${app.url}/log`);
    await (await app.find('[name="archive"]')).sendKeys(path);
    await app.eventually(
      () => text('[data-archive-preview]'),
      (says) => says === 'Nothing is new in this archive.',
    );
    await (await app.find('[name="archive-mode"]:not(:checked)')).click();
    await app.eventually(
      () => text('[data-archive-preview]'),
      (says) => says.includes('charts: 1 put away'),
    );
    await (await app.findText('button', 'Replace everything')).click();
    await app.findText('div', 'Imported');
    const charts = async () => (await fetch(app.url)).text();
    expect(await charts()).not.toContain('Written Since');
    // As long as nothing else was taken in it can be taken back, on another visit too.
    await app.visit(`${app.url}/log`);
    await (await app.find('[data-taken] button')).click();
    await app.eventually(charts, (all) => all.includes('Written Since'));
    await app.eventually(
      () => count('[data-taken]'),
      (there) => there === 0,
    );
  });

  test('goes out as comma-separated values, and what was taken out of it comes back in', async () => {
    const before = await stints();
    const csv = await (await fetch(`${app.url}/api/stints?as=csv`)).text();
    const path = join(throwAway('csv'), 'log.csv');
    writeFileSync(path, csv);
    for (const { id } of before.slice(0, 2))
      await fetch(`${app.url}/api/stints/${id}`, { method: 'DELETE' });
    await app.visit(`${app.url}/log`);
    await (await app.find('[name="log-file"]')).sendKeys(path);
    await app.findText('div', '2 entries added');
    expect(await stints()).toHaveLength(before.length);
    const other = path.replace('log.csv', 'other.csv');
    writeFileSync(
      other,
      csv.replace(/(\d+),(\d+),(form|section|chord|two chords|two bars),/u, '$1,wide,$3,'),
    );
    await (await app.find('[name="log-file"]')).sendKeys(other);
    await app.findText('div', 'cannot be read');
  });

  test('has nothing that axe calls serious, on a phone either', async () => {
    for (const screen of ['log', 'drills']) {
      await app.visit(`${app.url}/${screen}`);
      expect(await app.seriousFaults()).toEqual([]);
      await app.driver.manage().window().setRect({ width: 360, height: 740 });
      expect(await app.seriousFaults()).toEqual([]);
      const over = 'return document.documentElement.scrollWidth - innerWidth';
      expect(await script<number>(over)).toBeLessThanOrEqual(0);
      await app.driver.manage().window().setRect({ width: 1280, height: 800 });
    }
  });

  test('a long day of practice leaves the head of every screen in one line on a phone', async () => {
    const made = await addStint({
      at: new Date().toISOString().replace('Z', '+00:00'),
      chart: await app.makeChart('| C |'),
      exercise: 'free',
      zone: { low: 5, high: 9 },
      tempoFrom: 120,
      tempo: 120,
      minutes: 125,
    });
    expect(made.ok).toBe(true);
    const { id } = (await made.json()) as { id: string };
    await app.resize(360, 740);
    for (const screen of ['', 'licks', 'drills', 'log', 'settings']) {
      await app.visit(`${app.url}/${screen}`);
      const today = await app.find('[data-today]');
      await app.eventually(
        () => today.getText(),
        (words) => /\d{3} min/u.test(words),
      );
      const head = `return document.querySelector('nav[aria-label="Screens"]').parentElement.offsetHeight`;
      expect(await script<number>(head), screen).toBeLessThan(60);
    }
    await app.resize(1280, 800);
    await dropStint(id);
  });
});

/** Whatever a card asks for: a place is none, an answer the first there is, by the key that is written on it. */
async function answerCard() {
  const key = (await text('[aria-label="Answers"] kbd')).toLowerCase();
  await app.press(key === '' ? Key.ENTER : key);
  await app.find('[data-answer]');
}

describe('drills', () => {
  test('ten cards are answered with keys alone, each with why, and ten more follow', async () => {
    await app.visit(`${app.url}/drills`);
    await app.find('[data-card]');
    for (let card = 1; card <= 10; card++) {
      await app.eventually(
        () => text('[data-card]'),
        (says) => says.includes(`card ${card} of 10`),
      );
      await answerCard();
      expect((await text('[data-answer] p')).length).toBeGreaterThan(15);
      await app.press(card % 2 === 0 ? Key.ENTER : ' ');
    }
    await app.find('[data-drills-over]');
    expect(await text('[data-drills-over] h2')).toMatch(/right/u);
    await app.press(' ');
    await app.eventually(
      () => text('[data-card]'),
      (says) => says.includes('card 1 of 10'),
    );
  });

  test('a kind, a chart and a zone are chosen, and every card is of them', async () => {
    await app.visit(`${app.url}/drills`);
    const chosen = async (name: string, value: string) => {
      await (await app.find(`[name="${name}"] option[value="${value}"]`)).click();
      await app.eventually(
        () => app.driver.getCurrentUrl(),
        (url) => url.includes(encodeURIComponent(value)),
      );
    };
    await chosen('drill-kind', 'name-note');
    await chosen('drill-zone', '5-8');
    for (let card = 1; card <= 10; card++) {
      await app.eventually(
        () => text('[data-card]'),
        (says) => says.startsWith('Name the note') && says.includes(`card ${card} of 10`),
      );
      const fret = Number(/fret (\d+)/u.exec(await text('[data-drill]'))?.[1]);
      expect(fret >= 5 && fret <= 8).toBe(true);
      // E is E, and Shift E is E flat.
      const kbd = card % 2 === 0 ? 'e' : Key.chord(Key.SHIFT, 'e');
      await app.press(kbd);
      await app.find('[data-answer]');
      await app.press(' ');
    }
    await app.find('[data-drills-over]');
  });

  test('every place of a degree is found by click', async () => {
    await app.visit(`${app.url}/drills?kind=find-degree`);
    await app.find('[data-card="find-degree"]');
    const marks = await app.driver.findElements(By.css('[data-drill] ~ div [data-mark]'));
    expect(marks.length).toBeGreaterThan(0);
    await marks[0]?.click();
    await app.eventually(
      async () => (await marks[0]?.getAttribute('aria-label')) ?? '',
      (says) => says.includes('chosen'),
    );
    await app.press(Key.ENTER);
    await app.find('[data-answer]');
  });
});
