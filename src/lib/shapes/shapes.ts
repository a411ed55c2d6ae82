/** Every shape of a chord on a neck, as a page of small pictures shows them. */
import { type Chord, chordNotes } from '$core/chords/chords';
import { type Collection, collectionName } from '$core/collections/collections';
import { matchingPentatonic } from '$core/collections/pentatonics';
import { boxesOf } from '$core/neck/boxes';
import { needsStretch, type Placed, spanOf } from '$core/neck/fingering';
import { doubleStops, gripsOf, homesOf } from '$core/neck/homes';
import type { Neck, Zone } from '$core/neck/neck';
import { inversionsOn, oneOctave, positionsOf, threePerString } from '$core/neck/positions';
import { INVERSION_NAMES, stringSets, triadShapes } from '$core/neck/triads';
import { degreeName } from '$core/notes/degrees';
import { intervalBetween } from '$core/notes/notes';
import type { BoxNaming } from '$lib/settings/settings';
import { showBox } from '$lib/ui/boxes';

/** One picture: places, what they are called, and the zone a hand takes for them. */
export interface Shape {
  readonly name: string;
  readonly places: readonly Placed[];
  readonly zone: Zone;
  readonly joined: boolean;
  readonly stretch: boolean;
  /** Blue notes under the same hand. */
  readonly blue: readonly Placed[];
}

export interface ShapeGroup {
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
});

/** The first of each, since shapes come again twelve frets up. */
function once<T>(list: readonly T[], key: (item: T) => string | number): readonly T[] {
  const seen = new Map<string | number, T>();
  for (const item of list) if (!seen.has(key(item))) seen.set(key(item), item);
  return [...seen.values()];
}

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
      shapes: homesOf(neck, chord, mode).map(({ string, grip, arpeggio }) => ({
        ...shape(`root on string ${string}, ${grip.kind}`, grip.places, true),
        zone: spanOf([...grip.places, ...arpeggio]),
      })),
    },
    ...(['drop-2', 'drop-3'] as const).map((kind) => ({
      title: `Grips, ${kind}`,
      shapes: gripsOf(neck, chord, kind).map(({ places }) =>
        shape(`${bassDegree(places)} in the bass, string ${places[0]?.string ?? ''}`, places, true),
      ),
    })),
    {
      title: 'Triads',
      shapes: stringSets(neck).flatMap((set) =>
        once(triadShapes(neck, chord, set), ({ inversion }) => inversion).map(
          ({ inversion, places }) =>
            shape(`${INVERSION_NAMES[inversion]}, strings ${set.join(' ')}`, places, true),
        ),
      ),
    },
    {
      title: `Two notes at once, frets ${zone.low} to ${zone.high}`,
      shapes: doubleStops(neck, chord, zone).map(({ interval, low, high }) =>
        shape(interval, [low, high], true),
      ),
    },
  ];
  return groups.filter(({ shapes }) => shapes.length > 0);
}
