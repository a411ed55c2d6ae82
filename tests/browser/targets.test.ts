import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { pdfWords } from '../pdf';
import { suite } from './suite';
import { readWav } from './wav';

const app = suite();

const { press } = app;
const CHART = 'title: Nine Lamps\nkey: C\ntempo: 100\n| Dm7 | G7 | Cmaj7 | A7 |';

const openChart = (place: string) => app.openChart(CHART, place);

const settled = () => app.find('[data-targets="settled"]');
const flagAt = async (time: 'now' | 'next') =>
  (await app.find(`[data-target="${time}"]`)).getAttribute('data-place');
const { saved } = app;

describe('targets on Plan', () => {
  test('they stand on the neck, a key hides them, and each step says what it does', async () => {
    await openChart('?at=1&zone=3-7');
    await app.find('[data-target="now"]');
    const flags = async () => (await app.driver.findElements(By.css('[data-target]'))).length;
    await press('f');
    await app.eventually(flags, (count) => count === 0);
    // They are only not seen: the sentence says where to land in another zone too.
    await press(...Array.from({ length: 6 }, () => ']'));
    await app.eventually(
      () => app.textOf('[data-landing]'),
      (said) => Number(/fret (\d+)\.$/u.exec(said)?.[1] ?? 0) >= 9,
    );
    await press('f');
    await app.eventually(flags, (count) => count === 2);
    await app.leaf('targets');
    await settled();
    expect(await app.textOf('[data-step="now"]')).toMatch(/^Now Begin on [A-G]/u);
    await press(Key.ARROW_RIGHT);
    await app.eventually(
      () => app.textOf('[data-step="now"]'),
      (text) => /^Now .* (?:third|seventh) of G7\.$/u.test(text),
    );
  });

  test('another preference is solved anew, an alternative is one click away', async () => {
    await openChart('?at=1&zone=3-7');
    await app.leaf('targets');
    await settled();
    const select = await app.find('[data-targets] select');
    await (await select.findElement(By.css('option[value="1"]'))).click();
    await app.eventually(
      () => app.textOf('[data-step="now"]'),
      (text) => text.includes('root of Dm7'),
    );
    const ways = await app.driver.findElements(By.css('[data-targets] ul button'));
    expect(ways.length).toBeGreaterThan(1);
    await ways[1]?.click();
    await app.eventually(
      async () => ways[1]?.getAttribute('aria-pressed'),
      (pressed) => pressed === 'true',
    );
  });

  test('a note that is clicked shows the ways onward, and can be landed on', async () => {
    const url = await openChart('?at=1&zone=3-7');
    // F on string 4, fret 3: the third of D minor 7, which G7 holds as its seventh.
    await (await app.find('[data-mark="4-3"]')).click();
    const panel = await app.find('[data-from-here]');
    expect(await panel.getText()).toContain('F ♭7 of G7: holds');
    await (await app.findText('button', 'Land here on Dm7')).click();
    await (await app.findText('button', 'Close')).click();
    await app.eventually(
      () => flagAt('now'),
      (place) => place === '4-3',
    );
    await saved();
    await app.visit(`${url}?at=1&zone=3-7`);
    await app.eventually(
      () => flagAt('now'),
      (place) => place === '4-3',
    );
    await app.leaf('targets');
    expect(await app.textOf('[data-targets]')).toContain('One target is pinned.');
  });

  test('a pennant is dragged to another note, which pins it there', async () => {
    await openChart('?at=1&zone=3-7');
    await app.leaf('targets');
    await settled();
    const goal = (await flagAt('now')) === '2-6' ? '4-3' : '2-6';
    const flag = await app.find('[data-target="now"] path');
    const mark = await app.find(`[data-mark="${goal}"]`);
    await app.driver.actions().dragAndDrop(flag, mark).perform();
    await app.eventually(
      () => flagAt('now'),
      (place) => place === goal,
    );
  });

  test('the route is a lane under the bars, chord by chord what the pennants say', async () => {
    await openChart('?at=1&zone=3-7');
    const lane = (): Promise<readonly string[]> =>
      app.driver.executeScript(
        `return [...document.querySelectorAll('[data-lane]')].map((stop) =>
           stop.textContent.trim().split(/\\s+/u).at(-1))`,
      );
    // From guide tones on to the route.
    await app.onNeck(() => app.pick('lane', 'route'));
    await app.leaf('targets');
    await settled();
    await app.eventually(lane, (stops) => stops.length === 4);
    const select = await app.find('[data-targets] select');
    await (await select.findElement(By.css('option[value="1"]'))).click();
    await app.eventually(lane, (stops) => stops[0] === '1');
    const stops = await lane();
    await app.driver.executeScript('document.activeElement.blur()');
    for (const stop of stops) {
      await app.eventually(
        async () => (await app.find('[data-target="now"]')).getAttribute('data-degree'),
        (degree) => degree === stop,
      );
      await press(Key.ARROW_RIGHT);
    }
  });

  test('axe finds nothing serious with targets and ways onward shown', async () => {
    await openChart('?at=1&zone=3-7');
    await app.leaf('targets');
    await settled();
    expect(await app.seriousFaults()).toEqual([]);
    await (await app.find('[data-mark="4-3"]')).click();
    await app.find('[data-from-here]');
    expect(await app.seriousFaults()).toEqual([]);
  });
});

