/** A band and the line over it as a Standard MIDI File: a track for each part. */
import midi from '@tonejs/midi';
import type { Drum } from '../../band/events';
import type { Midi } from '../../notes/pitch';
import type { TempoChange } from '../../time/tempo';
import type { TimeSignature } from '../../time/metre';
import type { Beats } from '../../time/units';
import { PULSES } from '../passage/midi/write';

export interface TrackNote {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly velocity: number;
  readonly midi: Midi;
}

export interface BandTrack {
  readonly name: string;
  /** General MIDI's program, counted from 0; null for the drum kit. */
  readonly program: number | null;
  readonly notes: readonly TrackNote[];
}

/** Keys of the General MIDI drum map. */
export const DRUM_KEYS: Readonly<Record<Drum, Midi>> = {
  kick: 36,
  rim: 37,
  snare: 38,
  hat: 42,
  'pedal-hat': 44,
  tom: 45,
  'open-hat': 46,
  crash: 49,
  ride: 51,
};

/** The channel General MIDI keeps for drums, counted from 0. */
const DRUM_CHANNEL = 9;

export interface BandFile {
  readonly title: string;
  readonly time: TimeSignature;
  readonly tempo: readonly TempoChange[];
  readonly tracks: readonly BandTrack[];
}

/** The file; what begins before beat 0 moves all of it later by whole bars. */
export function writeBandMidi({ title, time, tempo, tracks }: BandFile): Uint8Array {
  const perBeat = (PULSES * 4) / time.unit;
  const first = Math.min(0, ...tracks.flatMap(({ notes }) => notes.map(({ beat }) => beat)));
  const shift = Math.ceil(-first / time.beats) * time.beats;
  const ticksAt = (beat: Beats) => Math.round((beat + shift) * perBeat);
  const file = new midi.Midi();
  file.header.fromJSON({
    name: title,
    ppq: PULSES,
    keySignatures: [],
    meta: [],
    tempos: tempo.map(({ beat, bpm }, index) => ({
      ticks: index === 0 ? 0 : ticksAt(beat),
      bpm: (bpm * 4) / time.unit,
    })),
    timeSignatures: [{ ticks: 0, timeSignature: [time.beats, time.unit], measures: 0 }],
  });
  let channel = 0;
  for (const { name, program, notes } of tracks) {
    const track = file.addTrack();
    track.name = name;
    if (channel === DRUM_CHANNEL) channel += 1;
    track.channel = program === null ? DRUM_CHANNEL : channel;
    if (program !== null) {
      track.instrument.number = program;
      channel += 1;
    }
    for (const note of notes) {
      const ticks = ticksAt(note.beat);
      const durationTicks = Math.max(1, ticksAt(note.beat + note.beats) - ticks);
      track.addNote({ midi: note.midi, ticks, durationTicks, velocity: note.velocity });
    }
  }
  return file.toArray();
}
