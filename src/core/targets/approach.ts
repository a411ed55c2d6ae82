/** Approach notes: what leads into a target on the off-beats before it, and ways in from any note. */
import { type Chord, chordNotes } from '../chords/chords';
import { degreeOver, spellingsOver, spellOver } from '../chords/over';
import { reachOf } from '../neck/hand';
import {
  inZone,
  type Neck,
  pitchAt,
  type Place,
  placesOfPitch,
  placesOf,
  type Zone,
} from '../neck/neck';
import { degree } from '../notes/degrees';
import {
  type Interval,
  invertInterval,
  type Note,
  pitchClass,
  simpleRoot,
  transpose,
} from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { movementCost } from './costs';
import { ROUTE_WEIGHTS } from './weights';

/** How a target is come to. */
export type Approach = 'below' | 'above' | 'enclosure' | 'double-chromatic';

/** A note on the way to a target. */
export interface ApproachNote extends Place {
  readonly note: Note;
  readonly midi: Midi;
}

/** What a target is approached in. */
export interface ApproachSetting {
  readonly chord: Chord;
  /** What is played over it. */
  readonly scale: readonly Note[];
  /** The scale of the key, which fills in where what is played leaves a gap. */
  readonly home?: readonly Note[];
  /** The region the hand stays in; null where it is free. */
  readonly zone?: Zone | null;
}

/** The next scale note above a pitch: a half or a whole step, over a pentatonic too. */
function scaleStepAbove({ chord, scale, home = [] }: ApproachSetting, midi: Midi): Midi {
  for (const notes of [scale, chordNotes(chord), home]) {
    const pitches = new Set(notes.map(pitchClass));
    for (const up of [1, 2]) if (pitches.has((midi + up) % 12)) return midi + up;
  }
  return midi + 2;
}

/** A minor second on the line of fifths. */
const MINOR_SECOND = degree('b2');

/** A half step below a target is spelled by the letter below: B before C, C sharp before D. */
const leadingNote = (target: Note): Note =>
  simpleRoot(transpose(target, invertInterval(MINOR_SECOND)));

/** What a fret outside the hand's reach weighs against frets and strings, so that it comes last. */
const OUT_OF_REACH = 100;

/** Where a pitch lies nearest to a place: in the zone's reach, on its own string, else a neighbour. */
function nearestPlace(neck: Neck, to: Place, midi: Midi, zone: Zone | null = null): Place | null {
  const reach = zone && reachOf(neck, zone);
  const cost = ({ string, fret }: Place) =>
    Math.abs(fret - to.fret) +
    2 * Math.abs(string - to.string) +
    (zone && !inZone(zone, fret) ? 1 : 0) +
    (reach && !inZone(reach, fret) ? OUT_OF_REACH : 0);
  return placesOfPitch(neck, midi).reduce<Place | null>(
    (best, place) => (best === null || cost(place) < cost(best) ? place : best),
    null,
  );
}

interface ApproachTarget extends Place {
  readonly note: Note;
}

/** The notes of an approach in playing order; shorter where the neck has no place for one. */
export function approachNotes(
  neck: Neck,
  target: ApproachTarget,
  setting: ApproachSetting,
  approach: Approach,
): readonly ApproachNote[] {
  const midi = pitchAt(neck, target);
  const { chord, scale, zone = null } = setting;
  const above = scaleStepAbove(setting, midi);
  const spelled = spellingsOver({ ...chord, bass: null }, scale);
  const pitches: Readonly<Record<Approach, readonly Midi[]>> = {
    below: [midi - 1],
    above: [above],
    enclosure: [above, midi - 1],
    'double-chromatic': [midi - 2, midi - 1],
  };
  return pitches[approach].flatMap((pitch) => {
    const place = nearestPlace(neck, target, pitch, zone);
    const leading = pitch === midi - 1 ? leadingNote(target.note) : null;
    const note = spelled.get(pitch % 12) ?? leading ?? spellOver(chord, pitch);
    return place ? [{ ...place, note, midi: pitch }] : [];
  });
}

/** A way from a sounding note into a chord. */
interface WayIn extends Place {
  readonly note: Note;
  readonly midi: Midi;
  readonly degree: Interval;
  /** Signed distance from the note left. */
  readonly halfSteps: number;
  /** What leads there where it lies further than a step away. */
  readonly approach: readonly ApproachNote[];
}

const REACH = { frets: 2, strings: 2 } as const;
const STEP = 2;
const SPEAKING = 6;

/** The ways into a chord within two frets of a place, best first: half steps into what names it. */
export function waysInto(neck: Neck, from: Place, chord: Chord): readonly WayIn[] {
  const start = pitchAt(neck, from);
  const notes = chordNotes(chord);
  const { guideTones } = chord.quality;
  const zone = {
    low: Math.max(neck.capo, from.fret - REACH.frets),
    high: Math.min(neck.frets, from.fret + REACH.frets),
  };
  const places = placesOf(neck, notes, zone).filter(
    ({ string }) => Math.abs(string - from.string) <= REACH.strings,
  );
  return places
    .map((place): WayIn & { readonly cost: number } => {
      const interval = degreeOver(chord, place.note);
      const midi = pitchAt(neck, place);
      const halfSteps = midi - start;
      const skipped = Math.max(0, Math.abs(place.string - from.string) - 1);
      return {
        ...place,
        midi,
        degree: interval,
        halfSteps,
        approach:
          Math.abs(halfSteps) > STEP
            ? approachNotes(neck, place, { chord, scale: notes }, 'below')
            : [],
        cost:
          movementCost(halfSteps) +
          (guideTones.includes(interval) ? 0 : SPEAKING) +
          ROUTE_WEIGHTS.skip * skipped +
          Math.abs(place.fret - from.fret),
      };
    })
    .sort((a, b) => a.cost - b.cost || a.midi - b.midi || a.string - b.string)
    .map((found): WayIn => {
      const { string, fret, note, midi, degree, halfSteps, approach } = found;
      return { string, fret, note, midi, degree, halfSteps, approach };
    });
}