/** Seconds at which notes begin: where it is louder than it just was. */
function onsetsIn(wav: Buffer): readonly number[] {
  const { rate, samples } = readWav(wav);
  const block = Math.round(rate * 0.002);
  const loud = Array.from({ length: Math.floor(samples.length / block) }, (_, index) =>
    Math.max(...samples.slice(index * block, (index + 1) * block).map(Math.abs)),
  );
  const peak = Math.max(...loud);
  const onsets: number[] = [];
  for (const [index, level] of loud.entries()) {
    // Longer than a period of the lowest note.
    const before = Math.max(0, ...loud.slice(Math.max(0, index - 8), index));
    const since = index * 0.002 - (onsets.at(-1) ?? -1);
    if (level > before + peak * 0.12 && since > 0.1) onsets.push(index * 0.002);
  }
  return onsets;
}

async function openSheet(): Promise<string> {
  const id = await app.makeChart(CHART);
  const url = `${app.url}/plan/${id}/practice?at=1&zone=3-7`;
  await app.visit(url);
  await app.find('[data-notation][data-drawn]');
  return url;
}

const drawn = async () => (await app.find('[data-notation]')).getAttribute('data-drawn');

async function choose(name: string, value: string): Promise<void> {
  const select = await app.find(`select[name="${name}"]`);
  await (await select.findElement(By.css(`option[value="${value}"]`))).click();
}

test('a sheet goes out as a PDF, staff and tablature as vectors', async () => {
  await openSheet();
  await app.find('[data-drawn]');
  await app.menu('Save as PDF');
  const pdf = await app.downloaded(/\.pdf$/u);
  const pages = await pdfWords(pdf);
  expect(pages[0]).toMatch(/bpm/u);
  // Frets of the tablature are words; the music is drawn.
  expect(pages[0]).toMatch(/(?: \d{1,2}){4}/u);
  expect(pdf.toString('latin1')).not.toContain('/Subtype /Image');
  expect(
    await app.driver.executeScript('return document.querySelectorAll("[data-paper] > *").length'),
  ).toBeGreaterThan(0);
});

async function downloaded(format: string, extension: string): Promise<Buffer> {
  await choose('export', format);
  return app.downloaded(new RegExp(`\\${extension}$`, 'u'));
}

