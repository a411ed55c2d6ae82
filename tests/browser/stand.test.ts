/** At a music stand: keys, what answers them and where, paper, narrow windows, fingers. */
import { By, Key } from 'selenium-webdriver';
import { afterEach, describe, expect, test } from 'vitest';
import { suite } from './suite';

const app = suite();
const { press } = app;

const CHANGES = 'title: Four Doors\nkey: F\n| Gm7 | C7 | Fmaj7 | D7 |\n';
const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const focused = () =>
  script<string>(
    `const at = document.activeElement;
     return at.dataset.chord ? 'chord ' + at.dataset.chord : at.dataset.mark ? 'note ' + at.dataset.mark : at.localName`,
  );
/** Whether more is shown than one degree of the chord. */
const everyNote = async () => new Set(Object.values(await app.labelsNow())).size > 2;
const nowName = () => app.textOf('[data-chord-name="now"]');

afterEach(() => app.driver.sendDevToolsCommand('Emulation.clearDeviceMetricsOverride', {}));

describe('keys', () => {
  test('the strip is one stop of Tab, and the focus goes along with now', async () => {
    await app.openChart(CHANGES);
    expect(
      await script('return document.querySelectorAll(\'[data-chord][tabindex="0"]\').length'),
    ).toBe(1);
    await script('document.querySelector("[data-chord=\'0\']").focus()');
    await press(Key.ARROW_RIGHT);
    await app.eventually(focused, (at) => at === 'chord 1');
  });

  test('a key goes to the neck and back', async () => {
    await app.openChart(CHANGES);
    await press('0');
    await app.eventually(focused, (at) => at.startsWith('note'));
    await press('0');
    await app.eventually(focused, (at) => at === 'chord 0');
  });

  test('Escape closes what a key opened, and gives the focus back', async () => {
    await app.openChart(CHANGES);
    await script('document.querySelector("[data-chord=\'0\']").focus()');
    await press('z');
    await app.find('[role="dialog"] [data-zone-map]');
    // Behind an open sheet no key of the page acts.
    await press('y');
    await press(Key.ESCAPE);
    await app.eventually(focused, (at) => at === 'chord 0');
    expect(await app.driver.findElements(By.css('[data-zone-map]'))).toHaveLength(0);
    expect(await everyNote()).toBe(true);
  });

  test('a menu that is closed gives the focus back to its button, the first time too', async () => {
    await app.openChart(CHANGES);
    for (let time = 0; time < 2; time++) {
      await (await app.find('button[title="What the neck shows"]')).click();
      await app.find('[role="dialog"] select[name="labels"]');
      await press(Key.ESCAPE);
      await app.eventually(
        () => script<string>('return document.activeElement.title'),
        (title) => title === 'What the neck shows',
      );
    }
  });

  test('single keys can be switched off, and stay off; arrows go on', async () => {
    const address = await app.openChart(CHANGES);
    await press('?');
    await (await app.find('[name="character-keys"]')).click();
    await press(Key.ESCAPE);
    await app.eventually(
      () => app.driver.findElements(By.css('[role="dialog"]')),
      (open) => open.length === 0,
    );
    await app.visit(address);
    await press('y', Key.ARROW_RIGHT);
    await app.eventually(nowName, (name) => name === 'C7');
    expect(await everyNote()).toBe(true);
    await app.menu('Keys');
    await (await app.find('[name="character-keys"]')).click();
  });

  test('while bars are edited letters are chords', async () => {
    await app.openChart(CHANGES + '[B]\n| Bb6 |', '?edit=bars');
    await app.find('[data-workbench]');
    await app.eventually(
      () => script<boolean>('return document.activeElement.dataset.slot !== undefined'),
      (there) => there,
    );
    await press(...'bbm7', Key.ENTER);
    await app.eventually(
      () => app.textOf('[data-slot="0-0"]'),
      (text) => text.includes('B♭m7'),
    );
    expect(await script('return document.querySelectorAll("[data-workbench] ul").length')).toBe(2);
    await press(Key.ESCAPE);
    await app.find('[data-chord="0"]');
  });

  test('? answers on every page', async () => {
    for (const path of ['/', '/settings']) {
      await app.visit(app.url + path);
      await press('?');
      await app.find('[role="dialog"]');
    }
  });
});

