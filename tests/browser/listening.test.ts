/** Listening on the stage: what lands is marked, what does not is named, and nothing leaves. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import wavefile from 'wavefile';
import { playedWith, pluckedSound } from '$core/listening/simulated';
import { suite } from './suite';

const folder = mkdtempSync(join(tmpdir(), 'corvel-heard-'));

function writeWav(name: string, samples: Float32Array, rate: number): string {
  const file = new wavefile.WaveFile();
  const whole = Float64Array.from(samples, (value) => 32_767 * value);
  file.fromScratch(1, rate, '16', whole);
  const path = join(folder, name);
  writeFileSync(path, file.toBuffer());
  return path;
}

/** What Chromium's pretended microphone hears, round and round: E4 and silence. */
const HEARD = writeWav(
  'heard.wav',
  pluckedSound([{ seconds: 0.2, length: 1.6, midi: 64 }], 48_000, 2),
  48_000,
);
const app = suite({}, [
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
  `--use-file-for-fake-audio-capture=${HEARD}`,
]);

const CHANGES = `title: Paper Boats
key: C
tempo: 240
[A]
| Dm7 | G7 | Cmaj7 | A7 |
| Dm7 | G7 | Cmaj7 | C6 |`;

const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const text = (css: string) =>
  script<string>(`return document.querySelector('${css}')?.textContent?.trim() ?? ''`);
const marks = () =>
  script<string[]>(
    `return [...document.querySelectorAll('[data-landing]')].map((one) => one.dataset.landing)`,
  );

async function openStage() {
  const address = await app.openPlan(CHANGES, '?at=0');
  await app.visit(`${address.split('?')[0]}/play?at=0`);
  // Whatever asks for a microphone, or sends anything, is counted.
  await script(`
    window.asked = 0; window.sent = [];
    const media = navigator.mediaDevices;
    const get = media.getUserMedia.bind(media);
    media.getUserMedia = (wanted) => { window.asked += 1; window.wanted = wanted; return get(wanted); };
    const send = window.fetch;
    window.fetch = (to, with_) => { if (with_?.body) window.sent.push(String(with_.body)); return send(to, with_); };
  `);
}
describe('a microphone', () => {
  test('is asked for only when the player wants to be heard, without what is made for talking', async () => {
    await openStage();
    expect(await script('return window.asked')).toBe(0);
    await app.press('l');
    await app.eventually(
      () => text('[data-heard-now]'),
      (heard) => heard.startsWith('E '),
    );
    expect(await script('return window.asked')).toBe(1);
    expect(await script('return window.wanted.audio')).toMatchObject({
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
    });
    await app.find('[data-heard="64"]');
    // Nothing that was heard is sent anywhere.
    expect(await script('return window.sent.filter((one) => one.length > 5000)')).toEqual([]);
    await app.press('l');
    await app.eventually(
      () => text('[data-heard-says]'),
      (says) => says === '',
    );
  });

  test.each([
    ['NotAllowedError', 'keeps the microphone from Corvel'],
    ['NotFoundError', 'No microphone is connected'],
    ['NotReadableError', 'Another program holds the microphone'],
  ])('that is refused by %s is met with a sentence', async (name, says) => {
    await openStage();
    await script(`navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('no', '${name}'))`);
    await app.press('l');
    await app.findText('p', says);
  });

  test('that goes away is met with a sentence', async () => {
    await openStage();
    await script(`
      const get = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
      navigator.mediaDevices.getUserMedia = async (wanted) => (window.stream = await get(wanted));
    `);
    await app.press('l');
    await app.find('[data-heard-now]');
    await script(`window.stream.getAudioTracks()[0].onended?.(new Event('ended'))`);
    await app.findText('p', 'The microphone went away');
  });

  test('that is silent is met with a sentence', async () => {
    await openStage();
    await script(`navigator.mediaDevices.getUserMedia = async () =>
      new MediaStreamAudioDestinationNode(new AudioContext()).stream`);
    await app.press('l');
    await app.findText('span', 'Nothing comes in');
    await app.press('l');
  });
});

describe('a recording', () => {
  test.each([44_100, 48_000, 96_000])('at %i Hz is held against the targets', async (rate) => {
    await openStage();
    const targets = await app.eventually(
      () =>
        script<string>(`return document.querySelector('[data-stage-target="now"]') ? 'there' : ''`),
      (there) => there !== '',
    );
    expect(targets).toBe('there');
    await app.openListening();
    // A C on the first beat of Cmaj7, and silence.
    const file = writeWav(
      `take-${rate}.wav`,
      pluckedSound([{ seconds: 2, length: 0.9, midi: 64 }], rate, 4),
      rate,
    );
    await (await app.find('[name="recording"]')).sendKeys(file);
    await app.eventually(
      () => text('[data-landings-say]'),
      (says) => /\d of 8 targets landed/u.test(says),
    );
    expect(await marks()).toHaveLength(8);
  });

  test('that is none is refused', async () => {
    await openStage();
    await app.openListening();
    const path = join(folder, 'note.wav');
    writeFileSync(path, 'no sound at all');
    await (await app.find('[name="recording"]')).sendKeys(path);
    await app.findText('p', 'no recording this browser can read');
  });
});

describe('the simulated guitarist', () => {
  test.each(['none', 'late', 'missed', 'another octave'])(
    'who errs by “%s” is marked for it, and for nothing else',
    async (mistakes) => {
      await openStage();
      await app.listenTo('simulated', mistakes);
      await (await app.findText('button', 'Play')).click();
      await app.find('[data-landings-say]');
      // Which of the eight he errs in is drawn from the seed, as he draws it.
      const notes = Array.from({ length: 8 }, (_, beat) => ({ beat, beats: 1, midi: 60 }));
      const played = playedWith(notes, mistakes as 'late', 1);
      const erred = notes.filter((note) => !played.includes(note)).length;
      const said = await text('[data-landings-say]');
      if (erred === 0) expect(said).toContain('All 8 targets landed');
      else expect(said).toContain(`${8 - erred} of 8 targets landed. Listen next for`);
      const verdicts = await marks();
      expect(verdicts).toHaveLength(8);
      for (const one of verdicts) expect(['landed', mistakes]).toContain(one);
      expect(await script('return window.asked')).toBe(0);
      await app.press(' ');
    },
  );

  test('a take is kept as a lick, and only when the player says so', async () => {
    await openStage();
    const licks = async () =>
      (
        (await (await fetch(`${app.url}/api/licks`)).json()) as {
          source: string;
          notes: object[];
        }[]
      ).filter(({ source }) => source === 'a take');
    await app.listenTo('simulated', 'none');
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-landings-say]');
    expect(await licks()).toEqual([]);
    await (await app.findText('button', 'Keep this take')).click();
    const kept = await app.eventually(licks, (all) => all.length === 1);
    expect(kept[0]?.notes).toHaveLength(8);
    await app.press(' ');
  });

  test('what did not land is looped round with one key', async () => {
    await openStage();
    await app.listenTo('simulated', 'missed');
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-landings-say]');
    await app.press('j');
    await app.find('[data-loop]');
    await app.press(' ');
  });
});