describe('the practice sheet', () => {
  test('an exercise is drawn, walked note by note on the neck, and changed', async () => {
    await openSheet();
    await choose('kind', 'ascending');
    await app.eventually(drawn, (count) => count === '32');
    expect(await app.textOf('[data-goal]')).toContain('Climb from the lowest root');
    await app.driver.executeScript('document.activeElement.blur()');
    await press(Key.ARROW_RIGHT);
    // Ascending over D minor 7 begins on its lowest root in the zone: string 5, fret 5.
    await app.find('[data-kind="sounding"][data-label="5-5"]');
    await press(Key.ARROW_RIGHT);
    await app.eventually(
      async () => (await app.find('[data-kind="sounding"]')).getAttribute('data-label'),
      (place) => place !== '5-5',
    );
    await choose('subdivision', 'quarters');
    await app.eventually(drawn, (count) => count === '16');
    await choose('extent', 'isolate');
    await app.eventually(
      () => app.textOf('[data-heading]'),
      (heading) => heading === 'Ascending: Dm7',
    );
  });

  test('a pattern is named, kept, found by its tag, sent as a line, and taken on another chart', async () => {
    await openSheet();
    await choose('kind', 'own');
    const field = await app.find('input[name="pattern"]');
    // A line that somebody sent brings its name and tags.
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '5 3 1 7 // Down the chord // bop, endings');
    await (await app.findText('button', 'My patterns')).click();
    const name = await app.find('input[name="pattern-name"]');
    expect(await name.getAttribute('value')).toBe('Down the chord');
    expect(await (await app.find('input[name="pattern-tags"]')).getAttribute('value')).toBe(
      'bop, endings',
    );
    await (await app.findText('button', 'Keep')).click();
    await app.find('[data-pattern="Down the chord"]');
    await (await app.find('input[type="search"]')).sendKeys('bop');
    await app.find('[data-pattern="Down the chord"]');
    await (await app.find('input[type="search"]')).sendKeys('x');
    await app.findText('li', 'None has this name or tag.');
    // It is there for every chart, from the server.
    await app.eventually(
      async () =>
        (await (await fetch(`${app.url}/api/settings`)).json()) as {
          patterns: Record<string, unknown>;
        },
      ({ patterns }) => patterns['Down the chord'] !== undefined,
    );
    await openSheet();
    await choose('kind', 'own');
    await (await app.findText('button', 'My patterns (1)')).click();
    await (await app.find('[data-pattern="Down the chord"]')).click();
    await app.eventually(
      async () => (await app.find('input[name="pattern"]')).getAttribute('value'),
      (value) => value === '5 3 1 7',
    );
    await choose('direction', 'backward');
    await app.eventually(
      async () => (await app.find('select[name="starter-pattern"]')).getAttribute('value'),
      (value) => value === '5 3 1 7',
    );
  });

  test('an exercise is turned into a pattern, and back', async () => {
    await openSheet();
    await choose('kind', 'five-notes');
    await app.eventually(drawn, (count) => count === '32');
    await (await app.findText('button', 'Kept sheets')).click();
    await (await app.find('[data-as-pattern]')).click();
    await app.eventually(
      async () => (await app.find('input[name="pattern"]')).getAttribute('value'),
      (value) => value === '1 2 3 4 5 4 3 2',
    );
    await (await app.find('[data-back-to-exercise]')).click();
    await app.eventually(
      async () => (await app.find('select[name="kind"]')).getAttribute('value'),
      (value) => value === 'five-notes',
    );
  });

  test('a sheet is kept under a name and found again', async () => {
    const url = await openSheet();
    await choose('kind', 'degrees');
    await (await app.findText('button', 'Kept sheets')).click();
    const name = await app.find('input[name="sheet"]');
    await name.sendKeys('Inversions, low', Key.ENTER);
    await app.find('[data-sheet="Inversions, low"]');
    await saved();
    await app.visit(url);
    await (await app.find('[data-sheet="Inversions, low"]')).click();
    await app.eventually(
      () => app.textOf('[data-goal]'),
      (text) => text.startsWith('Begin the arpeggio on 1'),
    );
    // A dropped sheet can be taken back.
    await (await app.find('[aria-label="Delete Inversions, low"]')).click();
    await (await app.findText('button', 'Take it back')).click();
    await app.find('[data-sheet="Inversions, low"]');
  });

  test('a pattern of one’s own is read as it is typed, kept with its sheet, and played on the stage', async () => {
    const url = await openSheet();
    await choose('kind', 'own');
    const field = await app.find('input[name="pattern"]');
    expect(await field.getAttribute('value')).toBe('1 2 3 5');
    await app.eventually(drawn, (count) => count === '32');
    const retype = (text: string) => field.sendKeys(Key.chord(Key.CONTROL, 'a'), text);
    await retype('1:q <5:q r:h');
    await app.eventually(drawn, (count) => count === '16');
    // What cannot be read is said, and what could be stays.
    await retype('1 ~x5');
    expect(await app.textOf('[data-pattern-problem]')).toContain('“~x5” is no degree');
    expect(await drawn()).toBe('16');
    await retype('5 3 1 7');
    await app.eventually(drawn, (count) => count === '32');
    await (await app.findText('button', 'Kept sheets')).click();
    await (await app.find('input[name="sheet"]')).sendKeys('Down to the seventh', Key.ENTER);
    await saved();
    await app.visit(url);
    await (await app.find('[data-sheet="Down to the seventh"]')).click();
    await app.eventually(
      async () => (await app.find('input[name="pattern"]')).getAttribute('value'),
      (text) => text === '5 3 1 7',
    );
    await (await app.findText('button', 'With the band')).click();
    await app.find('html[data-ready="play"] [aria-label="The line"] [data-drawn]');
  });

  test('goes out in every format and comes back the same', async () => {
    await openSheet();
    await choose('kind', 'continuous');
    await app.eventually(drawn, (count) => count === '32');
    const midi = await downloaded('midi', '.mid');
    expect(midi.subarray(0, 4).toString()).toBe('MThd');
    expect((await downloaded('musicxml', '.musicxml')).toString()).toContain('<sign>TAB</sign>');
    expect((await downloaded('tab', '.txt')).toString()).toMatch(/^E4\|/mu);
    const json = JSON.parse((await downloaded('json', '.json')).toString()) as { notes: unknown[] };
    expect(json.notes).toHaveLength(32);
    for (const extension of ['.mid', '.musicxml', '.txt', '.json']) {
      const file = readdirSync(app.files).find((one) => one.endsWith(extension)) ?? '';
      await (await app.find('#melody-file')).sendKeys(join(app.files, file));
      await app.findText('p', 'A melody from a file');
      await app.eventually(drawn, (count) => count === '32');
      await (await app.findText('button', 'Back to the exercise')).click();
    }
    writeFileSync(join(app.files, 'bad.mid'), 'MThd and no more');
    await (await app.find('#melody-file')).sendKeys(join(app.files, 'bad.mid'));
    await app.findText('div', 'This is no Standard MIDI File, or it is damaged.');
  });

  test('a melody is kept as it is, and found again', async () => {
    const url = await openSheet();
    const tab = [
      'e|--------|',
      'B|--------|',
      'G|--------|',
      'D|0-2-4-5-|',
      'A|--------|',
      'E|--------|',
    ];
    writeFileSync(join(app.files, 'four.txt'), tab.join('\n'));
    await (await app.find('#melody-file')).sendKeys(join(app.files, 'four.txt'));
    await app.eventually(drawn, (count) => count === '4');
    await (await app.findText('button', 'Kept sheets')).click();
    await (await app.find('input[name="sheet"]')).sendKeys('Four notes', Key.ENTER);
    await app.find('[data-sheet="Four notes"]');
    await saved();
    await app.visit(url);
    await (await app.find('[data-sheet="Four notes"]')).click();
    await app.findText('p', 'A melody from a file');
    await app.eventually(drawn, (count) => count === '4');
  });

  test('plays in time, changes with the exercise, and ends at Stop', async () => {
    await openSheet();
    await choose('kind', 'ascending');
    await app.eventually(drawn, (count) => count === '32');
    const place = (): Promise<string> =>
      app.driver.executeScript(
        `return document.querySelector('[data-kind="sounding"]')?.dataset.label ?? ''`,
      );
    await (await app.findText('button', 'Play')).click();
    await app.eventually(place, (found) => found !== '');
    const first = await place();
    await app.eventually(place, (found) => found !== '' && found !== first);
    await choose('kind', 'targets');
    await app.eventually(drawn, (count) => count === '4');
    await app.findText('button', 'Stop');
    await app.eventually(place, (found) => found !== '');
    await app.driver.executeScript('document.activeElement.blur()');
    await press(' ');
    await app.findText('button', 'Play');
    expect(await place()).toBe('');
  });

  test('what would sound is what is written: the sound file has its notes at their times', async () => {
    await openSheet();
    await choose('kind', 'ascending');
    await choose('subdivision', 'quarters');
    await app.eventually(drawn, (count) => count === '16');
    const wav = await downloaded('wav', '.wav');
    const begun = onsetsIn(wav);
    // 100 beats a minute, a note on each; a low note needs half its period to be heard.
    expect(begun).toHaveLength(16);
    begun.forEach((at, index) => {
      expect(Math.abs(at - (begun[0] ?? 0) - index * 0.6)).toBeLessThan(0.03);
    });
  });

  test('axe finds nothing serious on it, in either theme', async () => {
    await openSheet();
    for (const theme of ['light', 'dark']) {
      await app.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
        features: [{ name: 'prefers-color-scheme', value: theme }],
      });
      expect(await app.seriousFaults()).toEqual([]);
    }
  });
});
