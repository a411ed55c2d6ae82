/**
 * The ear: a microphone, or the simulated guitarist, through the same worklet into a worker. It is
 * asked for only when the player presses Listen; the last minutes are held for as long as it listens,
 * and nothing is kept or sent unless the player keeps a take.
 */
import type { Seconds } from '$core/time/units';
import type { SettingsStore } from '$lib/settings/store.svelte';
import { createHeld, type Own } from '$lib/workers/held';
import { type Hearing, openHearing } from './hearing';
import { createKept, type Kept } from './kept';
import { levelAfter, NO_LEVEL } from './level';
import { asNote, type NoteHeard, type SoundingAt } from './soundingNote';
import { BAND_HEARD, INSECURE, levelSays, refusalFor, UNPLUGGED, UNSUPPORTED } from './says';

type EarState = 'off' | 'asking' | 'hearing';
export const SIMULATED = 'simulated';

/** Samples, mono, −1 to 1, at a rate in hertz. */
export interface Sound {
  readonly samples: Float32Array;
  readonly rate: number;
}

/** Notes kept in mind: of a long loop, and no more. */
const MOST = 2_000;

interface Open {
  readonly context: AudioContext;
  readonly node: AudioWorkletNode;
  readonly stream: MediaStream | null;
  readonly kept: Kept;
}

async function microphone(id: string): Promise<MediaStream> {
  return navigator.mediaDevices.getUserMedia({
    audio: {
      ...(id === '' ? {} : { deviceId: { exact: id } }),
      // What is made for talking would eat a guitar's notes.
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
      channelCount: 1,
    },
  });
}

