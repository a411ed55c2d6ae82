/** Every shape of a chord on a neck, as a page of small pictures shows them. */
import {
  type Chord,
  chordName,
  chordNotes,
  degreeName,
  intervalBetween,
  type Neck,
  type Zone,
} from 'corvel-core';
import { type Collection, collectionName, collectionNotes } from '$core/collections/collections';
import { matchingPentatonic } from '$core/collections/pentatonics';
import { boxesOf } from '$core/neck/boxes';
import { needsStretch, type Placed, spanOf } from '$core/neck/fingering';
import { underHand } from '$core/neck/hand';
import { doubleStops, type Home, homesOf } from '$core/neck/homes';
import { inversionsOn, oneOctave, positionsOf, threePerString } from '$core/neck/positions';
import {
  INVERSION_NAMES,
  isVoiced,
  openName,
  twinOf,
  VOICING_KINDS,
  type Voicing,
  voicingsOf,
} from '$core/neck/voicings';
import type { BoxNaming } from '$lib/settings/settings';
import { showBox } from '$lib/settings/boxes';

/** One picture: places, what they are called, and the zone a hand takes for them. */
export interface Shape {
  readonly name: string;
  readonly places: readonly Placed[];
  readonly zone: Zone;
  readonly joined: boolean;
  readonly stretch: boolean;
  /** Blue notes under the same hand. */
  readonly blue: readonly Placed[];
  /** What lies under the same hand besides. */
  readonly ground: readonly Placed[];
}

interface ShapeGroup {
  readonly title: string;
  readonly shapes: readonly Shape[];
}

const shape = (name: string, places: readonly Placed[], joined = false): Shape => ({
  name,
  places,
  zone: spanOf(places),
  joined,
  stretch: needsStretch(places),
  blue: [],
  ground: [],
});

/** The first of each, since shapes come again twelve frets up. */
function once<T>(list: readonly T[], key: (item: T) => string | number): readonly T[] {
  const seen = new Map<string | number, T>();
  for (const item of list) if (!seen.has(key(item))) seen.set(key(item), item);
  return [...seen.values()];
}

const VOICING_TITLES = {
  triad: 'Triads',
  'drop-2': 'Seventh chords, drop 2',
  'drop-3': 'Seventh chords, drop 3',
} as const;

/** "open Am7, first inversion, strings 2 3 4 5", and what else the same four notes are called. */
function voicingName(neck: Neck, chord: Chord, voicing: Voicing): string {
  const strings = voicing.places.map(({ string }) => string).reverse();
  const twin = voicing.kind === 'triad' ? null : twinOf(chord, voicing);
  const also = twin ? `; ${chordName(twin.chord)} in ${INVERSION_NAMES[twin.inversion]}` : '';
  const open = openName(neck, chord, voicing);
  const inversion = `${INVERSION_NAMES[voicing.inversion]}, strings ${strings.join(' ')}`;
  return `${open === null ? '' : `${open}, `}${inversion}${also}`;
}

/** The arpeggio and the scale under the hand that holds a voicing. */
function groundOf(
  neck: Neck,
  chord: Chord,
  mode: Collection,
  { places }: Voicing,
): readonly Placed[] {
  const zone = spanOf(places);
  const tones = underHand(neck, chordNotes({ ...chord, bass: null }), zone, { shape: places });
  return underHand(neck, collectionNotes(mode), zone, { shape: tones });
}

const homeName = (neck: Neck, chord: Chord, string: number, grip: Home['grip']): string => {
  const open = openName(neck, chord, grip);
  return `${open === null ? '' : `${open}, `}root on string ${string}, ${grip.kind}`;
};

const ROOT_STRINGS = [6, 5, 4] as const;

export function shapesOf(
  neck: Neck,
  chord: Chord,
  mode: Collection,
  naming: BoxNaming,
  zone: Zone,
): readonly ShapeGroup[] {
  const pentatonic = matchingPentatonic(chord);
  const notes = chordNotes(chord);
  const rootStrings = ROOT_STRINGS.filter((string) => string <= neck.tuning.length);
  const bassDegree = (places: readonly Placed[]) => {
    const [lowest] = places;
    return lowest ? degreeName(intervalBetween(chord.root, lowest.note)) : '';
  };
  const groups: ShapeGroup[] = [
    {
      title: `${collectionName(pentatonic)}, its boxes`,
      shapes: once(boxesOf(neck, pentatonic), ({ index }) => index).map(
        ({ name, places, blue }) => ({
          ...shape(showBox(name, naming), places),
          blue,
        }),
      ),
    },
    {
      title: `${collectionName(mode)}, its positions`,
      shapes: once(positionsOf(neck, mode), ({ box }) => box.index).map(({ box, places }) =>
        shape(showBox(box.name, naming), places),
      ),
    },
    {
      title: `${collectionName(mode)}, three notes to a string`,
      shapes: threePerString(neck, mode).map(({ places }) =>
        shape(`from ${bassDegree(places)}`, places),
      ),
    },
    {
      title: `${collectionName(mode)}, one octave`,
      shapes: rootStrings.flatMap((string) =>
        oneOctave(neck, mode, string)
          .slice(0, 1)
          .map(({ places }) => shape(`root on string ${string}`, places)),
      ),
    },
    ...[1, 2].map((octaves) => ({
      title: octaves === 1 ? 'Arpeggio, one octave' : 'Arpeggio, two octaves',
      shapes: inversionsOn(neck, notes, neck.tuning.length, octaves).map(({ places }) =>
        shape(`from ${bassDegree(places)}`, places),
      ),
    })),
    {
      title: 'Homes',
      shapes: homesOf(neck, chord, mode).map(({ string, grip, arpeggio, scale }) => ({
        ...shape(homeName(neck, chord, string, grip), grip.places, true),
        zone: spanOf([...arpeggio, ...scale]),
        ground: [...arpeggio, ...scale],
      })),
    },
    ...VOICING_KINDS.filter((kind) => isVoiced(chord, kind)).map((kind) => ({
      title: VOICING_TITLES[kind],
      shapes: once(voicingsOf(neck, chord, kind), ({ inversion, places }) =>
        [inversion, ...places.map(({ string }) => string)].join(' '),
      ).map((voicing) => ({
        ...shape(voicingName(neck, chord, voicing), voicing.places, true),
        ground: groundOf(neck, chord, mode, voicing),
      })),
    })),
    {
      title: `Two notes at once, frets ${zone.low} to ${zone.high}`,
      shapes: doubleStops(neck, chord, zone).map(({ interval, low, high }) =>
        shape(interval, [low, high], true),
      ),
    },
  ];
  return groups.filter(({ shapes }) => shapes.length > 0);
}