interface Kept {
  readonly instruments: readonly object[];
  readonly revision: number;
}

describe('on the neck', () => {
  test('one key shows every third in the zone, and nothing else', async () => {
    await app.openChart(CHANGES, '?at=1&zone=5-8');
    await press('y');
    const labels = await app.eventually(app.labelsNow, (found) => Object.keys(found).length > 0);
    // B♭, third of G minor, between frets 5 and 8: strings 2 and 1 at 6, 3 at… and so on.
    expect(new Set(Object.values(labels))).toEqual(new Set(['♭3']));
    expect(Object.keys(labels).toSorted()).toEqual(['1-6', '4-8', '6-6']);
  });

  test('what answers a note stands beside the neck, and leaves the route in sight', async () => {
    await app.openChart(CHANGES, '?at=1&zone=3-7');
    await app.leaf('targets');
    await press('0', Key.ENTER);
    const card = await app.find('[data-from-here]');
    const [here, route] = await Promise.all([
      card.getRect(),
      (await app.find('[data-step="now"]')).getRect(),
    ]);
    expect(here.x + here.width).toBeLessThanOrEqual(route.x);
    const note = await focused();
    await press(Key.ESCAPE);
    await app.eventually(
      () => app.driver.findElements(By.css('[data-from-here]')),
      (open) => open.length === 0,
    );
    expect(await focused()).toBe(note);
  });

  test('words explain themselves where they stand', async () => {
    await app.openChart(CHANGES);
    await app.school('simplify');
    const tip = await app.find('[role="tooltip"]');
    expect(await tip.getText()).toContain('A plainer chord to think of instead');
    await press(Key.ESCAPE);
    await app.eventually(
      () => app.driver.findElements(By.css('[role="tooltip"]')),
      (open) => open.length === 0,
    );
  });

  test('an explanation stays while the pointer rests on it, and goes when it leaves', async () => {
    await app.resize(1280, 800);
    await app.openChart(CHANGES);
    await app.school('mode');
    await press(Key.ESCAPE);
    const said = () =>
      script<string>('return document.querySelector(\'[role="tooltip"]\')?.textContent ?? ""');
    const { x, y, width, height } = await (await app.find('[data-lens="simplify"]')).getRect();
    // Rests there longer than another explanation takes to come.
    const restAt = (to: { readonly x: number; readonly y: number }) =>
      app.driver
        .actions()
        .move({ x: Math.round(to.x), y: Math.round(to.y), duration: 200 })
        .pause(500)
        .perform();
    await restAt({ x: x + width / 2, y: y + height / 2 });
    const tip = await (await app.find('[role="tooltip"]')).getRect();
    const sentence = await said();
    await restAt({ x: tip.x + tip.width / 2, y: tip.y + tip.height / 2 });
    expect(await said()).toBe(sentence);
    await restAt({ x: tip.x + tip.width / 2, y: tip.y - 60 });
    expect(await said()).not.toBe(sentence);
  });

  test('the table of borrowed pentatonics is one stop of Tab, walked with arrows', async () => {
    await app.openChart(CHANGES);
    await app.school('borrowed-pentatonic');
    await app.find('[data-matrix]');
    expect(
      await script('return document.querySelectorAll(\'[data-square][tabindex="0"]\').length'),
    ).toBe(1);
    const least = await script<number>(
      `return Math.min(...[...document.querySelectorAll('[data-square]')].flatMap((one) => {
         const { width, height } = one.getBoundingClientRect();
         return [width, height];
       }))`,
    );
    expect(least).toBeGreaterThanOrEqual(24);
    await script('document.querySelector(\'[data-square][tabindex="0"]\').focus()');
    const before = await script<string>('return document.activeElement.dataset.square');
    await press(Key.ARROW_DOWN);
    const after = await script<string>('return document.activeElement.dataset.square');
    expect(Number(after.split('-')[0])).toBe(Number(before.split('-')[0]) + 1);
  });

  test('another tuning of one chart leaves the other charts as they are', async () => {
    const other = await app.openChart('title: Other\n| C |');
    const openStrings = () =>
      script<string>('return document.querySelector("[name=strings]").value');
    await app.openChart(CHANGES);
    await app.menu('Instrument and tuning');
    await (
      await (await app.find('select[name="tuning"]')).findElement(By.css('option[value="Drop D"]'))
    ).click();
    await app.eventually(openStrings, (strings) => strings.startsWith('D2'));
    await app.saved();
    await app.visit(other);
    await app.menu('Instrument and tuning');
    await app.find('[name="strings"]');
    expect(await openStrings()).toBe('E2 A2 D3 G3 B3 E4');
  });

  test('a tuning that finds no room for its instrument says so', async () => {
    const known = (await (await fetch(`${app.url}/api/settings`)).json()) as Kept;
    const put = (settings: object, revision: number) =>
      fetch(`${app.url}/api/settings`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...settings, revision }),
      });
    const many = Array.from({ length: 24 }, (_, at) => ({
      ...known.instruments[0],
      id: `number-${at}`,
      name: `Number ${at}`,
    }));
    await put({ ...known, instruments: many }, known.revision);
    await app.openChart(CHANGES);
    await app.menu('Instrument and tuning');
    await (
      await (await app.find('select[name="tuning"]')).findElement(By.css('option[value="DADGAD"]'))
    ).click();
    await app.findText('p', 'There are 24 instruments already.');
    await put(known, known.revision + 1);
  });
});

