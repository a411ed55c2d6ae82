/** Listening on the stage: what lands is marked, what does not is named, and nothing leaves. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeAll, describe, expect, test } from 'vitest';
import wavefile from 'wavefile';
import { playedWith, pluckedSound } from '$core/listening/simulated';
import { pitchAt, STANDARD_NECK } from '$core/neck/neck';
import { throwAway } from './started';
import { HEARD, suite } from './suite';

const folder = throwAway('takes');

function writeWav(path: string, samples: Float32Array, rate: number): string {
  const file = new wavefile.WaveFile();
  const whole = Float64Array.from(samples, (value) => 32_767 * value);
  file.fromScratch(1, rate, '16', whole);
  writeFileSync(path, file.toBuffer());
  return path;
}

/** E4 and silence. */
function hearE(): void {
  writeWav(HEARD, pluckedSound([{ seconds: 0.2, length: 1.6, midi: 64 }], 48_000, 2), 48_000);
}

const app = suite();

const STANDS = [
  [1280, 800],
  [1024, 768],
  [768, 1024],
  [360, 740],
] as const;

const CHANGES = `title: Paper Boats
key: C
tempo: 240
[A]
| Dm7 G7 | Cmaj7 A7 | Dm7 G7 | Cmaj7 C6 |`;

const script = <T>(body: string): Promise<T> => app.driver.executeScript<T>(body);
const text = (css: string) =>
  script<string>(`return document.querySelector('${css}')?.textContent?.trim() ?? ''`);
const marks = () =>
  script<string[]>(
    `return [...document.querySelectorAll('[data-landing]')].map((one) => one.dataset.landing)`,
  );

async function openStage() {
  await app.openChart(CHANGES, '/play?at=0');
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
  beforeAll(hearE);

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

  test('that is given after it was called off is let go', async () => {
    await openStage();
    await script(`
      const get = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
      navigator.mediaDevices.getUserMedia = async (wanted) => {
        const stream = await get(wanted);
        await new Promise((give) => (window.give = () => { window.stream = stream; give(); }));
        return stream;
      };`);
    await app.press('l');
    await app.eventually(
      () => script('return typeof window.give'),
      (kind) => kind === 'function',
    );
    await app.press('l');
    await script('window.give()');
    await app.eventually(
      () => script('return window.stream.getTracks().map((track) => track.readyState)'),
      (states) => String(states) === 'ended',
    );
    expect(await text('[data-heard-now]')).toBe('');
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
    await app.findText('p', 'Nothing comes in');
    await app.press('l');
  });
});

