/** The loop: what the bracket shows is what goes round, whichever way it was chosen, in whichever order. */
import midi from '@tonejs/midi';
import { By, Key } from 'selenium-webdriver';
import { beforeAll, describe, expect, test } from 'vitest';
import { LONG_CHART } from '../bench/core';
import { parseNote, pitchClass } from '$core/notes/notes';
import { suite } from './suite';

const app = suite();

const script = <T>(body: string, ...given: readonly unknown[]): Promise<T> =>
  app.driver.executeScript<T>(body, ...given);
const press = (...keys: string[]) =>
  app.driver
    .actions()
    .sendKeys(...keys)
    .perform();

/** Charts by their ids: those of the demo, and one of 64 bars. */
let charts: readonly { readonly id: string; readonly title: string }[] = [];
beforeAll(async () => {
  await app.makeChart(LONG_CHART);
  await app.visit(app.url);
  charts = await script(
    `return [...document.querySelectorAll('a[aria-label^="Play "]')].map((link) => ({
       id: /plan\\/(\\w+)/.exec(link.href)[1], title: link.ariaLabel.slice(5) }))`,
  );
  expect(charts).toHaveLength(7);
});

const open = (id: string, query = '?at=1&line=none&bpm=400&extent=form', screen = '/play') =>
  app.visit(`${app.url}/plan/${id}${screen}${query}`);

/** The bars of the bracket, from 1; none where the form goes round. */
const bracket = () =>
  script<string | null>('return document.querySelector("[data-loop]")?.dataset.loop ?? null');
const bracketed = (wanted: string | null) => app.eventually(bracket, (now) => now === wanted);
const barCount = () => script<number>('return document.querySelectorAll("[data-bar]").length');

/** Chooses a size of the loop. */
const size = (name: string) => app.pick('loop', name);
const sized = () => script<string>('return document.querySelector("[name=loop]").value');
/** Presses the first chord of a bar, from 1; the chord that is held into it where it has none of its own. */
const clickBar = (bar: number) =>
  script<number>(
    `let bar = arguments[0];
     for (; ; bar--) {
       const chord = document.querySelector('[data-bar="' + (bar - 1) + '"] [data-chord]');
       if (chord) { chord.click(); return bar; }
     }`,
    bar,
  );
async function drag(from: number, to: number): Promise<void> {
  const bar = (number: number) => app.find(`[data-bar="${number - 1}"]`);
  const [first, last] = [await bar(from), await bar(to)];
  await app.driver
    .actions()
    .move({ origin: first })
    .press()
    .move({ origin: last, duration: 60 })
    .release()
    .perform();
}

/** A bar that was seen to sound: the number of its pass, and the most beats that were left in it. */
interface Sounding {
  readonly bar: number;
  readonly pass: number;
  readonly left: number;
}

/** Passes that may still be those of the loop before: the one that sounds, and one that is made already. */
const BEFORE = 2;

/** What has been seen once the loop is taken up: the first pass from which on all bars are its own. */
function takenUp(seen: readonly Sounding[], from: number, to: number): readonly Sounding[] {
  const foreign = seen.findLast(({ bar }) => bar < from || bar > to)?.pass ?? 0;
  // A pass of the loop before may be cut short within the bars of this one.
  const whole = (pass: number) => {
    const bars = seen.filter((one) => one.pass === pass).map(({ bar }) => bar);
    return bars.length === to - from + 1 && bars.every((bar, place) => bar === from + place);
  };
  const begun = seen.find(({ pass }) => pass > foreign && whole(pass))?.pass ?? Infinity;
  return seen.filter(({ pass }) => pass >= begun);
}

/**
 * Watches which bars sound, and whether the beats left are ever more than the bars that go round have; until
 * all those of the bracket have come in one pass, and the next has begun.
 */
