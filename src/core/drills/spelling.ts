/** Drills in words: the notes of a chord, and what a pentatonic lacks over it; the wrong answers are likely ones. */
import { type Chord, chordNotes } from '../chords/chords';
import { spokenOver } from '../chords/over';
import {
  type Collection,
  collection,
  collectionName,
  collectionNotes,
} from '../collections/collections';
import { lookUp, range } from '../lists';
import { degreeName, degrees } from '../notes/degrees';
import { pitchClass, transpose } from '../notes/notes';
import { list } from '../words';
import type { Drill } from './kinds';
import { chordsOf, type Making, named, pick, plain, shuffled, spelled } from './making';

/** What is taken for a degree by mistake: the same letter or its neighbour; a ninth is a second here, and so on. */
const MISTAKEN: Readonly<Record<string, readonly string[]>> = {
  b2: ['2'],
  '2': ['b2', 'b3'],
  '#2': ['2', 'b2'],
  b3: ['3', '2'],
  '3': ['b3', '4'],
  '4': ['3', '#4'],
  '#4': ['4', '5'],
  b5: ['5', '4'],
  '5': ['b5', '#5'],
  '#5': ['5', '6'],
  b6: ['6', '5'],
  '6': ['b6', 'b7'],
  bb7: ['b7'],
  b7: ['7', '6'],
  '7': ['b7', '6'],
};

/** A chord's notes with one of them wrong, in every way that is likely. */
function misspelled(chord: Chord): readonly string[] {
  const own = chord.quality.degrees;
  return own.flatMap((degree, place) =>
    (lookUp(MISTAKEN, degreeName(degree)) ?? []).flatMap(degrees).flatMap((other) => {
      const wrong = own.with(place, other).map((one) => transpose(chord.root, one));
      return new Set(wrong.map(pitchClass)).size === own.length ? [spelled(wrong)] : [];
    }),
  );
}

/** Asks for the notes of a chord. */
export function spellChord(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const right = spelled(chordNotes(chord));
  const wrong = shuffled(making, [...new Set(misspelled(chord))]).slice(0, 3);
  const words = chord.quality.degrees.map((one) => spokenOver(chord, one));
  return plain(making, 'spell-chord', {
    prompt: `Spell ${named(chord)}.`,
    asks: 'choice',
    choices: shuffled(making, [right, ...wrong]),
    answer: { choice: right },
    sentence: `${named(chord)} is ${right}: ${list(words)}.`,
  });
}

const NOTHING = 'nothing';

/** Degrees of a chord that a collection has not. */
function missingFrom(chord: Chord, { root, kind }: Collection): string {
  const has = new Set(kind.degrees.map((one) => pitchClass(transpose(root, one))));
  const lacks = chord.quality.degrees.filter(
    (one) => !has.has(pitchClass(transpose(chord.root, one))),
  );
  return lacks.length === 0 ? NOTHING : list(lacks.map(degreeName));
}

/** Where the pentatonics asked about stand over a chord's root. */
const ROOTS = degrees('1 2 b3 b7 5 7');

/** Every choice of so many out of a list, in its order. */
const parts = <T>(items: readonly T[], count: number): readonly (readonly T[])[] =>
  count === 0
    ? [[]]
    : items.flatMap((item, place) =>
        parts(items.slice(place + 1), count - 1).map((rest) => [item, ...rest]),
      );

/** Asks which tones of a chord a pentatonic leaves out. */
export function whatIsMissing(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const roots = ROOTS.map((up) => transpose(chord.root, up));
  const collections = roots.flatMap((root) =>
    ['major pentatonic', 'minor pentatonic'].map((kind) => collection(root, kind)),
  );
  const sought = pick(making, collections);
  const right = missingFrom(chord, sought);
  const own = chord.quality.degrees.map(degreeName);
  // As many tones as are missing, then none, then fewer or more.
  const size = right === NOTHING ? 1 : right.split(/, | and /u).length;
  const some = (count: number) => parts(own, count).map((one) => list(one));
  const rest = range(1, own.length).filter((count) => count !== size);
  const groups = [some(size), [NOTHING], rest.flatMap(some)];
  const wrong = groups
    .flatMap((group) => shuffled(making, group))
    .filter((one) => one !== right)
    .slice(0, 3);
  const name = collectionName(sought);
  return plain(making, 'what-is-missing', {
    prompt: `${name} over ${named(chord)}: which tones of the chord does it lack?`,
    asks: 'choice',
    choices: shuffled(making, [right, ...wrong]),
    answer: { choice: right },
    sentence:
      right === NOTHING
        ? `${name} is ${spelled(collectionNotes(sought))}: every tone of ${named(chord)} (${spelled(chordNotes(chord))}) is there.`
        : `${name} is ${spelled(collectionNotes(sought))}; ${named(chord)} is ${spelled(chordNotes(chord))}: its ${right} ${right.includes('and') ? 'are' : 'is'} not there.`,
  });
}
