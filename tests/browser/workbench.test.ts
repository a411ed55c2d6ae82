/** Charts built and changed on the strip, transposed, exported and imported. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync, strFromU8 } from 'fflate';
import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import { pdfWords, readPdf } from '../pdf';
import { suite } from './suite';

const app = suite();

const { press } = app;

const { held } = app;

/** The chart's text as the server holds it. */
async function stored(): Promise<string> {
  const id = /plan\/(\w+)/u.exec(await app.driver.getCurrentUrl())?.[1] ?? '';
  const answer = await fetch(`${app.url}/api/charts/${id}`);
  return ((await answer.json()) as { text: string }).text;
}

const becomes = (text: string) => app.eventually(stored, (now) => now.trim() === text.trim());

async function openBars(text: string): Promise<void> {
  await app.visit(`${app.url}/plan/${await app.makeChart(text)}?edit=bars`);
  await app.find('[data-slot="0-0"]');
}

test('a chart of 32 bars is built with the keys alone, on the strip', async () => {
  await app.visit(app.url);
  const button = await app.findText('button', 'New chart');
  await app.driver.executeScript('arguments[0].focus()', button);
  await press(Key.ENTER);
  await app.find('[data-slot="0-0"]');
  await held(Key.CONTROL, 'a');
  await press(Key.DELETE);
  const line = ['Fmaj7', 'Gm7 C7', 'Am7 D7b9', '%', 'Bbmaj7', 'Bbm6 Eb9', 'Gm7/C', 'F6'];
  const bars = Array.from({ length: 4 }, () => line).flat();
  await press(Key.ENTER);
  for (const [index, bar] of bars.entries()) {
    await press(...bar, index < bars.length - 1 ? '|' : Key.ENTER);
  }
  const written = (text: string) =>
    text
      .split('\n')
      .filter((row) => row.startsWith('|'))
      .flatMap((row) =>
        row
          .split('|')
          .slice(1, -1)
          .map((bar) => bar.trim()),
      );
  const kept = await app.eventually(stored, (text) => written(text).length >= bars.length);
  expect(written(kept)).toEqual(bars);
});

test('bars are split, stretched, moved, repeated, sectioned and brought back', async () => {
  await openBars('| C | Am7 | Dm7 | G7 |');
  await press(Key.ARROW_RIGHT, 's', '>', '>');
  await becomes('| C | Am7 / / Am7 | Dm7 | G7 |');
  await held(Key.ALT, Key.ARROW_RIGHT);
  await becomes('| C | Dm7 | Am7 / / Am7 | G7 |');
  await press(Key.HOME, 'r');
  await becomes('|: C :| Dm7 | Am7 / / Am7 | G7 |');
  await press(Key.END, 'm');
  await becomes('|: C :| Dm7 | Am7 / / Am7 |\n[A] | G7 |');
  for (let step = 0; step < 6; step++) await held(Key.CONTROL, 'z');
  await becomes('| C | Am7 | Dm7 | G7 |');
  for (let step = 0; step < 6; step++) await held(Key.CONTROL, 'y');
  await becomes('|: C :| Dm7 | Am7 / / Am7 |\n[A] | G7 |');
});

test('bars are selected, duplicated, copied and pasted as text', async () => {
  await openBars('| C | F | G |');
  await held(Key.SHIFT, Key.ARROW_RIGHT);
  await held(Key.CONTROL, 'd');
  await becomes('| C | F | C | F | G |');
  await held(Key.CONTROL, 'x');
  await becomes('| C | F | G |');
  await press(Key.END);
  await held(Key.CONTROL, 'v');
  await becomes('| C | F | G | C | F |');
});

test('a mistyped chord is named and nothing changes until it is right', async () => {
  await openBars('| C | F |');
  await press('G', 'q', Key.ENTER);
  const message = await app.find('#workbench-refusal');
  await app.eventually(
    () => message.getText(),
    (text) => text.includes('“q” after G'),
  );
  expect(await stored()).toBe('| C | F |');
  await press(Key.BACK_SPACE, '7', Key.ENTER);
  await becomes('| G7 | F |');
  await press('B', 'b', 'm', Key.ARROW_DOWN, Key.ENTER);
  await becomes('| Bbm7 | F |');
  await press('D', 'm', '7', 'b', Key.ARROW_DOWN, Key.ENTER);
  await becomes('| Dm7b5 | F |');
});

test('a bar is dragged to its new place, and copied with Ctrl held', async () => {
  await openBars('| C | F | G | Am |');
  const bar = (index: number) => app.find(`[data-slot="${index}-0"]`);
  const drag = async (from: number, to: number, modifier?: string) => {
    const actions = app.driver.actions();
    const start = actions.move({ origin: await bar(from) }).press();
    const target = await bar(to);
    const moved = start
      .move({ origin: target, duration: 300 })
      .move({ origin: target, x: 12, duration: 300 });
    const held = modifier ? moved.keyDown(modifier).release().keyUp(modifier) : moved.release();
    await held.perform();
  };
  await drag(0, 2);
  await becomes('| F | G | C | Am |');
  await drag(3, 1, Key.CONTROL);
  await becomes('| F | Am | G | C | Am |');
});

