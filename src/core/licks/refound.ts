/** Notes found again in a zone: an octave lower or higher rather than outside it. */
import { at, range } from '../lists';
import { reachOf } from '../neck/hand';
import { inZone, type Neck, pitchAt, placesOfPitch, type Zone } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import { type Refingered, refinger } from './refinger';
import type { LickNote } from './sounding';
import { BEAT, type Beats } from '../time/units';

/** Octaves that are tried, in the order in which they are preferred. */
const OCTAVES = [0, -1, 1, -2, 2] as const;
const OCTAVE = 12;
/** A pause as long as this ends a phrase, which keeps its tune where it moves. */
const PAUSE: Beats = (3 * BEAT) / 4;

/** Indices of notes by phrases. */
function phrasesOf(notes: readonly LickNote[]): readonly (readonly number[])[] {
  const phrases: number[][] = [];
  let end = -Infinity;
  for (const [index, { beat, beats }] of notes.entries()) {
    const last = phrases.at(-1);
    if (last && beat - end < PAUSE) last.push(index);
    else phrases.push([index]);
    end = Math.max(end, beat + beats);
  }
  return phrases;
}

/** The octave in which the fewest of some pitches lie out of reach, the first of equals. */
function bestOctave(pitches: readonly Midi[], reached: (midi: Midi) => boolean): number {
  const lost = (octave: number) =>
    pitches.filter((midi) => !reached(midi + OCTAVE * octave)).length;
  return OCTAVES.reduce((best: number, one) => (lost(one) < lost(best) ? one : best), 0);
}

/**
 * Octaves for each of some notes, so that the hand reaches them in a zone: all of them in one octave where that
 * can be, else each phrase in its own, else single notes.
 */
function octavesFor(
  neck: Neck,
  notes: readonly LickNote[],
  semitones: number,
  zone: Zone,
): readonly number[] {
  const reach = reachOf(neck, zone);
  const reached = (midi: Midi) => placesOfPitch(neck, midi).some(({ fret }) => inZone(reach, fret));
  const pitches = notes.map((note) => pitchAt(neck, note) + semitones);
  const octaves = range(0, notes.length).map(() => 0);
  const settle = (group: readonly number[]) => {
    const own = group.map((index) => at(pitches, index) + OCTAVE * at(octaves, index));
    if (own.every(reached)) return;
    const octave = bestOctave(own, reached);
    for (const index of group) octaves[index] = at(octaves, index) + octave;
  };
  settle(range(0, notes.length));
  for (const phrase of phrasesOf(notes)) settle(phrase);
  for (const index of range(0, notes.length)) settle([index]);
  return octaves;
}

/** Notes moved into a zone at the easiest places, in whatever octave the hand reaches them there. */
export function refound(
  neck: Neck,
  notes: readonly LickNote[],
  semitones: number,
  zone: Zone,
): Refingered {
  const octaves = octavesFor(neck, notes, semitones, zone);
  return refinger({ neck, notes, semitones, zone, octaves, keep: 'pitch' });
}
