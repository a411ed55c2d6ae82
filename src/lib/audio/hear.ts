/** What a choice sounds like: its chord with the notes one after another over it. */
import { BEAT, type Chord, chordNotes, type Note } from 'corvel-core';
import { climbing, type Midi } from '$core/notes/pitch';
import { tempoMap } from '$core/time/tempo';
import { type Programme, programmeOf, type SoundEvent } from './programme';

const CHORD_FLOOR: Midi = 48;
const LINE_FLOOR: Midi = 60;
/** Notes a minute. */
const PACE = 270;
const LOUDNESS = { chord: 0.5, line: 0.75 } as const;

export function hearProgramme(chord: Chord, notes: readonly Note[]): Programme {
  const length = (notes.length + 3) * BEAT;
  const held = climbing(chordNotes(chord), CHORD_FLOOR).map((midi): SoundEvent => {
    return { part: 'comp', beat: 0, beats: length, midi, velocity: LOUDNESS.chord };
  });
  const line = climbing(notes, LINE_FLOOR).map((midi, index): SoundEvent => {
    return {
      part: 'line',
      beat: index * BEAT + BEAT / 2,
      beats: BEAT,
      midi,
      velocity: LOUDNESS.line,
    };
  });
  return programmeOf([...held, ...line], { length, tempo: tempoMap([{ beat: 0, bpm: PACE }]) });
}
