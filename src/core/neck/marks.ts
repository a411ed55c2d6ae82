/** What stands where on the neck for the chord sounding now and the chord coming next. */
import type { Chord } from '../chords/chords';
import { readOver, spellingsOver, type Weight, weightOver } from '../chords/over';
import { cross } from '../crossings/crossing';
import { type Interval, type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { Placed } from './fingering';
import { reachOf, underHand } from './hand';
import { inZone, type Neck, pitchAt, type Place, placesOf, uniquePlaces, type Zone } from './neck';

/** A chord and the notes chosen over it. */
export interface Sounding {
  readonly chord: Chord;
  readonly notes: readonly Note[];
}

/** What a note is over one chord. A guide tone is a chord tone that names the chord. */
export interface Tone {
  readonly degree: Interval;
  readonly weight: Weight;
}

type Motion =
  | { readonly kind: 'holds' | 'leaves' | 'arrives' }
  | { readonly kind: 'moves'; readonly to: Note; readonly halfSteps: number }
  | { readonly kind: 'reached'; readonly from: Note; readonly halfSteps: number };

/** A marked place: what it is over now and over next (null where it is not chosen there). */
export interface Mark extends Place {
  readonly note: Note;
  readonly midi: Midi;
  readonly now: Tone | null;
  readonly next: Tone | null;
  /** What the change does to the note; null when nothing comes next. */
  readonly motion: Motion | null;
}

interface NoteReading {
  readonly note: Note;
  readonly now: Tone | null;
  readonly next: Tone | null;
  readonly motion: Motion | null;
}

interface ReadTone {
  readonly note: Note;
  readonly tone: Tone;
}

/** The notes chosen over a chord by pitch class, each with what it is there. */
function readByClass({ chord, notes }: Sounding): ReadonlyMap<number, ReadTone> {
  const spelled = spellingsOver({ ...chord, bass: null }, notes);
  return new Map(
    readOver(chord, notes).map(({ note, degree }) => [
      pitchClass(note),
      {
        note: spelled.get(pitchClass(note)) ?? note,
        tone: { degree, weight: weightOver(chord, degree) },
      },
    ]),
  );
}

/** Reads every pitch class once; the neck only repeats it. */
function readNotes(now: Sounding, next: Sounding | null): ReadonlyMap<number, NoteReading> {
  const readings = new Map<number, NoteReading>();
  const coming = next?.notes ?? [];
  const nowByClass = readByClass(now);
  const nextByClass = next === null ? new Map<number, ReadTone>() : readByClass(next);
  const { moves } = cross(now.notes, coming);
  const motionOf = (pitch: number): Motion | null => {
    if (!next) return null;
    const here = nowByClass.has(pitch);
    if (here && nextByClass.has(pitch)) return { kind: 'holds' };
    const move = moves.find(({ from, to }) => pitchClass(here ? from : to) === pitch);
    if (!move) return { kind: here ? 'leaves' : 'arrives' };
    const { from, to, halfSteps: size } = move;
    return here
      ? { kind: 'moves', to, halfSteps: size }
      : { kind: 'reached', from, halfSteps: size };
  };
  for (const pitch of new Set([...nowByClass.keys(), ...nextByClass.keys()])) {
    const here = nowByClass.get(pitch);
    const there = nextByClass.get(pitch);
    const note = here?.note ?? there?.note;
    if (note === undefined) continue;
    const motion = motionOf(pitch);
    readings.set(pitch, { note, now: here?.tone ?? null, next: there?.tone ?? null, motion });
  }
  return readings;
}

/** The places beyond the zone where a hand would else lack a note of either chord, each once. */
function stretchesBeyond(
  neck: Neck,
  zone: Zone,
  now: Sounding,
  next: Sounding | null,
): readonly Placed[] {
  const reach = reachOf(neck, zone);
  if (reach.low >= zone.low && reach.high <= zone.high) return [];
  return uniquePlaces(
    [now.notes, next?.notes ?? []]
      .flatMap((chosen) => underHand(neck, chosen, zone))
      .filter(({ fret }) => !inZone(zone, fret)),
  );
}

/**
 * Marks every place of the zone whose note is chosen now or next, and those one fret beyond it
 * where a hand would else lack a note; lowest string first.
 */
export function markNeck(
  neck: Neck,
  zone: Zone,
  now: Sounding,
  next: Sounding | null,
): readonly Mark[] {
  const readings = readNotes(now, next);
  const notes = [...readings.values()].map(({ note }) => note);
  const inOrder = [...placesOf(neck, notes, zone), ...stretchesBeyond(neck, zone, now, next)].sort(
    (a, b) => b.string - a.string || a.fret - b.fret,
  );
  return inOrder.flatMap(({ string, fret, note }) => {
    const reading = readings.get(pitchClass(note));
    return reading ? [{ string, fret, midi: pitchAt(neck, { string, fret }), ...reading }] : [];
  });
}