describe('the chart', () => {
  test('one that cannot be read whole shows what can, and the error at its bar', async () => {
    await app.openChart('key: F\n| Gm7 | Cxyz | Fmaj7 |');
    expect(await app.textOf('[data-problem]')).toContain('Cxyz');
    expect(await app.textOf('[data-unreadable]')).toContain('Line 2, column 9');
    const shown = await script<string[]>(
      'return [...document.querySelectorAll("[data-chord]")].map((one) => one.textContent)',
    );
    expect(shown).toHaveLength(2);
    await (await app.findText('button', 'Correct the text')).click();
    await app.findText('p', 'What can be read is shown.');
  });

  test('a key typed asks once whether to transpose or to rename', async () => {
    await app.openChart(CHANGES);
    const type = async (key: string) => {
      await press('k');
      const field = await app.find('[role="dialog"] input[name="key"]');
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), key, Key.TAB);
      await app.find('[data-key-asked]');
    };
    await type('Eb');
    await (await app.findText('button', 'Only rename')).click();
    await press(Key.ESCAPE);
    await app.eventually(nowName, (name) => name === 'Gm7');
    await type('D');
    await (await app.findText('button', 'Transpose')).click();
    await press(Key.ESCAPE);
    await app.eventually(nowName, (name) => name === 'F♯m7');
  });
});

