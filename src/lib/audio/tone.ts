/** Sound through Tone.js: its context, whose ticks come from a worker, and what plays in it. */
import {
  connect,
  Convolver,
  Gain,
  getContext,
  Offline,
  Panner,
  PolySynth,
  start,
  Synth,
  ToneAudioBuffer,
} from 'tone';
import { at, group, range } from '$core/lists';
import { hertzOf } from '$core/notes/pitch';
import type { Beats, Seconds } from '$core/time/units';
import { DEFAULT_MIX, type Gains, gainsOf } from './mix';
import type { Output, Sound } from './output';
import { SOUND_PARTS, type SoundPart } from './parts';
import type { Programme, SoundEvent } from './programme';
import { roomSamples } from './room';
import { drumPath, type Instrument, keysOf, pathsOf } from './samples';

const CLICK = { strong: hertzOf(96), weak: hertzOf(89), seconds: 0.02 } as const;
/** How long a note takes to end, and what plays to fall silent, so that nothing cracks. */
const RELEASE: Seconds = 0.12;
const FADE: Seconds = 0.02;
/** A note to be struck. */
interface Struck {
  readonly at: Seconds;
  readonly seconds: Seconds;
  readonly velocity: number;
  readonly gain?: number;
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

/** The sample nearest to a pitch at a strength, and how much faster it is to run. */
function sampleFor(
  instrument: Instrument,
  midi: number,
  velocity: number,
): readonly [ToneAudioBuffer, number] | null {
  let best: readonly [ToneAudioBuffer, number] | null = null;
  for (const key of keysOf(instrument, velocity)) {
    const buffer = buffers.get(key.path);
    const away = midi - key.midi;
    if (buffer && (best === null || Math.abs(away) < Math.abs(best[1]))) best = [buffer, away];
  }
  return best && [best[0], 2 ** (best[1] / 12)];
}

/** Where each part stands, from left to right, and which of them are heard in the room. */
const PANS: Readonly<Record<SoundPart, number>> = {
  bass: 0,
  comp: -0.3,
  drums: 0.1,
  click: 0,
  line: 0.25,
};
const ROOMY: readonly SoundPart[] = ['comp', 'drums', 'line'];
/** How much of the room is heard. */
const WET = 0.22;

/** A short room: what is sent into it. */
function openRoom(into: Gain): Convolver {
  const { sampleRate, rawContext } = getContext();
  const [left, right] = roomSamples(sampleRate);
  const impulse = rawContext.createBuffer(2, left.length, sampleRate);
  impulse.copyToChannel(left, 0);
  impulse.copyToChannel(right, 1);
  const wet = new Gain(WET).connect(into);
  return new Convolver(new ToneAudioBuffer(impulse as AudioBuffer)).connect(wet);
}

/** What plays in the context that is current: it goes with all it still has to play. */
function openVoices(gains: Gains) {
  const raw = getContext().rawContext;
  const master = new Gain(gains.master).toDestination();
  const room = gains.room ? openRoom(master) : null;
  const panned = SOUND_PARTS.map((part) => {
    const panner = new Panner(PANS[part]).connect(master);
    if (room && ROOMY.includes(part)) panner.connect(room);
    return panner;
  });
  const parts = Object.fromEntries(
    SOUND_PARTS.map((part, index) => {
      const gain = new Gain(gains.parts[part]);
      const panner = panned[index];
      return [part, panner ? gain.connect(panner) : gain.connect(master)];
    }),
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
    { at, seconds, velocity, gain = 1, rate }: Struck & { readonly rate: number },
  ) {
    const samples = buffer.get();
    if (!samples) return;
    const source = raw.createBufferSource();
    source.buffer = samples;
    source.playbackRate.value = rate;
    const level = raw.createGain();
    const end = at + seconds;
    level.gain.setValueAtTime(velocity * gain, at);
    level.gain.setValueAtTime(velocity * gain, end);
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
    const found = sampleFor(instrument, midi, note.velocity);
    if (found) strike(found[0], part, { ...note, rate: found[1] });
    else {
      const { at, seconds, velocity, gain = 1 } = note;
      plainVoice(part).triggerAttackRelease(hertzOf(midi), seconds, at, velocity * gain);
    }
  }

  return {
    play({ event, at, seconds }: Sound) {
      const { part, velocity, gain = 1 } = event;
      const note = { at, seconds: Math.max(0.03, seconds), velocity, gain };
      switch (part) {
        case 'drums': {
          const buffer = buffers.get(drumPath(event.drum, velocity));
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
        for (const panner of panned) panner.dispose();
        room?.dispose();
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
      // A room is opened and closed with the voices that are in it.
      const moves = to.room !== gains.room;
      gains = to;
      if (!moves) voices?.mix(to);
      else {
        voices?.close();
        voices = null;
      }
    },
    silence() {
      voices?.close();
      voices = null;
    },
  };
}

export interface Rendering {
  /** From where to where it is rendered, counted on through its passes. */
  readonly from: Beats;
  readonly to: Beats;
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
const CHANNELS = 2;

/** The sounds of one piece, and the ringing after it. */
async function renderPiece(
  sounds: readonly Sound[],
  seconds: Seconds,
  gains: Gains,
): Promise<readonly Float32Array[]> {
  const rendered = await Offline(
    () => {
      const voices = openVoices(gains);
      for (const sound of sounds) voices.play(sound);
    },
    seconds,
    CHANNELS,
    RATE,
  );
  const samples = rendered.get();
  if (!samples) throw new Error('Nothing was rendered.');
  return range(0, CHANNELS).map((channel) => samples.getChannelData(channel));
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
  const length = Math.ceil((whole + tail) * RATE);
  const all = range(0, CHANNELS).map(() => new Float32Array(length));
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
    for (const [channel, piece] of samples.entries()) {
      const into = at(all, channel);
      for (let index = 0; index < piece.length && first + index < length; index++)
        into[first + index] = (into[first + index] ?? 0) + (piece[index] ?? 0);
    }
    onProgress?.(Math.min(1, (offset + PIECE) / whole));
  }
  signal?.throwIfAborted();
  const buffer = new AudioBuffer({ length, sampleRate: RATE, numberOfChannels: CHANNELS });
  for (const [channel, samples] of all.entries()) buffer.copyToChannel(samples, channel);
  return buffer;
}