async function goesRound(): Promise<void> {
  const shown = await bracket();
  const [from = 0, to = 0] = (shown ?? '').split('-').map(Number);
  await script(`
    window.sounding = [];
    cancelAnimationFrame(window.watching);
    const text = (css) => document.querySelector(css)?.textContent ?? '';
    const watch = () => {
      window.watching = requestAnimationFrame(watch);
      const bar = Number(document.querySelector('[data-hand]')?.dataset.hand ?? 0);
      const pass = Number(/\\d+/.exec(text('[data-pass]'))?.[0] ?? 0);
      if (bar === 0 || pass === 0) return;
      const last = window.sounding.at(-1);
      if (last?.bar !== bar || last.pass !== pass) window.sounding.push({ bar, pass, left: 0 });
      const now = window.sounding.at(-1);
      now.left = Math.max(now.left, Number(text('[data-left] span')));
    };
    watch();`);
  const seen = await app.eventually(
    () => script<readonly Sounding[]>('return window.sounding'),
    (bars) => {
      const begun = takenUp(bars, from, to);
      return begun[0]?.pass !== begun.at(-1)?.pass;
    },
  );
  const says = `${shown}: ${seen.map(({ bar, pass }) => `${bar} in ${pass}`).join(', ')}`;
  const foreign = seen.findLast(({ bar }) => bar < from || bar > to)?.pass ?? 0;
  if (foreign > 0) expect(foreign - (seen[0]?.pass ?? 0), says).toBeLessThan(BEFORE);
  // No change is further away than the loop is long.
  const beats = 4 * (to - from + 1);
  for (const { left } of takenUp(seen, from, to)) expect(left, says).toBeLessThanOrEqual(beats);
}

const start = async () => {
  await press(' ');
  await app.find('[data-pass]');
};
const stop = async () => {
  await press(' ');
  await app.eventually(
    () => app.driver.findElements(By.css('[data-pass]')),
    (some) => some.length === 0,
  );
};

const TWO_BARS = (bar: number, bars: number) => {
  const from = Math.min(bar, bars - 1);
  return `${from}-${from + 1}`;
};