describe('the Book', () => {
  test('takes typed chords in one line and opens them on Plan', async () => {
    await app.visit(app.url);
    await press('n');
    await press(...'gm7 c7 | fmaj7');
    await app.eventually(
      () => app.textOf('#typed-verdict'),
      (said) => said.startsWith('2 bars, 3 chords'),
    );
    await press(Key.ENTER);
    await app.eventually(nowName, (name) => name === 'Gm7');
    // What was worked on last stands first, with its shape and its first chords, once the server knows of it.
    await app.eventually(
      async () => {
        await app.visit(app.url);
        await app.find('tbody tr:first-child [data-form]');
        return app.textOf('tbody tr:first-child [data-first]');
      },
      (chords) => chords === 'Gm7 C7 Fmaj7',
    );
    await press(Key.ARROW_DOWN, Key.ENTER);
    await app.eventually(nowName, (name) => name === 'Gm7');
  });

  test('takes chords without bar lines as a bar each, or with one press as one bar, and names them', async () => {
    await app.visit(app.url);
    const line = await app.find('[name="chords"]');
    await line.sendKeys('am f c g');
    const said = (begins: string) =>
      app.eventually(
        () => app.textOf('#typed-verdict'),
        (now) => now.startsWith(begins),
      );
    await said('4 bars, 4 chords');
    await (await app.findText('button', 'All in one bar')).click();
    await said('1 bar, 4 chords');
    await (await app.findText('button', 'A bar for each chord')).click();
    await said('4 bars, 4 chords');
    await press(Key.ENTER);
    await app.eventually(nowName, (name) => name === 'Am');
    expect(await app.textOf('h1')).toBe('Am F C G');
    // Typed again, it is noticed, and may be made all the same.
    await app.visit(app.url);
    await (await app.find('[name="chords"]')).sendKeys('Am F C G');
    await app.eventually(
      () => app.textOf('#typed-verdict'),
      (now) => now.includes('“Am F C G” is in the Book already.'),
    );
  });

  test('makes one chart of two presses', async () => {
    const charts = async () => {
      await app.visit(app.url);
      return app.eventually(
        () => script<number>(`return document.querySelectorAll('tbody [data-row]').length`),
        (count) => count > 0,
      );
    };
    const before = await charts();
    const twice = async (press: string) => {
      await app.visit(app.url);
      await (await app.find('[name="chords"]')).sendKeys('Bm7 | E7 | Amaj7');
      await script(`const press = () => { ${press} }; press(); setTimeout(press, 60);`);
      await app.eventually(
        () => app.driver.getCurrentUrl(),
        (url) => url.includes('/plan/'),
      );
    };
    await twice(
      `document.querySelector('[name="chords"]')?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));`,
    );
    expect(await charts()).toBe(before + 1);
    await twice(
      `[...document.querySelectorAll('button')].find((one) => one.textContent.includes('New chart'))?.click();`,
    );
    expect(await charts()).toBe(before + 2);
  });

  test('keeps what cannot be read, and says why', async () => {
    await app.visit(app.url);
    const line = await app.find('[name="chords"]');
    await line.sendKeys('Gm7 | Hz9', Key.ENTER);
    await app.eventually(
      () => app.textOf('#typed-verdict'),
      (said) => said.includes('kept as it is'),
    );
    expect(await line.getAttribute('value')).toBe('Gm7 | Hz9');
  });
});

