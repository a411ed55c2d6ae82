/** A passage as a Standard MIDI File, each string on a channel of its own as guitar synthesisers do. */
import { pitchAt } from '../../neck/neck';
import midi from '@tonejs/midi';
import type { Passage } from '../../phrases/played';

/** Ticks of a quarter note: sixteenths and triplets come out whole. */
export const PULSES = 480;
/** The clean electric guitar of General MIDI. */
const PROGRAM = 27;
const VELOCITY = { target: 0.85, approach: 0.62, fill: 0.7 } as const;
const DEFAULT_TEMPO = 120;

/** The bytes of the file. */
export function writeMidi(passage: Passage): Uint8Array {
  const { title, time, tempo, notes, neck } = passage;
  const file = new midi.Midi();
  file.header.fromJSON({
    name: title,
    ppq: PULSES,
    keySignatures: [],
    meta: [],
    tempos: [{ ticks: 0, bpm: ((tempo ?? DEFAULT_TEMPO) * 4) / time.unit }],
    timeSignatures: [{ ticks: 0, timeSignature: [time.beats, time.unit], measures: 0 }],
  });
  const perBeat = (PULSES * 4) / time.unit;
  for (const string of [...new Set(notes.map((note) => note.string))].sort((a, b) => a - b)) {
    const track = file.addTrack();
    track.name = `String ${string}`;
    track.channel = string - 1;
    track.instrument.number = PROGRAM;
    for (const note of notes.filter((one) => one.string === string)) {
      track.addNote({
        midi: pitchAt(neck, note),
        ticks: Math.round(note.beat * perBeat),
        durationTicks: Math.round(note.beats * perBeat),
        velocity: VELOCITY[note.part],
      });
    }
  }
  return file.toArray();
}
