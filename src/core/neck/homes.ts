/** Homes: a grip, an arpeggio and a collection round one root. */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { quality } from '../chords/symbols';
import { type Collection, collectionNotes } from '../collections/collections';
import type { Interval, Note } from '../notes/notes';
import { type Placed, spanOf } from './fingering';
import { underHand } from './hand';
import { type Neck, pitchAt, placesOf, type Zone } from './neck';
import { stringSets, type Voicing, type VoicingKind, voicingsOn } from './voicings';

type DropKind = Exclude<VoicingKind, 'triad'>;

/** A grip with the notes round it: where a hand is at home over a chord. */
export interface Home {
  /** The string of the root. */
  readonly string: number;
  readonly grip: Voicing & { readonly kind: DropKind };
  readonly zone: Zone;
  /** From the root on the home's own string up. */
  readonly arpeggio: readonly Placed[];
  readonly scale: readonly Placed[];
  /** What of both lies under the same hand below that root. */
  readonly below: { readonly arpeggio: readonly Placed[]; readonly scale: readonly Placed[] };
}

/** Five frets that hold a grip, with the index finger free to reach back where they can. */
function handAround(neck: Neck, places: readonly Placed[]): Zone {
  const { low, high } = spanOf(places);
  const back = Math.max(neck.capo, low - 1);
  const from = high <= back + 4 ? back : low;
  return { low: from, high: Math.min(neck.frets, from + 4) };
}

/** Root strings of the homes, counted from the highest, with the grips held there. */
const HOMES: readonly (readonly [string: number, kind: DropKind])[] = [
  [6, 'drop-3'],
  [6, 'drop-2'],
  [5, 'drop-2'],
  [4, 'drop-2'],
];

/** The lowest root-position voicing of a kind with its bass on a string. */
function gripOn(neck: Neck, chord: Chord, kind: DropKind, bass: number): Home['grip'] | null {
  const set = stringSets(neck, kind).find((strings) => strings.at(-1) === bass);
  const shapes = set ? voicingsOn(neck, chord, kind, set) : [];
  const lowest = shapes.find(({ inversion }) => inversion === 'root');
  return lowest ? { ...lowest, kind } : null;
}

/** The homes of a chord with a collection, on the strings the neck has. */
export function homesOf(neck: Neck, chord: Chord, scale: Collection): readonly Home[] {
  return HOMES.flatMap(([string, kind]): readonly Home[] => {
    const grip = gripOn(neck, chord, kind, string);
    const root = grip?.places[0];
    if (!root) return [];
    const zone = handAround(neck, grip.places);
    const tones = underHand(neck, chordNotes({ ...chord, bass: null }), zone, {
      shape: grip.places,
    });
    const notes = underHand(neck, collectionNotes(scale), zone, { shape: tones });
    const climbs = (place: Placed) => pitchAt(neck, place) >= pitchAt(neck, root);
    return [
      {
        string,
        grip,
        zone,
        arpeggio: tones.filter(climbs),
        scale: notes.filter(climbs),
        below: {
          arpeggio: tones.filter((place) => !climbs(place)),
          scale: notes.filter((place) => !climbs(place)),
        },
      },
    ];
  });
}

/** Qualities that differ from the one before by one note a half step down. */
const MORPHS = ['maj7', '7', 'm7', 'm7b5', 'dim7'] as const;

/** A chord of a morph and the degree that has just moved; null for the first. */
interface Morph {
  readonly chord: Chord;
  readonly moved: Interval | null;
}

/** Qualities over one root, each with the tone by which it differs from the one before. */
export function morphsOn(root: Note): readonly Morph[] {
  return MORPHS.map((name, index) => {
    const bare = { symbol: '', root, quality: quality(name), bass: null };
    const before = MORPHS[index - 1];
    const old = before === undefined ? null : quality(before).degrees;
    const moved =
      old === null ? null : (bare.quality.degrees.find((tone) => !old.includes(tone)) ?? null);
    return { chord: { ...bare, symbol: chordName(bare) }, moved };
  });
}

/** Two notes of a chord to be played together. */
interface DoubleStop {
  readonly interval: 'third' | 'sixth';
  readonly low: Placed;
  readonly high: Placed;
}

const STOPS: readonly (readonly [DoubleStop['interval'], number, readonly number[]])[] = [
  ['third', 1, [3, 4]],
  ['sixth', 2, [8, 9]],
];

/** Thirds on neighbouring strings and sixths over one string between, from the chord in a zone. */
export function doubleStops(neck: Neck, chord: Chord, zone: Zone): readonly DoubleStop[] {
  const places = placesOf(neck, chordNotes(chord), zone);
  return STOPS.flatMap(([interval, apart, sizes]) =>
    places.flatMap((low) =>
      places
        .filter(
          (high) =>
            low.string - high.string === apart &&
            sizes.includes(pitchAt(neck, high) - pitchAt(neck, low)),
        )
        .map((high) => ({ interval, low, high })),
    ),
  );
}