describe('paper', () => {
  const THIRTY_TWO = `key: Eb\n${'| Ebmaj7 | Cm7 | Fm7 | Bb7 |\n'.repeat(8)}`;

  /** How many pages a screen prints on, on A4 and on Letter. */
  async function pagesOf(): Promise<readonly number[]> {
    const pages: number[] = [];
    for (const [paperWidth, paperHeight] of [
      [8.27, 11.69],
      [8.5, 11],
    ]) {
      const printed = (await app.driver.sendAndGetDevToolsCommand('Page.printToPDF', {
        paperWidth,
        paperHeight,
        preferCSSPageSize: false,
        marginTop: 0.47,
        marginBottom: 0.47,
        marginLeft: 0.47,
        marginRight: 0.47,
      })) as unknown as { readonly data: string };
      const pdf = Buffer.from(printed.data, 'base64').toString('latin1');
      pages.push(pdf.match(/\/Type\s*\/Page\b/gu)?.length ?? 0);
    }
    return pages;
  }

  test('32 bars of eighths take two pages, and no bar runs over its line', async () => {
    const url = `${app.url}/plan/${await app.makeChart(THIRTY_TWO)}/practice`;
    await app.visit(url);
    await app.find('[data-notation][data-drawn]');
    await (
      await (
        await app.find('select[name="kind"]')
      ).findElement(By.css('option[value="continuous"]'))
    ).click();
    await app.eventually(
      () => app.textOf('[data-heading]'),
      (heading) => heading.startsWith('Continuous eighths'),
    );
    await app.find('[data-notation][data-drawn]');
    expect(await pagesOf()).toEqual([2, 2]);
  });

  /** Names of chords that are cut by the edge of their system, or stand over the one before; and how many. */
  const namesIn = (systems: string) => `
    const faults = [];
    let names = 0;
    for (const svg of ${systems}) {
      const edges = svg.getBoundingClientRect();
      let before = null;
      for (const name of svg.querySelectorAll('.vf-chord-name text')) {
        const box = name.getBoundingClientRect();
        names += 1;
        if (box.right > edges.right || box.left < edges.left) faults.push('cut: ' + name.textContent);
        if (before && box.left < before.right) faults.push('over another: ' + name.textContent);
        before = box;
      }
    }`;

  test('names of chords stand apart over their beats, and none is cut', async () => {
    const chart = `key: Ab\n${'| Bbm7b5 Eb7b9 | Abmaj7#11/C | Dbm(maj7) Gb13sus4 | Ab6 E7alt |\n'.repeat(8)}`;
    await app.visit(`${await app.openChart(chart)}/practice`);
    await app.find('[data-notation][data-drawn]');
    for (const kind of ['line', 'targets', 'continuous']) {
      await app.pick('kind', kind);
      await app.find('[data-notation][data-drawn]');
      const found = await script<{ faults: readonly string[]; names: number }>(
        `window.dispatchEvent(new Event('beforeprint'));
         const paper = document.querySelector('[data-paper]');
         paper.style.display = 'block';
         ${namesIn("paper.querySelectorAll('svg')")}
         paper.style.display = '';
         return { faults, names };`,
      );
      expect(found, kind).toEqual({ faults: [], names: 56 });
    }
  });

  test('so they do on a phone, where a bar has less room than its names', async () => {
    await app.resize(360, 780);
    const four = 'key: Ab\n| Bbm7b5 Eb7b9 Abmaj7#11/C Dbm(maj7) |\n';
    await app.visit(`${await app.openChart(four)}/practice`);
    await app.find('[data-notation][data-drawn]');
    const found = await script<{ faults: readonly string[]; names: number }>(
      `${namesIn("document.querySelectorAll('[data-notation] svg')")}
       return { faults, names };`,
    );
    expect(found).toEqual({ faults: [], names: 4 });
    await app.resize(1280, 800);
  });

  test('a plan is one page', async () => {
    await app.openChart(THIRTY_TWO);
    // Its paper comes when the page has nothing else to do.
    await app.eventually(
      () =>
        script<boolean>(
          `window.dispatchEvent(new Event('beforeprint'));
           return document.querySelector('[data-plan-paper]') !== null`,
        ),
      (there) => there,
    );
    expect(await pagesOf()).toEqual([1, 1]);
  });
});

