/** Sound through Tone.js: its context, whose ticks come from a worker, and what plays in it. */
import { connect, Gain, getContext, Offline, PolySynth, start, Synth, ToneAudioBuffer } from 'tone';
import { group } from '$core/lists';
import { hertzOf } from '$core/notes/pitch';
import type { Seconds } from '$core/time/units';
import { DEFAULT_MIX, type Gains, gainsOf } from './mix';
import type { Output, Sound } from './output';
import { SOUND_PARTS, type SoundPart } from './parts';
import type { Programme, SoundEvent } from './programme';
import { drumPaths, type Instrument, keysOf, pathsOf } from './samples';

const CLICK = { strong: hertzOf(96), weak: hertzOf(89), seconds: 0.02 } as const;
/** How long a note takes to end, and what plays to fall silent, so that nothing cracks. */
const RELEASE: Seconds = 0.12;
const FADE: Seconds = 0.02;
/** A note to be struck. */
interface Struck {
  readonly at: Seconds;
  readonly seconds: Seconds;
  readonly velocity: number;
}

/** Files fetched at once. */
const AT_ONCE = 6;

/** Samples by their path: fetched once, shared by what plays and what is rendered. */
const buffers = new Map<string, ToneAudioBuffer>();

const UNHEARD = 'Some sounds could not be fetched: plain tones stand in for them.';

async function fetchBuffer(path: string): Promise<void> {
  if (buffers.has(path)) return;
  const response = await fetch(path);
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  const samples = await getContext().decodeAudioData(await response.arrayBuffer());
  buffers.set(path, new ToneAudioBuffer(samples));
}

/** Fetches the samples of parts that are not there yet. */
async function fetchParts(
  parts: readonly SoundPart[],
  onProgress: (share: number) => void,
): Promise<string | null> {
  const wanted = parts.flatMap(pathsOf);
  const missing = wanted.filter((path) => !buffers.has(path));
  let failed = 0;
  const take = async (): Promise<void> => {
    for (let path = missing.shift(); path !== undefined; path = missing.shift()) {
      await fetchBuffer(path).catch(() => (failed += 1));
      onProgress(1 - missing.length / wanted.length);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, take));
  return failed > 0 ? UNHEARD : null;
}

/** The sample nearest to a pitch, and how much faster it is to run. */
function sampleFor(
  instrument: Instrument,
  midi: number,
): readonly [ToneAudioBuffer, number] | null {
  let best: readonly [ToneAudioBuffer, number] | null = null;
  for (const key of keysOf(instrument)) {
    const buffer = buffers.get(key.path);
    const away = midi - key.midi;
    if (buffer && (best === null || Math.abs(away) < Math.abs(best[1]))) best = [buffer, away];
  }
  return best && [best[0], 2 ** (best[1] / 12)];
}

/** What plays in the context that is current: it goes with all it still has to play. */
function openVoices(gains: Gains) {
  const raw = getContext().rawContext;
  const master = new Gain(gains.master).toDestination();
  const parts = Object.fromEntries(
    SOUND_PARTS.map((part) => [part, new Gain(gains.parts[part]).connect(master)]),
  ) as Record<SoundPart, Gain>;
  const sounding = new Set<AudioScheduledSourceNode>();
  const plain = new Map<SoundPart, PolySynth>();

  /** A plain plucked tone: the click, and what stands in for samples that are not there. */
  function plainVoice(part: SoundPart): PolySynth {
    const known = plain.get(part);
    if (known) return known;
    const made = new PolySynth(Synth, {
      oscillator: { type: 'triangle' },
      envelope: { attack: 0.004, decay: 0.5, sustain: 0.3, release: RELEASE },
    }).connect(parts[part]);
    plain.set(part, made);
    return made;
  }

  /**
   * A sample, struck and let go. By the context itself and not by Tone.js's sampler, which takes a
   * millisecond to make each note: on a tablet a chord of four would hold up the drawing.
   */
  function strike(
    buffer: ToneAudioBuffer,
    part: SoundPart,
    { at, seconds, velocity, rate }: Struck & { readonly rate: number },
  ) {
    const samples = buffer.get();
    if (!samples) return;
    const source = raw.createBufferSource();
    source.buffer = samples;
    source.playbackRate.value = rate;
    const level = raw.createGain();
    const end = at + seconds;
    level.gain.setValueAtTime(velocity, at);
    level.gain.setValueAtTime(velocity, end);
    level.gain.linearRampToValueAtTime(0, end + RELEASE);
    source.connect(level);
    connect(level, parts[part]);
    sounding.add(source);
    source.onended = () => {
      sounding.delete(source);
      level.disconnect();
    };
    source.start(at);
    source.stop(end + RELEASE);
  }

  function pitch(part: SoundPart, instrument: Instrument, midi: number, note: Struck) {
    const found = sampleFor(instrument, midi);
    if (found) strike(found[0], part, { ...note, rate: found[1] });
    else {
      const { at, seconds, velocity } = note;
      plainVoice(part).triggerAttackRelease(hertzOf(midi), seconds, at, velocity);
    }
  }

  return {
    play({ event, at, seconds }: Sound) {
      const { part, velocity } = event;
      const note = { at, seconds: Math.max(0.03, seconds), velocity };
      switch (part) {
        case 'drums': {
          const path = drumPaths.find(({ drum }) => drum === event.drum)?.path;
          const buffer = path === undefined ? undefined : buffers.get(path);
          // A drum rings as long as it does.
          if (buffer) strike(buffer, part, { ...note, seconds: buffer.duration, rate: 1 });
          return;
        }
        case 'click': {
          const tone = event.strong ? CLICK.strong : CLICK.weak;
          plainVoice(part).triggerAttackRelease(tone, CLICK.seconds, at, velocity);
          return;
        }
        case 'bass':
          pitch(part, event.on ?? 'double-bass', event.midi, note);
          return;
        case 'comp':
          pitch(part, 'piano', event.midi, note);
          return;
        case 'line':
          pitch(part, 'guitar', event.midi, note);
      }
    },
    mix(to: Gains) {
      master.gain.rampTo(to.master, FADE);
      for (const part of SOUND_PARTS) parts[part].gain.rampTo(to.parts[part], FADE);
    },
    close() {
      master.gain.rampTo(0, FADE);
      setTimeout(() => {
        for (const source of sounding) source.stop();
        for (const one of plain.values()) one.dispose();
        for (const part of SOUND_PARTS) parts[part].dispose();
        master.dispose();
      }, 4_000 * FADE);
    },
  };
}

