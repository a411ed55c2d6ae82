/** A take as played notes: what was heard, on the beat it was meant for and under the hand. */
import { at, range } from '../lists';
import { placePitches, refinger } from '../licks/refinger';
import type { LickNote } from '../licks/sounding';
import type { Neck, Zone } from '../neck/neck';
import { openPitch, stringCount } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import { bendBy, type Technique } from '../phrases/techniques';
import { BEAT, type Beats } from '../time/units';
import type { HeardNote } from './notes';

/** A note as it was heard: it need not begin on a tick. */
export interface TakenNote extends Pick<HeardNote, 'midi' | 'bent' | 'from'> {
  readonly beat: Beats;
  readonly beats: Beats;
}

/** Parts of a beat that notes are written on: sixteenths, or triplets where those lie nearer. */
const GRIDS: readonly number[] = [4, 3];
const SHORTEST: Beats = BEAT / 4;
/** A gap shorter than this is held through, as a player would write it. */
const GAP: Beats = (3 * BEAT) / 10;

/** A swung note is played up to so many parts of a beat from where it is written. */
const BESIDE = range(-2, 3);

/** A triplet is clearly nearer where it is by so much. */
const CLEARLY: Beats = (3 * BEAT) / 100;

/** Where a heard beat is written, by where what is written there is played. */
function writtenAt(beat: Beats, played: (written: Beats) => Beats): Beats {
  const away = (written: Beats) => Math.abs(played(written) - beat);
  const nearest = (list: readonly Beats[]) =>
    list.reduce((best, one) => (away(one) < away(best) ? one : best));
  const [first = beat, ...rest] = GRIDS.map((parts) =>
    nearest(BESIDE.map((by) => (Math.round((beat * parts) / BEAT) + by) * (BEAT / parts))),
  );
  // Sixteenths are meant unless a triplet is clearly nearer.
  return rest.reduce((best, one) => (away(one) < away(best) - CLEARLY ? one : best), first);
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

/**
 * The notes of a take on the neck, in the zone where it reaches; what the neck has not is left out.
 * `played` says where a written beat is played, so that what was swung is written even.
 */
export function takeOf(
  neck: Neck,
  zone: Zone | null,
  heard: readonly TakenNote[],
  played: (written: Beats) => Beats = (written) => written,
): readonly LickNote[] {
  const [lowest, highest]: [Midi, Midi] = [
    openPitch(neck, stringCount(neck)) + neck.capo,
    openPitch(neck, 1) + neck.frets,
  ];
  const inRange = heard
    .filter(({ midi }) => midi >= lowest && midi <= highest)
    .toSorted((a, b) => a.beat - b.beat);
  const written = inRange
    .map((note) => ({
      ...note,
      beat: writtenAt(note.beat, played),
      end: writtenAt(note.beat + note.beats, played),
    }))
    // Two that fall on one moment were one, or a slip: the later stands.
    .filter((note, index, all) => all[index + 1]?.beat !== note.beat);
  const places = placePitches(
    neck,
    written.map(({ midi }) => midi),
  );
  if (!places) return [];
  const notes = written.map((note, index): LickNote => {
    const next = written[index + 1]?.beat ?? Infinity;
    const beats = (next - note.end < GAP ? next : note.end) - note.beat;
    return {
      ...at(places, index),
      beat: note.beat,
      beats: Math.max(SHORTEST, Math.min(beats, next - note.beat)),
      techniques: techniquesOf(note, written[index - 1]),
    };
  });
  return refinger({ neck, notes, semitones: 0, zone, keep: 'pitch' }).notes.map(
    ({ beat, beats, string, fret, techniques }) => ({ beat, beats, string, fret, techniques }),
  );
}
