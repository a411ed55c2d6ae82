/** The lenses of thirds: chord tones, arpeggios stacked on them, and triads inside a mode. */
import { type Chord, chordName } from '../chords/chords';
import { quality } from '../chords/symbols';
import {
  type Collection,
  collection,
  collectionNotes,
  pitchMask,
} from '../collections/collections';
import { triadsInside } from '../collections/inside';
import { at } from '../lists';
import { degree } from '../notes/degrees';
import {
  halfSteps,
  type Interval,
  intervalBetween,
  type Note,
  step,
  transpose,
} from '../notes/notes';
import type { LensAnswer, Suggestion } from './lens';
import { arpeggio, chordOn, triad } from './material';
import { modesFor } from './modes';
import { isAltered } from './pentatonics';

const TRIAD_NAMES = ['', 'm', 'dim', 'aug', 'sus4', 'sus2'] as const;
const NINTHS: Readonly<Record<string, string>> = {
  maj7: 'maj9',
  '7': '9',
  m7: 'm9',
  'm(maj7)': 'm(maj9)',
  m7b5: 'm9b5',
  '6': '69',
  m6: 'm69',
};

/** The chord's triad where it has more than three tones. */
function triadUnder({ root, quality: found }: Chord): Chord | null {
  if (found.degrees.length <= 3) return null;
  const name = TRIAD_NAMES.find((one) =>
    quality(one).degrees.every((tone) => found.degrees.includes(tone)),
  );
  return name === undefined
    ? null
    : chordOn(root, name, { root, quality: found, symbol: '', bass: null });
}

/** The chord’s own arpeggio. */
export const chordTonesLens: LensAnswer = ({ chord }) => {
  const bare = { ...chord, bass: null };
  const under = triadUnder(chord);
  const ninth = NINTHS[chord.quality.name];
  const say = (why: string, material: Suggestion['material'], common: boolean): Suggestion => ({
    lens: 'chord-tones',
    material,
    why,
    common,
  });
  return [
    say('the chord itself, note by note', arpeggio(bare), true),
    ...(under ? [say('the bare triad', triad(under), false)] : []),
    ...(ninth === undefined
      ? []
      : [say('the chord with its ninth', arpeggio(chordOn(chord.root, ninth, chord)), false)]),
  ];
};

/** The chord of every second note of a seven-note scale, from one of its degrees up. */
function stackOn(scale: Collection, from: number): Chord | null {
  const notes = collectionNotes(scale);
  const stack = [0, 2, 4, 6].map((up) => at(notes, (from + up) % notes.length));
  const root = at(stack, 0);
  const wanted = pitchMask(stack);
  const name = STACKED.find(
    ({ degrees }) => pitchMask(degrees.map((one) => transpose(root, one))) === wanted,
  );
  return name ? chordOn(root, name.name) : null;
}

const STACKED = [
  'maj7',
  '7',
  'm7',
  'm7b5',
  'dim7',
  'm(maj7)',
  'maj7#5',
  '7#5',
  'maj7b5',
  '7b5',
  'dim(maj7)',
].map(quality);

const FIFTH = degree('5');

/** The arpeggios stacked on the third, fifth and seventh, each by the degree of its mode. */
interface Stacked {
  readonly chord: Chord;
  /** Degree of the mode it begins on, from 0. */
  readonly from: number;
}

const STACK_DEGREES = [2, 4, 6] as const;

/**
 * What the chord's scale builds on its third, fifth and seventh. Over a I maj7 the one off the
 * fifth would hold the clashing natural 11: the maj7 there gives the sharp one instead.
 */
export function stackedOver(chord: Chord, scale: Collection): readonly Stacked[] {
  return STACK_DEGREES.flatMap((from): readonly Stacked[] => {
    if (from === 4 && scale.kind.name === 'ionian') {
      return [{ chord: chordOn(transpose(chord.root, FIFTH), 'maj7'), from }];
    }
    const found = stackOn(scale, from);
    return found ? [{ chord: found, from }] : [];
  });
}

const NAMED_STEPS: Readonly<Record<number, string>> = { 2: 'third', 4: 'fifth', 6: 'seventh' };

/** Arpeggios stacked off other notes of the chord’s mode. */
export const stackedLens: LensAnswer = (context) => {
  const { chord } = context;
  const scale = modesFor(context).find(
    ({ collection: one }) => one.kind.degrees.length === 7 && one.root === chord.root,
  );
  if (!scale) return [];
  return stackedOver(chord, scale.collection).map(({ chord: stacked, from }): Suggestion => {
    const raised = from === 4 && scale.collection.kind.name === 'ionian';
    return {
      lens: 'stacked-arpeggio',
      material: arpeggio(stacked),
      why: raised
        ? 'off the fifth, with #11 for the clashing 11'
        : `off the ${NAMED_STEPS[from] ?? 'root'}, a tension for each step up`,
      common: from === 2 || raised,
    };
  });
};

/** Triads players lay over an altered dominant, beyond those of its first mode. */
const ALTERED_TRIADS = ['b2', 'b6'].map(degree);

/** The fixed order of degrees, so that triads are listed as they climb. */
const byHeight =
  (root: Note) =>
  (a: Chord, b: Chord): number =>
    halfSteps(intervalBetween(root, a.root)) - halfSteps(intervalBetween(root, b.root));

/** Every major and minor triad inside a collection, from the chord's root up. */
export function triadsIn(chord: Chord, scale: Collection): readonly Chord[] {
  return triadsInside(scale)
    .map((one) => chordOn(one.root, one.quality.name, chord))
    .filter(({ quality: { name } }) => name === '' || name === 'm')
    .sort(byHeight(chord.root));
}

/** Triads whose notes are tones and tensions of the chord. */
export const triadsLens: LensAnswer = (context) => {
  const { chord } = context;
  const modes = modesFor(context);
  const first = modes[0]?.collection ?? collection(chord.root, 'ionian');
  const inside = triadsIn(chord, first);
  const extra = isAltered(chord)
    ? ALTERED_TRIADS.map((up) => chordOn(transpose(chord.root, up), ''))
    : [];
  const known = new Set(inside.map(({ symbol }) => symbol));
  const all = [...inside, ...extra.filter(({ symbol }) => !known.has(symbol))];
  return all.sort(byHeight(chord.root)).map((one): Suggestion => {
    const raised = extra.some(({ symbol }) => symbol === one.symbol);
    const own = one.root === chord.root && chord.quality.core.includes(thirdOf(one));
    return {
      lens: 'triads',
      material: triad(one),
      why: known.has(one.symbol)
        ? `inside ${first.kind.name}`
        : `over an altered ${chordName({ ...chord, bass: null })}`,
      common: raised || own,
    };
  });
};

const thirdOf = ({ quality: { degrees } }: Chord): Interval =>
  degrees.find((one) => step(one) === 2) ?? degree('3');
