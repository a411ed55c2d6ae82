/** A band and the line over it as a Standard MIDI File: a track for each part. */
import type { Beats } from '../../time/units';
import { metred, midiFile, named, notePlayed, paced, pulsesIn, type Timed } from '../midi';
import type { BandFile } from './tracks';
import { barOf } from '../../time/metre';

/** The channel General MIDI keeps for drums, counted from 0. */
const DRUM_CHANNEL = 9;

/** The file; what begins before beat 0 moves all of it later by whole bars. */
export function writeBandMidi({ title, time, tempo, tracks }: BandFile): Uint8Array {
  const first = Math.min(0, ...tracks.flatMap(({ notes }) => notes.map(({ beat }) => beat)));
  const shift = Math.ceil(-first / barOf(time)) * barOf(time);
  const pulseAt = (beat: Beats) => pulsesIn(beat + shift, time.unit);
  const head = [
    named(title),
    ...tempo.map(({ beat, bpm }, index) =>
      paced(index === 0 ? 0 : pulseAt(beat), (bpm * 4) / time.unit),
    ),
    metred(0, time.beats, time.unit),
  ];
  let free = 0;
  const parts = tracks.map(({ name, program, notes }): readonly Timed[] => {
    if (free === DRUM_CHANNEL) free += 1;
    const channel = program === null ? DRUM_CHANNEL : free++;
    const programNumber = program ?? 0;
    return [
      named(name),
      { at: 0, event: { type: 'programChange', channel, programNumber } },
      ...notes.flatMap(({ midi, beat, beats, velocity }) => {
        const at = pulseAt(beat);
        return notePlayed({ channel, midi, at, length: pulseAt(beat + beats) - at, velocity });
      }),
    ];
  });
  return midiFile([head, ...parts]);
}
