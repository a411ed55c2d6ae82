/** The stage: playing with the band, as it is heard, seen and steered. */
import midi from '@tonejs/midi';
import { By, Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { loudnessOf, truePeakOf } from '$core/listening/loudness';
import { LONG_CHART } from '../bench/core';
import { suite } from './suite';
import { readWav, type Sound } from './wav';

const app = suite();

const CHANGES = `title: Paper Boats
key: F
tempo: 240
feel: swing
[A]
| Gm7 | C7 | Fmaj7 | Dm7 |
[B]
| Bbm7 | Eb7 | Abmaj7 | C7b9 |`;

const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const text = (css: string) =>
  script<string>(`return document.querySelector('${css}')?.textContent?.trim() ?? ''`);
const symbol = (which: 'now' | 'next') => text(`[data-${which}-chord] [data-symbol]`);
const press = (...keys: string[]) =>
  app.driver
    .actions()
    .sendKeys(...keys)
    .perform();
const choose = async (name: string, value: string) => {
  const list = await app.find(`[name="${name}"]`);
  await (await list.findElement(By.css(`option[value="${value}"]`))).click();
};
const loop = (size: string) => app.pick('loop', size);
/** Opens the settings of the stage, and closes them afterwards. */
async function settle(change: () => Promise<void>): Promise<void> {
  await press('o');
  await app.find('#stage-more');
  await change();
  await press(Key.ESCAPE);
  await app.eventually(
    () => app.driver.findElements(By.css('#stage-more')),
    (open) => open.length === 0,
  );
}

async function openStage(chart = CHANGES, place = '?at=1'): Promise<string> {
  const address = await app.openChart(chart, `/play${place}`);
  return address;
}
const playing = () => app.find('[data-pass]');
const stopped = () =>
  app.eventually(
    () => app.driver.findElements(By.css('[data-pass]')),
    (some) => some.length === 0,
  );

describe('from the Book', () => {
  test('two bars with the band are three presses away', async () => {
    await app.openChart(CHANGES);
    await app.visit(app.url);
    await (await app.find('a[aria-label="Play Paper Boats"]')).click();
    await app.find('html[data-ready="play"]');
    await loop('two bars');
    await (await app.findText('button', 'Play')).click();
    await playing();
    // Both chords of the loop come, and come again.
    await app.eventually(
      () => symbol('now'),
      (now) => now === 'C7',
    );
    await app.eventually(
      () => symbol('now'),
      (now) => now === 'Gm7',
    );
    await app.eventually(
      () => text('[data-pass]'),
      (pass) => pass.startsWith('Pass 2'),
    );
    expect(await symbol('next')).toMatch(/C7|Gm7/u);
  });

  test('one key leads here from Plan and from Practice, the loop and the sheet kept', async () => {
    await app.openChart(CHANGES, '?at=5&zone=5-8');
    await app.held(Key.SHIFT, Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await app.find('[data-loop="5-6"]');
    await press('P');
    await app.find('html[data-ready="play"] [data-loop="5-6"]');
    expect(await app.driver.getCurrentUrl()).toContain('zone=5-8');
    expect(await symbol('now')).toBe('B♭m7');
    const here = await app.driver.getCurrentUrl();
    await app.visit(here.replace('/play', '/practice'));
    await app.find('[data-notation][data-drawn]');
    await choose('kind', 'continuous');
    await (await app.findText('button', 'With the band')).click();
    await app.find('html[data-ready="play"]');
    await app.find('[aria-label="The line"] [data-drawn]');
    await press('o');
    expect(await (await app.find('[name="line"]')).getAttribute('value')).toBe('continuous');
  });
});

describe('while it plays', () => {
  test('the click of a key begins and ends it; what comes is shown as early as is set', async () => {
    await openStage();
    await settle(async () => {
      await choose('count', '0');
      await choose('ahead', 'nothing');
    });
    expect(await symbol('next')).toBe('·');
    await press(' ');
    await playing();
    expect(await symbol('next')).toBe('·');
    await settle(() => choose('ahead', 'always'));
    await app.eventually(
      () => symbol('next'),
      (next) => next !== '·' && next !== '',
    );
    await press(' ');
    await stopped();
  });

  test('slower after a poor pass, faster by key, tapped by hand', async () => {
    await openStage();
    const tempo = async () => Number.parseInt(await text('[data-tempo]'), 10);
    await press('+', '+');
    expect(await tempo()).toBe(244);
    await loop('chord');
    await press(' ');
    await playing();
    await press('x');
    await app.eventually(tempo, (now) => now === 240);
    await press('-');
    await app.eventually(tempo, (now) => now === 238);
  });

  test('a ramp goes up with the passes, to its goal', async () => {
    await openStage();
    await loop('chord');
    await press('o');
    await (await app.find('[name="ramp"]')).click();
    for (const [name, value] of [
      ['ramp-by', '9'],
      ['ramp-every', '1'],
      ['ramp-goal', '255'],
    ] as const) {
      const field = await app.find(`[name="${name}"]`);
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.TAB);
    }
    await press(Key.ESCAPE);
    await (await app.findText('button', 'Play')).click();
    const seen = new Set<number>();
    await app.eventually(
      async () => Number.parseInt(await text('[data-tempo]'), 10),
      (now) => {
        seen.add(now);
        return now === 255;
      },
    );
    expect([...seen].every((one) => [240, 249, 255].includes(one))).toBe(true);
  });

  test('each pass in another key, the zone kept', async () => {
    await openStage(CHANGES, '?at=1&zone=5-9');
    await settle(async () => {
      await choose('count', '0');
      await choose('keys', 'fourths');
    });
    await loop('chord');
    await press(' ');
    await app.eventually(
      () => symbol('now'),
      (now) => now === 'Cm7',
    );
    await app.eventually(
      () => symbol('now'),
      (now) => now === 'Fm7',
    );
    const label = await script<string>(
      'return document.querySelector(".stage-neck svg").getAttribute("aria-label")',
    );
    expect(label).toContain('frets 5 to 9');
  });

  test('a change shows the neck that was drawn for it, and never a part of one', async () => {
    await openStage();
    await settle(() => choose('count', '0'));
    // Every label that is seen, by what the neck says it shows.
    await script(`
      const neck = document.querySelector('.stage-neck');
      window.necks = () => {
        const seen = neck.querySelector('[data-seen="true"]');
        const labels = [...seen.querySelectorAll('[data-label]')];
        const notes = labels.map((one) => one.dataset.label + one.textContent + one.classList[0]);
        return { seen, says: neck.querySelector('[aria-label]').ariaLabel, shows: notes.sort().join(' ') };
      };`);
    const standing: Record<string, Set<string>> = {};
    for (const ahead of ['two beats', 'always']) {
      await settle(() => choose('ahead', ahead));
      await script('document.activeElement.blur()');
      for (let chord = 0; chord < 8; chord++) {
        const { says, shows } = await script<{ says: string; shows: string }>(
          'return new Promise((done) => setTimeout(() => done(window.necks()), 150))',
        );
        (standing[says] ??= new Set()).add(shows);
        await press(Key.ARROW_RIGHT);
      }
    }
    expect(Object.keys(standing)).toHaveLength(8);
    for (const ahead of ['always', 'two beats']) {
      await settle(() => choose('ahead', ahead));
      await script(`
        document.activeElement.blur();
        window.watched = {};
        window.flips = 0;
        let before = null;
        const watch = () => {
          const { seen, says, shows } = window.necks();
          (window.watched[says] ??= []).includes(shows) || window.watched[says].push(shows);
          if (before && seen !== before) window.flips++;
          before = seen;
          window.watching = requestAnimationFrame(watch);
        };
        watch();`);
      await press(' ');
      await app.eventually(
        () => text('[data-pass]'),
        (pass) => pass.startsWith('Pass 2'),
      );
      const { watched, flips } = await script<{ watched: Record<string, string[]>; flips: number }>(
        'cancelAnimationFrame(window.watching); return { watched: window.watched, flips: window.flips }',
      );
      await press(' ');
      await stopped();
      expect(Object.keys(watched).sort()).toEqual(Object.keys(standing).sort());
      for (const [says, shown] of Object.entries(watched))
        for (const shows of shown) expect(standing[says]).toContain(shows);
      // Eight changes: a slow machine may miss some.
      expect(flips).toBeGreaterThan(4);
    }
  });

  test('the band leads in, comes home after its last pass, and stops by itself', async () => {
    await openStage();
    await loop('two bars');
    await settle(async () => {
      await choose('choruses', '1');
      await (await app.find('[name="intro"]')).click();
    });
    await (await app.findText('button', 'Play')).click();
    await app.eventually(
      () => text('[data-stage="counting"]'),
      (said) => said.includes('introduction'),
    );
    await playing();
    await app.eventually(
      () => text('[data-pass]'),
      (said) => said.startsWith('Pass 1'),
    );
    await stopped();
    await app.findText('button', 'Play');
  });

  test('the pass that is called the last is the last', async () => {
    await openStage();
    await loop('two bars');
    await (await app.findText('button', 'Play')).click();
    await app.eventually(
      () => text('[data-pass]'),
      (said) => said.startsWith('Pass 2'),
    );
    const button = await app.findText('button', 'Last time');
    await button.click();
    await app.eventually(
      () => button.getAttribute('aria-pressed'),
      (pressed) => pressed === 'true',
    );
    await stopped();
    // It begins anew without an end.
    await press(' ');
    await app.eventually(
      () => text('[data-pass]'),
      (said) => said.startsWith('Pass 3'),
    );
    await press(' ');
    await stopped();
  });

  test('turns are said, and the line is hidden in mine where it is wished', async () => {
    await openStage();
    await settle(async () => {
      await choose('count', '0');
      await choose('line', 'line');
      await choose('turns', 'pass by pass');
      await (await app.find('[name="staff"]')).click();
      await (await app.find('[name="hidden"]')).click();
    });
    await loop('two bars');
    await press(' ');
    await app.eventually(
      () => text('[data-turn]'),
      (turn) => turn === 'Corvel',
    );
    await app.find('[aria-label="The line"] [data-sounding]');
    await app.eventually(
      () => text('[data-turn]'),
      (turn) => turn === 'You',
    );
    await app.eventually(
      () => text('[aria-label="The line"]'),
      (line) => line.includes('from memory'),
    );
  });

  test('bars dragged over are the loop', async () => {
    await openStage();
    const bars = await app.driver.findElements(By.css('[data-bar]'));
    const [from, to] = [bars[2], bars[3]];
    if (!from || !to) throw new Error('no bars');
    await app.driver
      .actions()
      .move({ origin: from })
      .press()
      .move({ origin: to, duration: 120 })
      .release()
      .perform();
    await app.find('[data-loop="3-4"]');
    expect(await symbol('now')).toBe('Fmaj7');
  });

  test('a pedal that sends keys is learnt; the simulated one plays', async () => {
    await openStage();
    await press('o');
    await (await app.findText('summary', 'Pedals')).click();
    await (await app.find('button[aria-label="Learn: That pass was poor"]')).click();
    await press('b');
    await app.eventually(
      () => text('[data-bound="poorPass"]'),
      (sent) => sent === 'key b',
    );
    await (await app.findText('button', 'Right')).click();
    await playing();
    await press(Key.ESCAPE);
    const tempo = async () => Number.parseInt(await text('[data-tempo]'), 10);
    await loop('chord');
    await playing();
    const before = await tempo();
    await press('b');
    await app.eventually(tempo, (now) => now < before);
  });
});

describe('what is heard', () => {
  test('the file that is rendered has its onsets where the band was asked for them', async () => {
    await openStage('title: Two Stones\nkey: C\ntempo: 120\nfeel: rock\n| C | F |');
    await app.menu('Save the band and the line');
    await (await app.findText('button', 'MIDI, one track per part')).click();
    const file = new midi.Midi(await app.downloaded(/\.mid$/u));
    expect(file.tracks.map(({ name }) => name)).toEqual(['Bass', 'Comping', 'Drums']);
    const asked = file.tracks.flatMap(({ notes }) => notes.map(({ time }) => time));
    await (await app.findText('button', 'WAV')).click();
    const samples = readWav(await app.downloaded(/\.wav$/u));
    const onsets = onsetsOf(samples);
    // A stroke that is neither low nor a ghost is found; a hand is a little early or late.
    const KICK = 36;
    const kit = file.tracks[2]?.notes ?? [];
    const loud = kit.filter(({ midi: key, velocity }) => key !== KICK && velocity > 0.3);
    const strokes = [...new Set(loud.map(({ time }) => time))];
    expect(strokes.length).toBeGreaterThan(5);
    for (const stroke of strokes) {
      const nearest = Math.min(...onsets.map((onset) => Math.abs(onset - stroke)));
      expect(nearest, `a stroke at ${stroke} s`).toBeLessThan(0.025);
    }
    for (const onset of onsets)
      expect(Math.min(...asked.map((time) => Math.abs(time - onset)))).toBeLessThan(0.07);
  });

  test('a file is as loud as files are, in stereo, and no peak passes its ceiling', async () => {
    await openStage('title: Two Stones\nkey: C\ntempo: 120\nfeel: swing\n| C6 | A7 | Dm7 | G7 |');
    await app.menu('Save the band and the line');
    await (await app.findText('button', 'WAV')).click();
    const { rate, samples, channels } = readWav(await app.downloaded(/\.wav$/u));
    expect(channels).toBe(2);
    expect(Math.abs(loudnessOf([samples, samples], rate) + 18)).toBeLessThan(1);
    expect(truePeakOf([samples])).toBeLessThan(10 ** (-1 / 20) + 0.005);
  });

  test('muted and alone are heard as such', async () => {
    await openStage();
    const pressed = (button: string) => () =>
      script<string | null>(`return [...document.querySelectorAll('button')]
        .find((one) => (one.ariaLabel ?? one.textContent.trim()) === '${button}')
        ?.getAttribute('aria-pressed') ?? null`);
    await press('o');
    await (await app.findText('summary', 'Levels')).click();
    const muted = await app.find('button[aria-label="Mute drums"]');
    const before = await pressed('Mute drums')();
    await muted.click();
    await app.eventually(pressed('Mute drums'), (now) => now !== before);
    await press(Key.ESCAPE);
    await app.eventually(
      () => app.driver.findElements(By.css('button[aria-label="Mute drums"]')),
      (open) => open.length === 0,
    );
    await press('m', 'o');
    await (await app.findText('summary', 'Levels')).click();
    await app.eventually(pressed('Solo line'), (now) => now === 'true');
  });
});

describe('the stage', () => {
  test('now and next are 48 pixels and more, and nothing scrolls the page', async () => {
    for (const chart of [CHANGES, LONG_CHART]) {
      await openStage(chart);
      for (const [width, height] of [
        [1280, 800],
        [1024, 768],
        [1366, 768],
        [768, 1024],
      ] as const) {
        await app.resize(width, height);
        const found = await script<{ sizes: number[]; over: number; neck: number }>(`
          const sizes = [...document.querySelectorAll('[data-symbol]')]
            .map((one) => parseFloat(getComputedStyle(one).fontSize));
          const { scrollHeight, clientHeight } = document.documentElement;
          const controls = document.querySelector('[data-stage-controls]').getBoundingClientRect();
          return { sizes, over: scrollHeight - clientHeight, neck: innerHeight - controls.bottom };`);
        expect(Math.min(...found.sizes)).toBeGreaterThanOrEqual(48);
        expect(found.over).toBe(0);
        expect(found.neck).toBeGreaterThanOrEqual(0);
      }
    }
    await app.driver.sendDevToolsCommand('Emulation.clearDeviceMetricsOverride', {});
  });

  test('a target has a note under its pennant, though the scale that is shown is without it', async () => {
    await app.visit(app.url);
    const charts = await script<readonly string[]>(
      `return [...document.querySelectorAll('a[aria-label^="Play "]')].map(({ href }) => href)`,
    );
    for (const address of charts) {
      await app.visit(`${address.split('?')[0]}?at=1&zone=3-6&line=none&bpm=100&extent=form`);
      const chords = await script<number>(
        'return document.querySelectorAll("[data-chord]").length',
      );
      for (let at = 1; at <= chords; at += 1) {
        const bare = await script<readonly string[]>(`
          return [...document.querySelectorAll('[data-stage-target="now"]')]
            .map(({ dataset }) => dataset.place)
            .filter((place) => !document.querySelector(
              '[data-label="' + place + '"], [data-target-alone="' + place + '"]'))`);
        expect(bare, `${address}, chord ${at}`).toEqual([]);
        await press(Key.ARROW_RIGHT);
        await app.eventually(
          () => script<string>('return location.search'),
          (search) => search.includes(`at=${at === chords ? 1 : at + 1}`),
        );
      }
    }
  });

  test('the key after Escape is the page’s again, by whatever way the sheet was opened', async () => {
    await openStage();
    const button = 'button[title="Settings of the stage (O)"]';
    for (const opens of [
      () => press('o'),
      async () => (await app.find(button)).click(),
      async () => (await app.find(button)).sendKeys(Key.ENTER),
      () => press('o'),
    ]) {
      await opens();
      await app.find('[role="dialog"] #stage-more');
      await press(Key.ESCAPE, ' ');
      await playing();
      await press(' ');
      await stopped();
    }
  });

  test('a symbol is never cut short, however long it is and narrow the window', async () => {
    await openStage('key: Gm\n| Ebmaj7#11/G | Abm(maj7)/Cb | Gbmaj13#11/Bb | Dbm7b5/Abb |');
    for (const width of [1920, 1280, 1024, 640, 360]) {
      await app.resize(width, 768);
      for (let step = 0; step < 4; step++) {
        await press(Key.ARROW_RIGHT);
        const over = await script<readonly number[]>(`
          return [...document.querySelectorAll('[data-symbol]')].map((one) => {
            const words = document.createRange();
            words.selectNodeContents(one);
            return Math.round(words.getBoundingClientRect().width - one.clientWidth);
          });`);
        expect(Math.max(...over), `${width} ${over.join(' ')}`).toBeLessThanOrEqual(1);
      }
    }
    await app.driver.sendDevToolsCommand('Emulation.clearDeviceMetricsOverride', {});
  });

  test('axe finds nothing serious, with its settings open too', async () => {
    await openStage();
    await press('o');
    await app.find('#stage-more');
    expect(await app.seriousFaults()).toEqual([]);
  });
});

/** Seconds at which something new is struck: where the sound's quickest part rises at once. */
function onsetsOf({ rate, samples }: Sound): readonly number[] {
  const frame = Math.round(rate * 0.002);
  const levels: number[] = [];
  for (let at = 1; at + frame <= samples.length; at += frame) {
    let sum = 0;
    // The difference of neighbours leaves the strokes and takes the ringing away.
    for (let index = at; index < at + frame; index++)
      sum += ((samples[index] ?? 0) - (samples[index - 1] ?? 0)) ** 2;
    levels.push(Math.sqrt(sum / frame));
  }
  const onsets: number[] = [];
  levels.forEach((level, index) => {
    const before = Math.max(...levels.slice(Math.max(0, index - 12), index), 1e-4);
    const last = onsets.at(-1) ?? -1;
    const now = (index * frame) / rate;
    if (level > 1.6 * before && level > 0.003 && now - last > 0.04) onsets.push(now);
  });
  return onsets;
}
