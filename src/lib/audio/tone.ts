/** Sound through Tone.js: its context, whose ticks come from a worker, and its synthesiser. */
import { Gain, getContext, Offline, PolySynth, start, Synth } from 'tone';
import type { Seconds } from '$core/time/units';
import type { Output, Tone } from './output';
import { dueBetween, type Programme, secondsThrough } from './programme';

/** Moderate on purpose: headphones may be on. */
const MASTER = 0.28;

const hertz = (midi: number): number => 440 * 2 ** ((midi - 69) / 12);

/** A plucked voice of its own: what it still has to play goes with it. */
function openVoice() {
  const master = new Gain(MASTER).toDestination();
  const synth = new PolySynth(Synth, {
    oscillator: { type: 'triangle' },
    envelope: { attack: 0.008, decay: 0.5, sustain: 0.35, release: 0.12 },
  }).connect(master);
  return {
    play({ midi, at, seconds, velocity }: Tone) {
      synth.triggerAttackRelease(hertz(midi), Math.max(0.03, seconds), at, velocity);
    },
    close() {
      synth.dispose();
      master.dispose();
    },
  };
}

export async function startTone(): Promise<Output | null> {
  await start();
  const context = getContext();
  if (context.state !== 'running') return null;
  let voice: ReturnType<typeof openVoice> | null = null;
  return {
    silent: null,
    now: () => context.currentTime,
    every(tick) {
      context.on('tick', tick);
      return () => {
        context.off('tick', tick);
      };
    },
    sound(tone) {
      voice ??= openVoice();
      voice.play(tone);
    },
    silence() {
      voice?.close();
      voice = null;
    },
  };
}

/** One pass of a programme as samples, faster than it sounds. */
export async function render(programme: Programme, tail: Seconds): Promise<AudioBuffer> {
  const { start: from, length } = programme;
  const begin = secondsThrough(programme, from);
  const seconds = secondsThrough(programme, length) - begin;
  const once = { ...programme, loop: false };
  const buffer = await Offline(
    () => {
      const voice = openVoice();
      for (const { event, at } of dueBetween(once, from, length)) {
        const starts = secondsThrough(once, at);
        voice.play({
          midi: event.midi,
          at: starts - begin,
          seconds: secondsThrough(once, at + event.beats) - starts,
          velocity: event.velocity,
        });
      }
    },
    seconds + tail,
    1,
  );
  const samples = buffer.get();
  if (!samples) throw new Error('Nothing was rendered.');
  return samples;
}