describe('windows and fingers', () => {
  const PLACES = ['', '?edit=text', '?edit=bars', '/practice', '/region', '/shapes'];

  test('at 400 % nothing scrolls sideways', async () => {
    const plan = await app.openChart(CHANGES);
    const pages = [app.url, `${app.url}/settings`, ...PLACES.map((place) => plan + place)];
    await app.resize(320, 256);
    for (const page of pages) {
      await app.visit(page);
      const wider = await script<boolean>(
        'const { scrollWidth, clientWidth } = document.documentElement; return scrollWidth > clientWidth',
      );
      expect(wider, page).toBe(false);
    }
  });

  test('the neck, the chords and the system that plays are in sight together', async () => {
    const plan = await app.openChart(`key: Eb\n${'| Ebmaj7 | Cm7 | Fm7 | Bb7 |\n'.repeat(16)}`);
    for (const [width, height] of [
      [1280, 800],
      [1024, 768],
    ] as const) {
      await app.resize(width, height);
      await app.visit(`${plan}/practice`);
      await app.find('[data-notation][data-drawn]');
      await script('document.activeElement.blur()');
      for (let step = 0; step < 24; step++) await press(Key.ARROW_RIGHT);
      await app.find('[data-sounding]');
      const inSight = await app.eventually(
        () =>
          script<boolean>(
            `const whole = (css) => {
               const box = document.querySelector(css).getBoundingClientRect();
               return box.top >= 0 && box.bottom <= innerHeight;
             };
             return whole('[data-sounding]') && whole('[data-time="now"]') &&
               whole('svg[aria-label^="Sounding"]') &&
               document.documentElement.scrollHeight <= innerHeight`,
          ),
        (seen) => seen,
      );
      expect(inSight).toBe(true);
    }
  });

  test('a sheet played while it is drawn is drawn ahead, and nothing of the one before is left', async () => {
    await app.openChart(
      `key: Eb\ntempo: 160\n${'| Ebmaj7 | Cm7 | Fm7 | Bb7 |\n'.repeat(16)}`,
      '/practice',
    );
    await app.eventually(
      () => script('return document.querySelectorAll("[data-system]:empty").length'),
      (empty) => empty === 0,
    );
    // A slow page that plays is never idle.
    await script(
      `window.requestIdleCallback = (work, { timeout }) => setTimeout(work, timeout);
       for (const { dataset } of document.querySelectorAll('[data-system] > svg')) dataset.before = '';
       const list = document.querySelector('[name=kind]');
       list.value = 'continuous';
       list.dispatchEvent(new Event('change', { bubbles: true }));`,
    );
    await app.find('[data-system="0"] > svg:not([data-before])');
    await app.find('[data-notation][data-drawn]');
    await press(' ');
    await app.find('svg[aria-label^="Sounding"]');
    await script(
      `window.dark = 0;
       const look = () => {
         const sounds = document.querySelector('svg[aria-label^="Sounding"]');
         if (sounds && !document.querySelector('[data-sounding]')) window.dark++;
         requestAnimationFrame(look);
       };
       look();`,
    );
    await app.eventually(
      () => script('return document.querySelector("[data-sounding]")?.dataset.sounding'),
      (beat) => Number(beat) >= 17,
    );
    expect(await script('return window.dark')).toBe(0);
    expect(await script('return document.querySelectorAll("[data-before]").length')).toBe(0);
  });

  test('on a phone the neck of a sheet is scrolled to the zone', async () => {
    const plan = await app.openChart(CHANGES);
    await app.resize(360, 740);
    await app.visit(`${plan}/practice`);
    await app.find('[data-notation][data-drawn]');
    await script(
      `const list = document.querySelector('[name=zone]');
       list.selectedIndex = list.options.length - 1;
       list.dispatchEvent(new Event('change', { bubbles: true }));`,
    );
    await app.eventually(
      () => script('return document.querySelector(\'[aria-label="Neck"]\').scrollLeft'),
      (left) => Number(left) > 100,
    );
  });

  test('under a finger targets are 44 pixels high', async () => {
    const plan = await app.openChart(CHANGES);
    await app.driver.sendDevToolsCommand('Emulation.setTouchEmulationEnabled', { enabled: true });
    for (const page of [app.url, plan, `${plan}/practice`, `${plan}/region`]) {
      await app.visit(page);
      const small = await script<readonly string[]>(
        `return [...document.querySelectorAll('button, select, summary')]
           .filter((one) => {
             const { width, height } = one.getBoundingClientRect();
             return width > 0 && height < 43.5;
           })
           .map((one) => one.textContent.trim() || one.getAttribute('aria-label'))`,
      );
      expect(small, page).toEqual([]);
    }
    await app.driver.sendDevToolsCommand('Emulation.setTouchEmulationEnabled', { enabled: false });
  });
});
