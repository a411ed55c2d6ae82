/** A take as played notes: what was heard, on the beat it was meant for and under the hand. */
import { at } from '../lists';
import { placePitches, refinger } from '../licks/refinger';
import type { LickNote } from '../licks/sounding';
import type { Neck, Zone } from '../neck/neck';
import { openPitch, stringCount } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import { bendBy, type Technique } from '../phrases/techniques';
import type { Beats } from '../time/units';
import type { HeardNote } from './notes';

/** A note as it was heard, in beats. */
export interface TakenNote extends Pick<HeardNote, 'midi' | 'bent' | 'from'> {
  readonly beat: Beats;
  readonly beats: Beats;
}

/** Parts of a beat that notes are written on: sixteenths, or triplets where those lie nearer. */
const GRIDS: readonly number[] = [4, 3];
const SHORTEST: Beats = 0.25;
/** A gap shorter than this is held through, as a player would write it. */
const GAP: Beats = 0.3;

function onGrid(beat: Beats): Beats {
  const [first, ...rest] = GRIDS.map((parts) => Math.round(beat * parts) / parts);
  return rest.reduce(
    // Sixteenths are meant unless a triplet is clearly nearer.
    (best, one) => (Math.abs(one - beat) < Math.abs(best - beat) - 0.03 ? one : best),
    first ?? beat,
  );
}

function techniquesOf(note: TakenNote, before: TakenNote | undefined): readonly Technique[] {
  const came: readonly Technique[] =
    note.from === 'slide'
      ? [{ kind: 'slide' }]
      : note.from === 'slur' && before
        ? [{ kind: note.midi > before.midi ? 'hammer-on' : 'pull-off' }]
        : [];
  return note.bent >= 0.75 ? [...came, bendBy(note.bent, false)] : came;
}

/** The notes of a take on the neck, in the zone where it reaches; what the neck has not is left out. */
export function takeOf(
  neck: Neck,
  zone: Zone | null,
  heard: readonly TakenNote[],
): readonly LickNote[] {
  const [lowest, highest]: [Midi, Midi] = [
    openPitch(neck, stringCount(neck)) + neck.capo,
    openPitch(neck, 1) + neck.frets,
  ];
  const inRange = heard
    .filter(({ midi }) => midi >= lowest && midi <= highest)
    .toSorted((a, b) => a.beat - b.beat);
  const written = inRange
    .map((note) => ({ ...note, beat: onGrid(note.beat) }))
    // Two that fall on one moment were one, or a slip: the later stands.
    .filter((note, index, all) => all[index + 1]?.beat !== note.beat);
  const places = placePitches(
    neck,
    written.map(({ midi }) => midi),
  );
  if (!places) return [];
  const notes = written.map((note, index): LickNote => {
    const next = written[index + 1]?.beat ?? Infinity;
    const end = note.beat + note.beats;
    const beats = next - end < GAP ? next - note.beat : onGrid(note.beats);
    return {
      ...at(places, index),
      ...{ beat: note.beat, beats: Math.max(SHORTEST, Math.min(beats, next - note.beat)) },
      techniques: techniquesOf(note, written[index - 1]),
    };
  });
  return refinger({ neck, notes, semitones: 0, zone, keep: 'pitch' }).notes.map(
    ({ beat, beats, string, fret, techniques }) => ({ beat, beats, string, fret, techniques }),
  );
}
