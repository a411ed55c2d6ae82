/** The notes a line may take at each onset. */
import { rememberBy, rememberOf } from '../cache';
import { type Chord, chordNotes } from '../chords/chords';
import { degreeOver, spellOver, weightOver } from '../chords/over';
import { assess, NOWHERE } from '../lenses/assess';
import type { Material } from '../lenses/material';
import { at, range } from '../lists';
import type { Placed } from '../neck/fingering';
import { underHand } from '../neck/hand';
import { pitchAt, placesOf, type Zone } from '../neck/neck';
import { type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { simplestPitch } from '../notes/spelling';
import type { Onset } from './onsets';
import type { LineRequest } from './request';
import { type ChordSpan, materialAt } from './spans';
import { rowOf } from './styles';

/** A place a line may play, and what it is over the chord. */
export interface Candidate extends Placed {
  readonly midi: Midi;
  readonly tone: boolean;
  readonly guide: boolean;
  readonly root: boolean;
  /** Neither of the chord nor of what is played over it. */
  readonly chromatic: boolean;
  /** The flat third or fifth of a blues. */
  readonly blue: boolean;
  readonly fifth: boolean;
  /** A half step above a chord tone: a passing note. */
  readonly avoid: boolean;
  /** Outside the five notes that a player's hand has for the chord. */
  readonly aside: boolean;
  /** Where it stands among the notes played over its chord, low to high. */
  readonly rung: number;
}

/** Frets about the targets that a line without a zone may use. */
const ROAM = { below: 2, above: 3 } as const;

/** The frets a line may use over a chord. */
export function regionFor({ zone, regions, neck, targets }: LineRequest, span: number): Zone {
  if (regions) return at(regions, span);
  if (zone) return zone;
  const frets = [at(targets, span).fret, (targets[span + 1] ?? at(targets, span)).fret];
  return {
    low: Math.max(neck.capo, Math.min(...frets) - ROAM.below),
    high: Math.min(neck.frets, Math.max(...frets) + ROAM.above),
  };
}

/** The pentatonic a hand has for a chord: minor over a minor third, else major; both over a dominant. */
function fiveOf(chord: Chord): ReadonlySet<number> {
  const tones = chordNotes(chord).map(pitchClass);
  const root = pitchClass(chord.root);
  const has = (size: number) => tones.includes((root + size) % 12);
  const sizes = has(3) && !has(4) ? [0, 3, 5, 7, 10] : [0, 2, 4, 7, 9];
  return new Set([...tones, ...sizes.map((size) => (root + size) % 12)]);
}

/** What a chord's tones are, what clashes with it, and the five notes a hand has for it, by pitch class. */
export interface Reading {
  readonly tones: ReadonlySet<number>;
  readonly clashes: ReadonlySet<number>;
  readonly five: ReadonlySet<number>;
}

/** What the notes of a material are over a chord; kept, as a line asks for it at every step. */
export const readingOf = rememberOf((chord: Chord) =>
  rememberOf((material: Material): Reading => {
    const { clashes } = assess(chord, material, NOWHERE);
    return {
      tones: new Set(chordNotes(chord).map(pitchClass)),
      clashes: new Set(clashes.map(({ note }) => pitchClass(note))),
      five: fiveOf(chord),
    };
  }),
);

/** Whether a pitch is neither of a chord nor of what is played over it as the chord begins. */
export const isForeign = ({ chord, material }: ChordSpan, midi: Midi): boolean =>
  (material.mask & (1 << (midi % 12))) === 0 && !readingOf(chord)(material).tones.has(midi % 12);

/** Half steps above the tonic of the blue notes of a blues. */
const BLUE = { third: 3, fifth: 6 } as const;

const EVERY: readonly Note[] = range(0, 12).map(simplestPitch);

/** What may be played over one chord: its own notes, the blue ones, and all the others under the hand. */
interface Ladder {
  readonly own: readonly Candidate[];
  readonly others: readonly Candidate[];
}

function ladderOf(request: LineRequest, span: number, material: Material): Ladder {
  const { neck, spans, home = null } = request;
  const { chord } = at(spans, span);
  const region = regionFor(request, span);
  const strings = request.regions ? at(request.regions, span).strings : null;
  const under = (notes: readonly Note[]): readonly Placed[] =>
    strings
      ? placesOf(neck, notes, region).filter(({ string }) => strings.includes(string))
      : underHand(neck, notes, region);
  const inside = under(material.notes);
  const places = inside.length > 0 ? inside : placesOf(neck, material.notes);
  const { tones, clashes, five } = readingOf(chord)(material);
  const blues = rowOf(request).blue === null ? null : home;
  const above = (pitch: number) => (blues === null ? -1 : (pitch - pitchClass(blues) + 12) % 12);
  const isBlue = (pitch: number) =>
    !tones.has(pitch) && (above(pitch) === BLUE.third || above(pitch) === BLUE.fifth);
  const candidate = ({ string, fret, note }: Placed, chromatic: boolean): Candidate => {
    const midi = pitchAt(neck, { string, fret });
    const pitch = midi % 12;
    const blue = isBlue(pitch);
    return {
      string,
      fret,
      note,
      midi,
      blue,
      rung: 0,
      fifth: blue && above(pitch) === BLUE.fifth,
      chromatic: chromatic && !blue,
      tone: tones.has(pitch),
      guide: weightOver(chord, degreeOver(chord, note)) === 'guide',
      root: pitch === pitchClass(chord.root),
      avoid: clashes.has(pitch) && !blue,
      aside: !five.has(pitch),
    };
  };
  const pitches = new Set(places.map((place) => pitchAt(neck, place)));
  const filled = under(EVERY)
    .filter((place) => !pitches.has(pitchAt(neck, place)))
    .map((place) => candidate({ ...place, note: spellOver(chord, pitchAt(neck, place)) }, true));
  // Over a blues the chord's own third is there whatever the scale, and so are the blue notes.
  const added = filled.filter(({ blue, tone }) => blue || (blues !== null && tone));
  const own = [
    ...places.map((place) => candidate(place, false)),
    ...added.map((one) => ({ ...one, chromatic: false })),
  ]
    .toSorted((a, b) => a.midi - b.midi)
    .map((one, rung) => ({ ...one, rung }));
  return {
    own,
    others: filled
      .filter((one) => !added.includes(one))
      .map((one) => ({ ...one, rung: rungOf(own, one.midi) })),
  };
}

/** The ladders of a request, each made once, however often a line is tried. */
const laddersOf = rememberOf((request: LineRequest) =>
  rememberBy(
    (span: number, { name }: Material) => `${span} ${name}`,
    (span: number, material: Material) => ladderOf(request, span, material),
  ),
);

/** Where a pitch stands among rungs, between two of them where it is none itself. */
function rungOf(own: readonly Candidate[], midi: Midi): number {
  const above = own.findIndex((one) => one.midi >= midi);
  if (above < 0) return own.length;
  return at(own, above).midi === midi ? above : above - 0.5;
}

/**
 * The candidates of each onset: the target where one is landed on, else what is played over the chord, and
 * chromatic notes where the line wishes for one.
 */
export function layersOf(
  request: LineRequest,
  onsets: readonly Onset[],
  wished: (which: number) => boolean,
): readonly (readonly Candidate[])[] {
  const { neck, spans, targets } = request;
  const ladder = laddersOf(request);
  return onsets.map(({ span, target, beat }, which): readonly Candidate[] => {
    const { own, others } = ladder(span, materialAt(at(spans, span), beat));
    if (!target) return wished(which) ? [...own, ...others] : own;
    const { string, fret, note } = at(targets, span);
    const { chord } = at(spans, span);
    const midi = pitchAt(neck, { string, fret });
    const weight = weightOver(chord, degreeOver(chord, note));
    return [
      {
        string,
        fret,
        note,
        midi,
        chromatic: false,
        blue: false,
        fifth: false,
        avoid: false,
        aside: false,
        tone: weight !== 'colour',
        guide: weight === 'guide',
        root: pitchClass(note) === pitchClass(chord.root),
        rung: rungOf(own, midi),
      },
    ];
  });
}