describe('a chorus played into the microphone', () => {
  const CHORUS = `title: Slow Boats
key: C
time: 2/4
tempo: 80
[A]
| Dm7 | G7 | Cmaj7 | A7 |`;
  const BARS = 4;
  /** Seconds of a bar, and of the count before the first. */
  const BAR = 1.5;
  const COUNT = BAR;

  /**
   * What comes in begins with the first sound of the band, by the band's own clock: how long a busy
   * machine takes to open a microphone or to press a button moves nothing.
   */
  const playedWithTheBand = `
    let context;
    let awaited = null;
    for (const kind of [AudioBufferSourceNode, OscillatorNode]) {
      const start = kind.prototype.start;
      kind.prototype.start = function (at, ...rest) {
        context = this.context;
        if (awaited) {
          const source = awaited;
          awaited = null;
          source.start(at);
        }
        return start.call(this, at, ...rest);
      };
    }
    window.playIn = (wav) => {
      navigator.mediaDevices.getUserMedia = async () => {
        const bytes = Uint8Array.from(atob(wav), (letter) => letter.charCodeAt(0));
        const source = new AudioBufferSourceNode(context, {
          buffer: await context.decodeAudioData(bytes.buffer),
        });
        const strings = new MediaStreamAudioDestinationNode(context);
        source.connect(strings);
        awaited = source;
        return strings.stream;
      };
    };`;

  test('is marked exactly as it was played, its mistakes named', async () => {
    const address = await app.openChart(CHORUS, '/play?at=0');
    // What is asked for, the simulated guitarist plays as it is: a take of his says it.
    await app.listenTo('simulated', 'none');
    await (await app.findText('button', 'Play')).click();
    await app.eventually(marks, (decided) => decided.length === BARS);
    await (await app.findText('button', 'Keep this take')).click();
    const takes = `${app.url}/api/takes?of=${/plan\/(\w+)/u.exec(address)?.[1]}`;
    const [take] = await app.eventually(
      async () =>
        (await (await fetch(takes)).json()) as {
          notes: { beat: number; string: number; fret: number }[];
        }[],
      (all) => all.length === 1,
    );
    await app.press(' ');
    await app.press('l');
    const asked = (take?.notes ?? []).map((note) => pitchAt(STANDARD_NECK, note));
    expect(asked).toHaveLength(BARS);
    // The same chorus with three mistakes.
    const errs = ['landed', 'late', 'another octave', 'missed'];
    const played = asked.flatMap((midi, bar) => {
      const seconds = COUNT + BAR * bar;
      if (errs[bar] === 'missed') return [];
      // Well into the second of two beats: within the first it would have landed.
      if (errs[bar] === 'late') return [{ seconds: seconds + 0.7 * BAR, length: 0.3, midi }];
      return [{ seconds, length: 1, midi: errs[bar] === 'another octave' ? midi + 12 : midi }];
    });
    const file = join(folder, 'chorus.wav');
    writeWav(file, pluckedSound(played, 48_000, COUNT + BAR * BARS + 2), 48_000);
    await app.visit(`${address.split('?')[0]}/play?at=0`);
    await script(playedWithTheBand);
    // A first press makes the context there is to play in.
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-pass]');
    await app.press(' ');
    await script(`playIn('${readFileSync(file, 'base64')}')`);
    await app.listenTo('');
    await app.press(' ');
    const verdicts = await app.eventually(marks, (decided) => decided.length === BARS);
    expect(verdicts).toEqual(errs);
    await app.eventually(
      () => text('[data-landings-say]'),
      (says) => says.startsWith('1 of 4 targets landed. Listen next for'),
    );
    await app.press(' ');
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
      join(folder, `take-${rate}.wav`),
      pluckedSound([{ seconds: 1, length: 0.45, midi: 64 }], rate, 2),
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
  afterEach(() => app.driver.manage().window().setRect({ width: 1280, height: 800 }));

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

  test.each(STANDS)(
    'moves nothing under the hand while what is heard changes, %i × %i',
    async (width, height) => {
      await app.driver.manage().window().setRect({ width, height });
      await openStage();
      await app.listenTo('simulated', 'all');
      await (await app.findText('button', 'Play')).click();
      await app.findText('button', 'with its sound');
      // Where everything stands that is pressed or looked at, over two passes more.
      await script(`
      window.stood = {};
      window.looking = setInterval(() => {
        const tops = { neck: document.querySelector('.stage-neck').getBoundingClientRect().height };
        for (const one of document.querySelectorAll('[data-stage-controls] button'))
          tops[one.textContent.trim().split(',')[0]] = one.getBoundingClientRect().top;
        for (const [what, at] of Object.entries(tops)) (window.stood[what] ??= []).push(Math.round(at));
      }, 50);`);
      const passes = () =>
        script<number>(
          `return Number(/\\d+/.exec(document.querySelector('[data-pass]')?.textContent)?.[0])`,
        );
      const begun = await passes();
      await app.eventually(passes, (pass) => pass >= begun + 2);
      const stood = await script<Readonly<Record<string, readonly number[]>>>(
        'clearInterval(window.looking); return window.stood',
      );
      expect(Object.keys(stood)).toContain('Keep this take');
      for (const [what, at] of Object.entries(stood))
        expect([what, ...new Set(at)]).toHaveLength(2);
      await app.press(' ');
    },
  );

  interface Take {
    readonly id: string;
    readonly sound: number | null;
    readonly notes: readonly {
      readonly beat: number;
      readonly string: number;
      readonly fret: number;
    }[];
  }
  const takesOf = async (): Promise<readonly Take[]> => {
    const chart = /plan\/(\w+)/u.exec(await app.driver.getCurrentUrl())?.[1] ?? '';
    return (await (await fetch(`${app.url}/api/takes?of=${chart}`)).json()) as Take[];
  };

  test('a take is kept with the chart only when the player says so, its sound on wish', async () => {
    await openStage();
    await app.listenTo('simulated', 'none');
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-landings-say]');
    expect(await takesOf()).toEqual([]);
    await (await app.findText('button', 'with its sound')).click();
    const [take] = await app.eventually(takesOf, (all) => typeof all[0]?.sound === 'number');
    expect(take?.notes).toHaveLength(8);
    await app.press(' ');
    // What is kept of the sound is what was played: it is heard the same again.
    const wav = await (await fetch(`${app.url}/api/takes/${take?.id}/sound`)).arrayBuffer();
    expect(wav.byteLength).toBe(take?.sound);
    const answer = await fetch(`${app.url}/api/engine/transcribe`, {
      method: 'POST',
      headers: { 'content-type': 'audio/wav' },
      body: wav,
    });
    const { notes } = (await answer.json()) as { notes: { midi: number; seconds: number }[] };
    expect(notes).toHaveLength(8);
    // A chord of two beats, 240 a minute, is half a second.
    for (const [chord, { seconds }] of notes.entries())
      expect(Math.abs(seconds - chord / 2)).toBeLessThan(0.06);
    // It is listed with the chart, read like a lick, and becomes one.
    await app.menu('Takes');
    await app.find('[data-takes="1"] audio');
    // How it was heard is worked out after it is listed.
    await app.eventually(
      () => text('[data-takes]'),
      (said) => said.includes('Without the band'),
    );
    await (await app.find('[data-take] a')).click();
    await app.find('[data-take-head]');
    await app.find('[data-grid][data-notes="8"]');
    await (await app.findText('button', 'Delete the sound')).click();
    await app.eventually(
      () => script<number>(`return document.querySelectorAll('audio').length`),
      (shown) => shown === 0,
    );
    expect((await fetch(`${app.url}/api/takes/${take?.id}/sound`)).status).toBe(404);
    await (await app.findText('button', 'Make it a lick')).click();
    await app.find('[data-lick^="Take on Paper Boats"][aria-current="page"]');
  });

  test('what is stopped within a pass is judged as far as it went', async () => {
    await openStage();
    await app.listenTo('simulated', 'none');
    await (await app.findText('button', 'Play')).click();
    await app.eventually(marks, (decided) => decided.length >= 3);
    await app.press(' ');
    await app.eventually(
      () => text('[data-landings-say]'),
      (says) =>
        /([3-8]) of \1 targets landed; the other (one was|[2-5] were) not reached/u.test(says),
    );
    await app.findText('button', 'Keep this take');
    // Another time of playing is judged anew, its first pass too.
    await app.press(' ');
    await app.eventually(
      () => text('[data-landings-say]'),
      (says) => says.includes('All 8 targets landed'),
    );
    await app.press(' ');
  });

  test('shows the way into what did not land, then leaves it to the player', async () => {
    await openStage();
    await app.listenTo('simulated', 'missed');
    await (await app.findText('button', 'Play')).click();
    await app.find('[data-landings-say]');
    await (await app.findText('button', 'Show me')).click();
    await app.find('[data-loop]');
    await app.eventually(
      () => text('[data-turn]'),
      (turn) => turn === 'Corvel',
    );
    await app.eventually(
      () => text('[data-turn]'),
      (turn) => turn === 'You',
    );
    await app.eventually(
      () => text('[data-turn]'),
      (turn) => turn === '',
    );
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