test('the chart is transposed and turned into numerals and back', async () => {
  await openBars('key: Eb\n| Ebmaj7 | C7b9 | Fm7 Bb7 |');
  await press(Key.ESCAPE, 'k');
  await (await app.findText('button', 'Up')).click();
  await becomes('key: E\n| Emaj7 | C#7b9 | F#m7 B7 |');
  await (await app.findText('button', 'Half step down')).click();
  await (await app.findText('button', 'numerals')).click();
  await becomes('key: Eb\n| Imaj7 | VI7b9 | ii7 V7 |');
  await (await app.findText('button', 'symbols')).click();
  await becomes('key: Eb\n| Ebmaj7 | C7b9 | Fm7 Bb7 |');
  await press(Key.ESCAPE);
});

async function downloaded(item: string, extension: string): Promise<Buffer> {
  await app.menu(item);
  return app.downloaded(new RegExp(`\\${extension}$`, 'u'));
}

async function importFile(name: string, content: string | Buffer): Promise<void> {
  const file = join(app.files, name);
  writeFileSync(file, content);
  await app.visit(app.url);
  await (await app.findText('button', 'Import')).click();
  await (await app.find('#import-file')).sendKeys(file);
}

test('a chart goes out as MusicXML and comes back the same, plain and compressed', async () => {
  await openBars(
    'title: Salt and Slate\nkey: Fm\ntime: 3/4\ntempo: 90\n[A]\n|: Fm6 | Gø C7alt :| x3\n[B]\n| DbΔ7 | % |',
  );
  const text = await stored();
  const plain = await downloaded('Save as MusicXML', '.musicxml');
  const packed = await downloaded('Save as MusicXML, compressed', '.mxl');
  expect(strFromU8(unzipSync(packed)['score.musicxml'] ?? new Uint8Array())).toBe(plain.toString());
  for (const [name, content] of [
    ['again.musicxml', plain],
    ['again.mxl', packed],
  ] as const) {
    await importFile(name, content);
    await app.find('[data-chord-name="now"]');
    const back = await stored();
    expect(back.replace(/\n\|/gu, ' |').replace('time: 3/4\n', '')).toBe(
      `${text.replace(/\n\|/gu, ' |').replace('time: 3/4\n', '')}\n`,
    );
  }
});

test('what a score holds beyond a chart is told, and a bad file gets a sentence', async () => {
  const measure = (inner: string) =>
    `<measure number="1"><harmony><root><root-step>D</root-step></root><kind>minor-seventh</kind></harmony>${inner}</measure>`;
  const jump =
    '<direction><direction-type><words>D.C. al Fine</words></direction-type></direction>';
  await importFile(
    'jump.xml',
    `<score-partwise><part id="P1">${measure(jump)}</part></score-partwise>`,
  );
  const remarks = await app.find('[data-remarks]');
  expect(await remarks.getText()).toContain('D.C. al Fine');
  await (await app.findText('button', 'Create the chart')).click();
  await app.find('[data-chord-name="now"]');
  expect(await stored()).toContain('| Dm7 |');

  await importFile('bad.xml', '<!DOCTYPE a [<!ENTITY b "c">]><score-partwise>&b;</score-partwise>');
  await app.findText('p', 'defines entities of its own');
  await press(Key.ESCAPE);
});

test('a file of several tunes is chosen from; what is out as ABC and ChordPro comes back', async () => {
  await importFile(
    // It is known by what it holds.
    'two.txt',
    'X:1\nT:First Lamp\nM:4/4\nL:1/4\nK:C\n"C"c4|"F"f4|\n\nX:2\nT:Second Lamp\nM:3/4\nL:1/4\nK:F\n"F"f3|"C7"c3|\n',
  );
  expect(await (await app.find('[data-choices]')).getText()).toContain('First Lamp');
  await (await app.findText('button', 'Second Lamp')).click();
  await app.find('[data-chord-name="now"]');
  const text = await stored();
  expect(text).toContain('time: 3/4');
  expect(text).toContain('| F | C7 |');
  for (const [item, extension] of [
    ['Save as ABC', '.abc'],
    ['Save as ChordPro', '.cho'],
  ] as const) {
    const file = await downloaded(item, extension);
    await importFile(`again${extension}`, file);
    await app.find('[data-chord-name="now"]');
    expect(await stored()).toContain('| F | C7 |');
  }
});

test('a form is begun in any key', async () => {
  await app.visit(app.url);
  await (await app.findText('button', 'Start from a template')).click();
  await (await app.findText('button', '12-bar minor blues')).click();
  await app.find('[data-slot="0-0"]');
  expect(await stored()).toContain('| Ebm7 | Abm7 | Ebm7 | % |');
});

test('axe finds nothing serious while the bars are edited', async () => {
  await openBars('[A] x2\n| C | F G |\n[B] key: F\n|: Bb | [1] C7 :| [2] F |');
  expect(await app.seriousFaults()).toEqual([]);
  await press(Key.ENTER, 'C');
  expect(await app.seriousFaults()).toEqual([]);
  await press(Key.ESCAPE);
});