export function createEar(settings: SettingsStore) {
  let state = $state<EarState>('off');
  let problem = $state<string | null>(null);
  let device = $state('');
  let name = $state('');
  let devices = $state.raw<readonly MediaDeviceInfo[]>([]);
  let notes = $state.raw<readonly NoteHeard[]>([]);
  let sounding = $state.raw<SoundingAt | null>(null);
  let level = $state.raw(NO_LEVEL);
  let band = $state(false);
  /** Seconds from a string's being struck to its being heard. */
  let latency = $state<Seconds>(0);
  let struck = $state<Seconds | null>(null);
  /** Until when everything that came in has been listened to, the way there and back taken off. */
  let through = $state<Seconds>(-Infinity);
  const held = createHeld<Open>();
  /** When the first sample came in. */
  let zero: Seconds | null = null;

  function take({ notes: more, sounding: now, peak: most, struck: last }: Hearing, from: Seconds) {
    if (zero === null) return;
    const start = zero - latency;
    if (more.length > 0)
      notes = [...notes, ...more.map((note) => ({ ...note, at: start + note.seconds }))].slice(
        -MOST,
      );
    sounding = now && { ...now, at: start + now.seconds };
    struck = last === null ? null : zero + last;
    level = levelAfter(level, most, from);
  }

  function close() {
    state = 'off';
    sounding = null;
    level = NO_LEVEL;
    held.end();
  }

  async function list() {
    const all = await navigator.mediaDevices.enumerateDevices().catch(() => []);
    devices = all.filter(({ kind }) => kind === 'audioinput');
  }

  /** Opens a device of an id, the one the browser offers, or the stand-in, and all that hears it. */
  async function opened(id: string, own: Own): Promise<Open> {
    const { nativeContext } = await import('$lib/audio/tone');
    const context = await nativeContext();
    if (!context) throw new Error(UNSUPPORTED);
    if (id !== SIMULATED && typeof navigator.mediaDevices === 'undefined')
      throw new Error(isSecureContext ? UNSUPPORTED : INSECURE);
    const stream =
      id === SIMULATED
        ? null
        : own(await microphone(id), (given) =>
            given.getTracks().forEach((track) => {
              track.onended = null;
              track.stop();
            }),
          );
    await context.audioWorklet.addModule('/listening/capture.js');
    const node = own(
      new AudioWorkletNode(context, 'corvel-capture', {
        numberOfInputs: 1,
        numberOfOutputs: 0,
        channelCount: 1,
        channelCountMode: 'explicit',
      }),
      (given) => given.disconnect(),
    );
    const { remote } = own(openHearing(), ({ worker }) => worker.terminate());
    await remote.begin(context.sampleRate);
    const open: Open = { context, node, stream, kept: createKept(context.sampleRate) };
    node.port.onmessage = ({ data }: MessageEvent<{ samples: Float32Array; from: Seconds }>) => {
      zero ??= data.from;
      open.kept.add(data.samples, data.from);
      void remote.hear(data.samples).then((heard) => {
        if (held.current !== open) return;
        take(heard, data.from);
        through = data.from + data.samples.length / context.sampleRate - latency;
      });
    };
    if (stream)
      own(context.createMediaStreamSource(stream), (given) => given.disconnect()).connect(node);
    return open;
  }

  /** Begins to listen to a device of an id, to the one the browser offers, or to the stand-in. */
  async function listen(id: string) {
    close();
    problem = null;
    state = 'asking';
    zero = null;
    through = -Infinity;
    level = NO_LEVEL;
    notes = [];
    band = false;
    try {
      const open = await held.begin((own) => opened(id, own));
      if (!open) return;
      const { context, stream } = open;
      const track = stream?.getAudioTracks()[0];
      if (track)
        track.onended = () => {
          close();
          problem = UNPLUGGED;
        };
      device = id;
      name = stream ? (track?.label ?? '') : SIMULATED;
      latency = stream
        ? (settings.current.latencies[name] ?? context.baseLatency + context.outputLatency)
        : 0;
      state = 'hearing';
      if (stream) await list();
    } catch (error) {
      close();
      problem = refusalFor(error);
    }
  }

  return {
    get state() {
      return state;
    },
    get problem() {
      return problem;
    },
    get devices() {
      return devices;
    },
    get device() {
      return device;
    },
    /** The name of what is heard, by which its latency is kept. */
    get name() {
      return name;
    },
    get notes() {
      return notes;
    },
    get sounding() {
      return sounding;
    },
    /** What was heard and what still sounds, which counts as much as what is over. */
    get heard(): readonly NoteHeard[] {
      const now = held.current?.context.currentTime ?? 0;
      return sounding ? [...notes, asNote(sounding, now)] : notes;
    },
    /** The loudest sample of late, 0 to 1. */
    get peak() {
      return level.peak;
    },
    /** What is wrong with what comes in; null where nothing is. */
    get says() {
      if (state !== 'hearing') return null;
      if (band) return BAND_HEARD;
      // He plays when he has something to play.
      return device === SIMULATED ? null : levelSays(level);
    },
    get latency() {
      return latency;
    },
    /** Another latency, kept for what is listened to. */
    setLatency(seconds: Seconds) {
      latency = seconds;
      const { latencies } = settings.current;
      settings.change({ latencies: { ...latencies, [name || 'input']: seconds } });
    },
    /** When a string was last struck, or anything clicked, as it came in. */
    get struck() {
      return struck;
    },
    get through() {
      return through;
    },
    hearsBand() {
      band = true;
    },
    /** Listens to another input, which is remembered. */
    choose(id: string) {
      settings.change({ input: id });
      void listen(id);
    },
    /** Listens to the input chosen last, or no longer. */
    toggle() {
      if (state === 'off') void listen(settings.current.input);
      else close();
    },
    close,
    /** The sound of a stretch of the clock, the way there and back taken off; null where it is deaf. */
    soundOf(from: Seconds, to: Seconds): Sound | null {
      const open = held.current;
      if (!open) return null;
      const samples = open.kept.between(from + latency, to + latency);
      return { samples, rate: open.context.sampleRate };
    },
    now: (): Seconds => held.current?.context.currentTime ?? 0,
    /**
     * Plays samples at a second of the clock into the ear alone: the simulated guitarist's strings. What is
     * answered ends them.
     */
    feed(samples: Float32Array<ArrayBuffer>, at: Seconds): () => void {
      const open = held.current;
      if (!open) return () => undefined;
      const buffer = open.context.createBuffer(1, samples.length, open.context.sampleRate);
      buffer.copyToChannel(samples, 0);
      const source = open.context.createBufferSource();
      source.buffer = buffer;
      source.connect(open.node);
      source.start(at);
      return () => source.stop();
    },
    get rate() {
      return held.current?.context.sampleRate ?? 44_100;
    },
  };
}

export type Ear = ReturnType<typeof createEar>;
