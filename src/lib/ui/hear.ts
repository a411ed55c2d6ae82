/** A note or two to hear what a choice sounds like, made in the browser: no samples, no server. */
import type { Chord } from '$core/chords/chords';
import { chordNotes } from '$core/chords/chords';
import type { Note } from '$core/notes/notes';
import { type Midi, pitchAtOrAbove } from '$core/notes/pitch';

const CHORD_FLOOR: Midi = 48;
const LINE_FLOOR: Midi = 60;
const STEP_SECONDS = 0.22;
/** Moderate on purpose: headphones may be on. */
const LOUDNESS = { chord: 0.035, line: 0.11 } as const;

const hertz = (midi: Midi): number => 440 * 2 ** ((midi - 69) / 12);

let context: AudioContext | null = null;
let playing: GainNode | null = null;

function sound(
  audio: AudioContext,
  out: AudioNode,
  midi: Midi,
  from: number,
  to: number,
  gain: number,
) {
  const tone = audio.createOscillator();
  const level = audio.createGain();
  tone.type = 'triangle';
  tone.frequency.value = hertz(midi);
  level.gain.setValueAtTime(0, from);
  level.gain.linearRampToValueAtTime(gain, from + 0.015);
  level.gain.setTargetAtTime(0, to - 0.06, 0.04);
  tone.connect(level).connect(out);
  tone.start(from);
  tone.stop(to + 0.2);
}

/** A voice to play single notes with, and the clock it plays by, in seconds. */
export function createVoice() {
  context ??= new AudioContext();
  const audio = context;
  void audio.resume();
  const out = audio.createGain();
  out.connect(audio.destination);
  // Where the browser has no sound to give, its own clock keeps the time.
  const zero = performance.now() / 1000 - audio.currentTime;
  return {
    now: (): number =>
      audio.state === 'running' ? audio.currentTime : performance.now() / 1000 - zero,
    play(midi: Midi, from: number, to: number) {
      sound(audio, out, midi, Math.max(from, audio.currentTime), to, LOUDNESS.line);
    },
  };
}

/** Plays a chord with notes one after another over it, from the first upward; stops what sounded. */
export function hear(chord: Chord, notes: readonly Note[]): void {
  context ??= new AudioContext();
  void context.resume();
  playing?.disconnect();
  const out = context.createGain();
  out.connect(context.destination);
  playing = out;
  const start = context.currentTime + 0.05;
  const end = start + STEP_SECONDS * (notes.length + 3);
  let floor = CHORD_FLOOR;
  for (const note of chordNotes(chord)) {
    const midi = pitchAtOrAbove(note, floor);
    sound(context, out, midi, start, end, LOUDNESS.chord);
    floor = midi + 1;
  }
  let line = LINE_FLOOR;
  for (const [index, note] of notes.entries()) {
    const midi = pitchAtOrAbove(note, line);
    const from = start + STEP_SECONDS * (index + 0.5);
    sound(context, out, midi, from, from + STEP_SECONDS, LOUDNESS.line);
    line = midi + 1;
  }
}
