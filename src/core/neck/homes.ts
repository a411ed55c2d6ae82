/**
 * Homes: a grip, an arpeggio and a collection round one root. The grips are close voicings with a
 * voice dropped an octave: the second from the top (drop 2) or the third (drop 3).
 */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { quality } from '../chords/symbols';
import { type Collection, collectionNotes } from '../collections/collections';
import { at, range } from '../lists';
import { degree } from '../notes/degrees';
import { halfSteps, type Interval, type Note, step, transpose } from '../notes/notes';
import { arpeggioIn } from './positions';
import { fretOf, type Placed, spanOf } from './fingering';
import { fretFor, type Neck, openPitch, placesOf, stringCount, type Zone } from './neck';

export type GripKind = 'drop-2' | 'drop-3';

export interface Grip {
  readonly kind: GripKind;
  /** 0 with the root in the bass, then the inversions by bass: third, fifth, seventh. */
  readonly inversion: number;
  readonly places: readonly Placed[];
}

export interface Home {
  /** The string of the root. */
  readonly string: number;
  readonly grip: Grip;
  readonly zone: Zone;
  readonly arpeggio: readonly Placed[];
  readonly scale: readonly Placed[];
}

/** The four voices of a chord: root, third, fifth and seventh, or what stands in their places. */
export function fourVoices({ root, quality: found }: Chord): readonly Note[] {
  const byStep = (...steps: number[]): Interval | undefined =>
    steps.flatMap((wanted) => found.core.find((tone) => step(tone) === wanted) ?? [])[0];
  const third = byStep(2, 3, 1) ?? degree('5');
  const fifth = byStep(4) ?? degree(found.altered ? 'b6' : '5');
  const seventh = byStep(6, 5) ?? degree('1');
  return [degree('1'), third, fifth, seventh].map((tone) => transpose(root, tone));
}

/** Order of the voices from the bass up, as steps in the close chord above the bass voice. */
const ORDERS: Readonly<Record<GripKind, readonly number[]>> = {
  'drop-2': [0, 2, 3, 1],
  'drop-3': [0, 3, 1, 2],
};

/** Strings of a grip whose bass is on `bass`: a drop 3 leaves out the string above the bass. */
function gripStrings(kind: GripKind, bass: number): readonly number[] {
  return kind === 'drop-2'
    ? [bass, bass - 1, bass - 2, bass - 3]
    : [bass, bass - 2, bass - 3, bass - 4];
}

const MOST_SPAN = 5;

/** A grip with a voice in the bass on a string, at the lowest fret where it can be held. */
export function gripOn(
  neck: Neck,
  chord: Chord,
  kind: GripKind,
  bass: number,
  inversion = 0,
): Grip | null {
  const strings = gripStrings(kind, bass);
  if (bass > stringCount(neck) || (strings.at(-1) ?? 0) < 1) return null;
  const voices = fourVoices(chord);
  const order = ORDERS[kind].map((voice) => at(voices, (voice + inversion) % 4));
  const first = fretOf(neck, bass, at(order, 0), neck.capo);
  for (const octave of [0, 12]) {
    let midi = openPitch(neck, bass) + first + octave;
    const places: Placed[] = [];
    for (const [index, note] of order.entries()) {
      if (index > 0) {
        const up = halfSteps((note - at(order, index - 1)) as Interval);
        midi += up === 0 ? 12 : up;
      }
      const string = at(strings, index);
      const fret = fretFor(neck, string, midi);
      if (fret !== null) places.push({ string, fret, note });
    }
    if (places.length < order.length) continue;
    const { low, high } = spanOf(places);
    if (high - low < MOST_SPAN) return { kind, inversion, places };
  }
  return null;
}

/** Every inversion of a grip on every set of strings it fits. */
export const gripsOf = (neck: Neck, chord: Chord, kind: GripKind): readonly Grip[] =>
  [...range(4, stringCount(neck) + 1)]
    .reverse()
    .flatMap((bass) => range(0, 4).flatMap((turn) => gripOn(neck, chord, kind, bass, turn) ?? []));

/** Five frets that hold a grip, with the index finger free to reach back where they can. */
function handAround(neck: Neck, places: readonly Placed[]): Zone {
  const { low, high } = spanOf(places);
  const back = Math.max(neck.capo, low - 1);
  const from = high <= back + 4 ? back : low;
  return { low: from, high: Math.min(neck.frets, from + 4) };
}

/** Root strings of the homes, counted from the highest, with the grips held there. */
const HOMES: readonly (readonly [string: number, kind: GripKind])[] = [
  [6, 'drop-3'],
  [6, 'drop-2'],
  [5, 'drop-2'],
  [4, 'drop-2'],
];

/** The homes of a chord with a collection, on the strings the neck has. */
export function homesOf(neck: Neck, chord: Chord, scale: Collection): readonly Home[] {
  return HOMES.flatMap(([string, kind]): readonly Home[] => {
    const grip = gripOn(neck, chord, kind, string);
    if (!grip) return [];
    const zone = handAround(neck, grip.places);
    return [
      {
        string,
        grip,
        zone,
        arpeggio: arpeggioIn(neck, chordNotes(chord), zone),
        scale: arpeggioIn(neck, collectionNotes(scale), zone),
      },
    ];
  });
}

/** Qualities that differ from the one before by one note a half step down. */
export const MORPHS = ['maj7', '7', 'm7', 'm7b5', 'dim7'] as const;

/** A chord of a morph and the degree that has just moved; null for the first. */
export interface Morph {
  readonly chord: Chord;
  readonly moved: Interval | null;
}

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
export interface DoubleStop {
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
  const pitch = ({ string, fret }: Placed) => openPitch(neck, string) + fret;
  return STOPS.flatMap(([interval, apart, sizes]) =>
    places.flatMap((low) =>
      places
        .filter(
          (high) => low.string - high.string === apart && sizes.includes(pitch(high) - pitch(low)),
        )
        .map((high) => ({ interval, low, high })),
    ),
  );
}