test('over a loop that is heard both likely keys stand there, and one press chooses; the chords stay', async () => {
  const text = 'title: Four Lamps\n| Am | F | C | G |';
  await app.visit(`${app.url}/plan/${await app.makeChart(text)}`);
  const heading = () => app.textOf('[data-heading]');
  expect(await heading()).toContain('A minor, as heard');
  await (await app.findText('button', 'or C major?')).click();
  await becomes('title: Four Lamps\nkey: C\n| Am | F | C | G |');
  await app.eventually(heading, (says) => says.startsWith('C major') && !says.includes('heard'));
});

test('the plan goes out as a PDF, a change as a picture, and the page is as it was', async () => {
  await openBars('title: Lantern Row\nkey: F\n| Gm7 | C7 | Fmaj7 | % |');
  await press(Key.ESCAPE);
  await app.find('[data-chord-name="next"]');
  await app.menu('Save as PDF');
  const pages = await pdfWords(await app.downloaded(/^Lantern Row plan\.pdf$/u));
  expect(pages).toHaveLength(1);
  for (const words of [
    /^Lantern Row/u,
    /Gm7 G dorian/u,
    /To C7: B ♭ stays and becomes its seventh/u,
  ])
    expect(pages[0]).toMatch(words);
  expect(pages[0]).not.toMatch(/Space plays|Practice/u);
  await app.menu('Save this change as a picture (PNG)');
  await app.menu('Save this change as a picture (SVG)');
  const svg = String(await app.downloaded(/^Lantern Row Gm7 to C7\.svg$/u));
  for (const words of ['Gm7', 'C7', 'Stay on string 3, fret 3.', 'Filled: the chord now'])
    expect(svg).toContain(words);
  const png = await app.downloaded(/^Lantern Row Gm7 to C7\.png$/u);
  // Twice as fine as the sheet it was laid out on.
  expect(png.readUInt32BE(16)).toBe(2 * (1100 + 32));
  expect(await app.driver.findElements(By.css('iframe, [data-plan-paper]'))).toEqual([]);
});

test('the plan of a long form with many chords is one page of the lower paper', async () => {
  // Seventeen chords that differ, in 32 bars.
  const chords = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G'].flatMap((root) => [
    `${root}m7`,
    `${root}7`,
  ]);
  const bars = [...chords, ...chords.slice(0, 15), 'Abmaj7'];
  await openBars(`title: Long Row\nkey: Ab\n| ${bars.join(' | ')} |`);
  await press(Key.ESCAPE);
  await app.find('[data-chord-name="next"]');
  await app.menu('Save as PDF');
  const { pages } = await readPdf(await app.downloaded(/^Long Row plan\.pdf$/u));
  expect(pages.map(({ size }) => size)).toEqual([[612, 792]]);
  const words = pages.flatMap(({ items }) => items.map(({ str }) => str)).join(' ');
  expect(words).toMatch(/^Long Row/u);
  for (const root of ['C', 'E', 'G']) expect(words).toContain(`${root}m7`);
});

test('notes are shown and typed by the names the player learnt, and kept in letters', async () => {
  await app.visit(`${app.url}/settings`);
  await (await app.findText('button', 'C D E … H')).click();
  await (await app.findText('button', '1 2m 5')).click();
  await app.eventually(
    async () => (await fetch(`${app.url}/api/settings`)).text(),
    (kept) => kept.includes('"noteNames":"german"') && kept.includes('"numerals":"decimal"'),
  );
  try {
    await openBars('title: Two Names\nkey: B\n| B7 | Bb7 |');
    const shown = () =>
      app.driver.executeScript<string>(
        `return [...document.querySelectorAll('[data-slot]')].map((slot) => slot.textContent.trim()).join(' ')`,
      );
    expect(await shown()).toContain('H7');
    await press(Key.ENTER);
    const field = await app.find('input[aria-label="Chord"]');
    expect(await field.getAttribute('value')).toBe('H7');
    await press('B', '7', 's', 'u', 's', '4', '|');
    await press('H', 'm', '7', Key.ENTER);
    await becomes('title: Two Names\nkey: B\n| Bb7sus4 | Bm7 |');
    await press(Key.ESCAPE);
    expect(await app.textOf('[data-chord-name="next"]')).toBe('Hm7');
    await app.menu('Save as PDF');
    const [page] = await pdfWords(await app.downloaded(/^Two Names plan\.pdf$/u));
    expect(page).toMatch(/H major/u);
    expect(page).toMatch(/B7sus4/u);
  } finally {
    await app.visit(`${app.url}/settings`);
    await (await app.findText('button', 'C D E … B')).click();
    await (await app.findText('button', 'I ii V')).click();
    await app.eventually(
      async () => (await fetch(`${app.url}/api/settings`)).text(),
      (kept) => kept.includes('"noteNames":"letters"') && kept.includes('"numerals":"roman"'),
    );
  }
});
