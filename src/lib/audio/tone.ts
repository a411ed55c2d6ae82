/** Sound through Tone.js: its context, whose ticks come from a worker, and its samplers. */
import {
  Gain,
  getContext,
  Offline,
  PolySynth,
  Sampler,
  start,
  Synth,
  ToneAudioBuffer,
  ToneBufferSource,
} from 'tone';
import { group } from '$core/lists';
import type { Seconds } from '$core/time/units';
import { DEFAULT_MIX, type Gains, gainsOf } from './mix';
import type { Output, Sound } from './output';
import { SOUND_PARTS, type SoundPart } from './parts';
import type { Programme, SoundEvent } from './programme';
import { drumPaths, type Instrument, keysOf, pathsOf } from './samples';

const hertz = (midi: number): number => 440 * 2 ** ((midi - 69) / 12);
const CLICK = { strong: hertz(96), weak: hertz(89), seconds: 0.02 } as const;
/** How long a note takes to end, and what plays to fall silent, so that nothing cracks. */
const RELEASE: Seconds = 0.12;
const FADE: Seconds = 0.02;
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

interface Pitched {
  triggerAttackRelease: (hertz: number, seconds: Seconds, at: Seconds, velocity: number) => unknown;
  dispose: () => unknown;
}

/** What plays in the context that is current: it goes with all it still has to play. */
function openVoices(gains: Gains) {
  const master = new Gain(gains.master).toDestination();
  const parts = Object.fromEntries(
    SOUND_PARTS.map((part) => [part, new Gain(gains.parts[part]).connect(master)]),
  ) as Record<SoundPart, Gain>;
  const pitched = new Map<string, Pitched>();
  const ended = new Set<ToneBufferSource>();

  /** The sampler of an instrument; a plain plucked tone where its samples are not there. */
  function voice(name: Instrument | 'click', part: SoundPart): Pitched {
    const known = pitched.get(name);
    if (known) return known;
    const urls = Object.fromEntries(
      (name === 'click' ? [] : keysOf(name)).flatMap(({ midi, path }) => {
        const buffer = buffers.get(path);
        return buffer ? [[midi, buffer]] : [];
      }),
    );
    const made: Pitched =
      Object.keys(urls).length > 0
        ? new Sampler({ urls, release: RELEASE })
        : new PolySynth(Synth, {
            oscillator: { type: 'triangle' },
            envelope: { attack: 0.004, decay: 0.5, sustain: 0.3, release: RELEASE },
          });
    (made as Sampler).connect(parts[part]);
    pitched.set(name, made);
    return made;
  }

  function drum(path: string | undefined, at: Seconds, velocity: number) {
    const buffer = path === undefined ? undefined : buffers.get(path);
    if (!buffer) return;
    const level = new Gain(velocity).connect(parts.drums);
    const source = new ToneBufferSource(buffer).connect(level);
    ended.add(source);
    source.onended = () => {
      ended.delete(source);
      source.dispose();
      level.dispose();
    };
    source.start(at);
  }

  return {
    play({ event, at, seconds }: Sound) {
      const { velocity } = event;
      const length = Math.max(0.03, seconds);
      switch (event.part) {
        case 'drums':
          drum(drumPaths.find((one) => one.drum === event.drum)?.path, at, velocity);
          return;
        case 'click': {
          const pitch = event.strong ? CLICK.strong : CLICK.weak;
          voice('click', 'click').triggerAttackRelease(pitch, CLICK.seconds, at, velocity);
          return;
        }
        default: {
          const name =
            event.part === 'bass'
              ? (event.on ?? 'double-bass')
              : event.part === 'comp'
                ? 'piano'
                : 'guitar';
          voice(name, event.part).triggerAttackRelease(hertz(event.midi), length, at, velocity);
        }
      }
    },
    mix(to: Gains) {
      master.gain.rampTo(to.master, FADE);
      for (const part of SOUND_PARTS) parts[part].gain.rampTo(to.parts[part], FADE);
    },
    close() {
      master.gain.rampTo(0, FADE);
      setTimeout(() => {
        for (const source of ended) source.dispose();
        for (const one of pitched.values()) one.dispose();
        for (const part of SOUND_PARTS) parts[part].dispose();
        master.dispose();
      }, 4_000 * FADE);
    },
  };
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
      const at = startOf(event);
      const seconds = tempo.secondsAt(event.beat + event.beats) - begin - at;
      return { event, at: at - offset, seconds };
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