/**
 * The context as the browser made it, for worklets: Tone.js's wrapper would load them from blobs,
 * which the page's policy forbids. One context has one clock.
 */
export async function nativeContext(): Promise<AudioContext | null> {
  await start();
  const { rawContext } = getContext();
  const { _nativeContext: native } = rawContext as { _nativeContext?: unknown };
  return native instanceof AudioContext ? native : null;
}

export async function startTone(): Promise<Output | null> {
  await start();
  const context = getContext();
  if (context.state !== 'running') return null;
  let gains = gainsOf(DEFAULT_MIX);
  let voices: ReturnType<typeof openVoices> | null = null;
  return {
    silent: null,
    now: () => context.currentTime,
    every(tick) {
      context.on('tick', tick);
      return () => {
        context.off('tick', tick);
      };
    },
    prepare: fetchParts,
    sound(sound) {
      voices ??= openVoices(gains);
      voices.play(sound);
    },
    mix(to) {
      gains = to;
      voices?.mix(to);
    },
    silence() {
      voices?.close();
      voices = null;
    },
  };
}

export interface Rendering {
  /** The programme's beats that are rendered, counted on through its passes. */
  readonly from: number;
  readonly to: number;
  /** How long the last note may ring, in seconds. */
  readonly tail: Seconds;
  readonly gains?: Gains;
  /** Told the share done, 0–1. */
  readonly onProgress?: (share: number) => void;
  readonly signal?: AbortSignal;
}

/** Seconds rendered at a time: between them progress is told, and it can be called off. */
const PIECE: Seconds = 12;
const RATE = 44_100;

/** The sounds of one piece, and the ringing after it. */
async function renderPiece(
  sounds: readonly Sound[],
  seconds: Seconds,
  gains: Gains,
): Promise<Float32Array> {
  const rendered = await Offline(
    () => {
      const voices = openVoices(gains);
      for (const sound of sounds) voices.play(sound);
    },
    seconds,
    1,
    RATE,
  );
  const samples = rendered.get();
  if (!samples) throw new Error('Nothing was rendered.');
  return samples.getChannelData(0);
}

/**
 * Some of a programme as samples, faster than it sounds: in pieces that ring on into each other.
 * Throws the signal's reason when it is called off.
 */
export async function render(programme: Programme, rendering: Rendering): Promise<AudioBuffer> {
  const { from, to, tail, onProgress, signal } = rendering;
  const { tempo } = programme;
  const events = programme.eventsBetween(from, to);
  const used = [...new Set(events.map(({ part }) => part))];
  await fetchParts(used, () => undefined);
  const begin = tempo.secondsAt(from);
  const whole = tempo.secondsAt(to) - begin;
  const all = new Float32Array(Math.ceil((whole + tail) * RATE));
  const startOf = ({ beat }: SoundEvent) => tempo.secondsAt(beat) - begin;
  const pieces = group(events, (event) => Math.floor(startOf(event) / PIECE));
  for (const [piece, some] of pieces) {
    signal?.throwIfAborted();
    const offset = piece * PIECE;
    const sounds = some.map((event): Sound => {
      const begins = startOf(event);
      const seconds = tempo.secondsAt(event.beat + event.beats) - begin - begins;
      const at = Math.max(0, begins + (event.late ?? 0) / 1000 - offset);
      return { event, at, seconds };
    });
    const longest = Math.max(...sounds.map(({ at, seconds }) => at + seconds));
    const gains = rendering.gains ?? gainsOf(DEFAULT_MIX);
    const samples = await renderPiece(sounds, Math.max(PIECE, longest) + tail, gains);
    const first = Math.round(offset * RATE);
    for (let index = 0; index < samples.length && first + index < all.length; index++)
      all[first + index] = (all[first + index] ?? 0) + (samples[index] ?? 0);
    onProgress?.(Math.min(1, (offset + PIECE) / whole));
  }
  signal?.throwIfAborted();
  const buffer = new AudioBuffer({ length: all.length, sampleRate: RATE, numberOfChannels: 1 });
  buffer.copyToChannel(all, 0);
  return buffer;
}
