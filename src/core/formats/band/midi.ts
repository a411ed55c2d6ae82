/** A band and the line over it as a Standard MIDI File: a track for each part. */
import midi from '@tonejs/midi';
import type { Beats } from '../../time/units';
import { PULSES, pulsesIn } from '../passage/midi/write';
import type { BandFile } from './tracks';
import { barOf } from '../../time/metre';

/** The channel General MIDI keeps for drums, counted from 0. */
const DRUM_CHANNEL = 9;

/** The file; what begins before beat 0 moves all of it later by whole bars. */
export function writeBandMidi({ title, time, tempo, tracks }: BandFile): Uint8Array {
  const first = Math.min(0, ...tracks.flatMap(({ notes }) => notes.map(({ beat }) => beat)));
  const shift = Math.ceil(-first / barOf(time)) * barOf(time);
  const ticksAt = (beat: Beats) => pulsesIn(beat + shift, time.unit);
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
