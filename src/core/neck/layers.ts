/** Shapes that lie over one another on the neck: what a player asks to see besides the notes. */
import { type Chord, chordNotes } from '../chords/chords';
import { type Collection, collectionName } from '../collections/collections';
import { matchingPentatonic } from '../collections/pentatonics';
import { pitchClass } from '../notes/notes';
import { type BoxName, nearestTo } from './boxes';
import { type Placed, spanOf } from './fingering';
import { underHand } from './hand';
import { homesOf } from './homes';
import type { Mark } from './marks';
import { type Neck, pitchAt, placeId, uniquePlaces, type Zone } from './neck';
import { INVERSION_NAMES, type Voicing, voicingsOf } from './voicings';
import { pentatonicIn, scaleIn } from './zones';

/** What can be laid on the neck over the marks. */
export const LAYER_KINDS = ['box', 'scale', 'arpeggio', 'triad', 'grip', 'home'] as const;
export type LayerKind = (typeof LAYER_KINDS)[number];

/** One of these, with its places. */
export interface Layer {
  readonly kind: LayerKind;
  readonly name: string;
  readonly places: readonly Placed[];
  /** Places joined by a line: the voices of a triad or a grip, from the lowest up. */
  readonly joined: readonly Placed[];
  /** The box, where the layer is one or is built round one. */
  readonly box: BoxName | null;
}

interface LayerRequest {
  readonly neck: Neck;
  readonly zone: Zone;
  readonly chord: Chord;
  /** The mode to play over the chord. */
  readonly mode: Collection;
  /** The only strings a triad may lie on; every set when null. */
  readonly strings: readonly number[] | null;
}

const layer = (kind: LayerKind, name: string, rest: Partial<Layer>): Layer => ({
  kind,
  name,
  places: [],
  joined: [],
  box: null,
  ...rest,
});

const voiced = (kind: LayerKind, name: string, places: readonly Placed[]): Layer =>
  layer(kind, name, { places, joined: places });

const nearestVoicing = (zone: Zone, voicings: readonly Voicing[]): Voicing | null =>
  nearestTo(
    zone,
    voicings.map((voicing) => ({ ...voicing, ...spanOf(voicing.places) })),
  );

type Maker = (request: LayerRequest) => Layer | null;

const MAKERS: Readonly<Record<LayerKind, Maker>> = {
  box: ({ neck, zone, chord }) => {
    const pentatonic = matchingPentatonic(chord);
    const shape = pentatonicIn(neck, pentatonic, zone);
    return (
      shape &&
      layer('box', collectionName(pentatonic), {
        places: [...shape.places, ...shape.blue],
        box: shape.box,
      })
    );
  },
  scale: ({ neck, zone, mode }) => {
    const shape = scaleIn(neck, mode, zone);
    return shape && layer('scale', collectionName(mode), { places: shape.places, box: shape.box });
  },
  arpeggio: ({ neck, zone, chord }) =>
    layer('arpeggio', 'arpeggio', { places: underHand(neck, chordNotes(chord), zone) }),
  triad: ({ neck, zone, chord, strings }) => {
    const triads = voicingsOf(neck, chord, 'triad').filter(
      ({ places }) => strings === null || places.every(({ string }) => strings.includes(string)),
    );
    const best = nearestVoicing(zone, triads);
    return best && voiced('triad', `triad, ${INVERSION_NAMES[best.inversion]}`, best.places);
  },
  grip: ({ neck, zone, chord }) => {
    const grips = [...voicingsOf(neck, chord, 'drop-2'), ...voicingsOf(neck, chord, 'drop-3')];
    const best = nearestVoicing(zone, grips);
    return best && voiced('grip', `${best.kind}, ${INVERSION_NAMES[best.inversion]}`, best.places);
  },
  home: ({ neck, zone, chord, mode }) => {
    const homes = homesOf(neck, chord, mode).map((home) => ({ ...home, ...home.zone }));
    const best = nearestTo(zone, homes);
    if (!best) return null;
    const { grip, arpeggio, scale, below } = best;
    const places = [...grip.places, ...arpeggio, ...scale, ...below.arpeggio, ...below.scale];
    const name = `home on string ${best.string}`;
    return layer('home', name, { places: uniquePlaces(places), joined: grip.places });
  },
};

/** The layers asked for, in their fixed order; one the neck cannot hold is left out. */
export const layersFor = (kinds: readonly LayerKind[], request: LayerRequest): readonly Layer[] =>
  LAYER_KINDS.filter((kind) => kinds.includes(kind)).flatMap((kind) => MAKERS[kind](request) ?? []);

/** The marks with those of the layers that are neither now nor next: notes to know of. */
export function withGround(
  neck: Neck,
  marks: readonly Mark[],
  layers: readonly Layer[],
): readonly Mark[] {
  const marked = new Set(marks.map(placeId));
  const ground = uniquePlaces(layers.flatMap(({ places }) => places))
    .filter((place) => !marked.has(placeId(place)))
    .map((place): Mark => ({
      ...place,
      midi: pitchAt(neck, place),
      now: null,
      next: null,
      motion: null,
    }));
  return ground.length === 0
    ? marks
    : [...marks, ...ground].sort((a, b) => b.string - a.string || a.fret - b.fret);
}

interface MarkFilter {
  readonly strings: readonly number[] | null;
  /** The root from whose lowest place one octave is kept; null keeps all. */
  readonly octaveFrom: Placed['note'] | null;
}

/** Only the marks on some strings, or in one octave from the lowest root up. */
export function filterMarks(
  marks: readonly Mark[],
  { strings, octaveFrom }: MarkFilter,
): readonly Mark[] {
  const onStrings =
    strings === null ? marks : marks.filter(({ string }) => strings.includes(string));
  if (octaveFrom === null) return onStrings;
  const roots = onStrings.filter(({ note }) => pitchClass(note) === pitchClass(octaveFrom));
  const lowest = Math.min(...roots.map(({ midi }) => midi));
  return Number.isFinite(lowest)
    ? onStrings.filter(({ midi }) => midi >= lowest && midi <= lowest + 12)
    : onStrings;
}