describe('the loop on every demo chart', () => {
  test('while it stands: a click then a size, a size then a click and the size again', async () => {
    for (const { id, title } of charts) {
      await open(id);
      const bars = await barCount();
      expect(await bracket(), title).toBeNull();
      const there = await clickBar(Math.min(5, bars));
      await size('two bars');
      await bracketed(TWO_BARS(there, bars));
      const elsewhere = await clickBar(Math.max(1, bars - 3));
      // What was clicked is shown, and the loop stays where it is until a size is chosen there.
      expect(await bracket(), title).toBe(TWO_BARS(there, bars));
      expect(await sized()).toBe('bars');
      await size('two bars');
      await bracketed(TWO_BARS(elsewhere, bars));
      await start();
      await goesRound();
      await stop();
      for (const name of ['chord', 'two chords', 'section', 'form']) {
        await clickBar(3);
        await size(name);
        expect(await sized(), title).toBe(name);
        if (name === 'chord' && id === charts[0]?.id) {
          // Another loop than was played: what sounds is that one, as the file of the band says.
          await app.menu('Save the band and the line');
          await (await app.findText('button', 'MIDI, one track per part')).click();
          const file = new midi.Midi(await app.downloaded(/\.mid$/u));
          // The bass begins on the root of the first of them.
          const [first] = file.tracks.find(({ name }) => name === 'Bass')?.notes ?? [];
          const now = await app.textOf('[data-now-chord] [data-symbol]');
          const root = parseNote(
            now
              .replace('♭', 'b')
              .replace('♯', '#')
              .slice(0, 2)
              .replace(/[^A-Gb#]/gu, ''),
          );
          if (root === null || !first) throw new Error(`no bass under ${now}`);
          expect(first.midi % 12, now).toBe(pitchClass(root));
          await press(Key.ESCAPE);
          await app.eventually(
            () => script<number>('return document.querySelectorAll("[role=dialog]").length'),
            (open) => open === 0,
          );
        }
      }
      await bracketed(null);
    }
  });

  test('while it plays: chosen by size, by a click and a size, by dragging and by key', async () => {
    for (const { id, title } of charts) {
      await open(id);
      const bars = await barCount();
      await start();
      await size('two bars');
      await goesRound();
      const there = await clickBar(Math.max(3, bars - 2));
      await size('two bars');
      await bracketed(TWO_BARS(there, bars));
      await goesRound();
      await drag(3, 4);
      await bracketed('3-4');
      await goesRound();
      await app.held(Key.SHIFT, Key.ARROW_RIGHT);
      await bracketed('3-5');
      await goesRound();
      await app.held(Key.SHIFT, Key.ARROW_LEFT, Key.ARROW_LEFT);
      await bracketed('3-3');
      await goesRound();
      await size('form');
      await bracketed(null);
      // On through bar 3 and round to what was not in the loop.
      await app.eventually(
        () => script<number>('return Number(document.querySelector("[data-hand]")?.dataset.hand)'),
        (bar) => bar === 1 || bar === 2,
      );
      await stop();
      expect(await bracket(), title).toBeNull();
    }
  });

  test('from Plan, from a session, from what is to be listened for; and after leaving and coming back', async () => {
    for (const { id } of charts.slice(0, 3)) {
      await open(id, '?at=1', '');
      await app.held(Key.SHIFT, Key.ARROW_RIGHT, Key.ARROW_RIGHT);
      const chosen = await app.eventually(bracket, (now) => now?.endsWith('-2') ?? false);
      await press(' ');
      await app.find('html[data-ready="play"]');
      await app.find('[data-pass]');
      await bracketed(chosen);
      await goesRound();
      await stop();
      await app.visit(app.url);
      await open(id, '?at=1');
      await bracketed(chosen);
      await open(id, `?at=3&line=targets&bpm=400&extent=two+chords`);
      await app.eventually(bracket, (now) => now !== chosen && now !== null);
      await start();
      await goesRound();
      await stop();
    }
    // The guitarist misses what he is asked for; the loop goes round it while it plays.
    await open(charts[0]?.id ?? '', '?at=1&line=none&bpm=300&extent=section');
    await app.listenTo('simulated', 'missed');
    await start();
    const round = await app.findText('button', 'Loop round it');
    const before = await bracket();
    await round.click();
    await app.eventually(bracket, (now) => now !== before);
    await goesRound();
    await stop();
  });

  test('a shorter chart: the bracket goes with the loop that does not fit any more', async () => {
    const id = await app.makeChart('| C | Dm7 | G7 | C |');
    await open(id, '?at=3');
    await size('two bars');
    await bracketed('3-4');
    // Kept, and opened again with a text of two bars.
    await app.saved();
    const stored = (await (await fetch(`${app.url}/api/charts/${id}`)).json()) as {
      readonly revision: number;
      readonly plan: string;
    };
    await fetch(`${app.url}/api/charts/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', origin: app.url },
      body: JSON.stringify({ text: '| C | G7 |', plan: stored.plan, revision: stored.revision }),
    });
    await open(id, '?at=1');
    await app.eventually(barCount, (bars) => bars === 2);
    await bracketed(null);
  });

  test('nothing of the stage is used once it is left', async () => {
    await open(charts[0]?.id ?? '', '?at=1&line=line&bpm=300&extent=section');
    await script(`
      window.warned = [];
      for (const kind of ['warn', 'error'])
        console[kind] = (...said) => window.warned.push(said.join(' '));`);
    await app.listenTo('simulated', 'none');
    await start();
    await app.find('[data-landing-latest]:not(:empty)');
    await (await app.findText('a', 'Plan')).click();
    await app.find('html[data-ready="plan"]');
    await app.driver.navigate().back();
    await app.find('html[data-ready="play"]');
    expect(await script('return window.warned')).toEqual([]);
  });
});
