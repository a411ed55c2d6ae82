/** Why a chord outside the key is there, in the field's terms. */
import type { Chord } from '../chords/chords';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween, type Note, transpose } from '../notes/notes';
import { isBluesHome } from './blues';
import {
  FALLING_FIFTH,
  HALF_STEP_DOWN,
  isDominantSeventh,
  isMinorChord,
  isSupertonic,
  pullsAsDominant,
  rootMotion,
} from './changes';
import { isMinorKey, type Key, KEY_MODES } from './keys';
import { inKey, isDiatonic } from './membership';
import { numeralOf, writeAppliedNumeral, writeNumeral } from './numerals';

/** A role and, where the chord is best named by what it leads to, its numeral that way. */
export interface Role {
  readonly name: string;
  readonly numeral: string;
}

/** The chord with its neighbours in time; null where the form gives none. */
export interface Context {
  readonly chord: Chord;
  readonly previous: Chord | null;
  readonly next: Chord | null;
  readonly afterNext: Chord | null;
  readonly key: Key;
  readonly blues: boolean;
}

type Rule = (context: Context) => Role | null;

const above = (key: Key, chord: Chord): number => halfSteps(intervalBetween(key.tonic, chord.root));

const plain = (name: string, { chord, key }: Context): Role => ({
  name,
  numeral: writeNumeral(chord, key),
});

const FIFTH_DOWN = degree('4');

/** The numeral of a target by what the chord there is, or what the key has there. */
function targetNumeral(target: Note, chord: Chord | null, key: Key): string {
  const interval = intervalBetween(key.tonic, target);
  const lower = chord
    ? isMinorChord(chord)
    : [2, 4, 9].includes(halfSteps(interval)) && !isMinorKey(key);
  return numeralOf(interval, lower);
}

function applied(context: Context, target: Note, targetChord: Chord | null): Role {
  const { chord, key } = context;
  const of = targetNumeral(target, targetChord, key);
  const numeral = writeAppliedNumeral(chord, target, key).replace(/\/[^/]*$/u, `/${of}`);
  return { name: `secondary dominant of ${of}`, numeral };
}

const bluesHome: Rule = (context) =>
  context.blues && isBluesHome(context.chord, context.key)
    ? plain('blues home dominant', context)
    : null;

const alteredDominant: Rule = (context) =>
  isDominantSeventh(context.chord) && above(context.key, context.chord) === 7
    ? plain('dominant with altered tensions', context)
    : null;

const backdoor: Rule = (context) => {
  const { chord, key, next } = context;
  // The iii stands for the I it shares three notes with.
  const home = next !== null && [0, 4].includes(above(key, next)) && !isDominantSeventh(next);
  return isDominantSeventh(chord) && above(key, chord) === 10 && home
    ? plain('backdoor dominant', context)
    : null;
};

const tritoneSubstitute: Rule = (context) => {
  const { chord, next, key } = context;
  if (!next || chord.quality.family !== 'dominant') return null;
  if (rootMotion(chord, next) !== HALF_STEP_DOWN) return null;
  if (above(key, next) === 0) return plain('tritone substitute', context);
  const of = targetNumeral(next.root, next, key);
  return plain(`tritone substitute of V/${of}`, context);
};

/** The dominant of the next chord, or of the one after when that chord's own ii comes between. */
const secondaryDominant: Rule = (context) => {
  const { chord, next, afterNext, key } = context;
  if (!next || !pullsAsDominant(chord)) return null;
  const target = transpose(chord.root, FIFTH_DOWN);
  if (rootMotion(chord, next) === FALLING_FIFTH) {
    const home = inKey(next.root, key) || isDiatonic(next, key);
    const chained = isDominantSeventh(next) && isDominantSeventh(chord);
    return home || chained ? applied(context, target, next) : null;
  }
  const late =
    afterNext !== null &&
    rootMotion(chord, afterNext) === FALLING_FIFTH &&
    rootMotion(next, afterNext) === FALLING_FIFTH;
  return late && inKey(target, key) ? applied(context, target, afterNext) : null;
};

/** The iv and the half-diminished ii of the parallel minor are heard as such whatever follows. */
const minorSubdominant: Rule = (context) => {
  const { chord, key } = context;
  const subdominant = above(key, chord) === 5 && chord.quality.family === 'minor';
  const supertonic = above(key, chord) === 2 && chord.quality.family === 'half-diminished';
  const parallel: Key = { tonic: key.tonic, mode: 'minor' };
  return (subdominant || supertonic) && !isMinorKey(key) && isDiatonic(chord, parallel)
    ? plain('borrowed from minor', context)
    : null;
};

/** A minor or half-diminished chord that prepares a dominant from outside the key. */
const relatedSupertonic: Rule = (context) => {
  const { chord, next, key } = context;
  if (!next || !isSupertonic(chord) || !isDominantSeventh(next)) return null;
  if (rootMotion(chord, next) !== FALLING_FIFTH) return null;
  const target = transpose(next.root, FIFTH_DOWN);
  const of = targetNumeral(target, context.afterNext, key);
  return plain(`ii of a ii–V to ${of}`, context);
};

const diminished: Rule = (context) => {
  const { chord, previous, next } = context;
  if (chord.quality.family !== 'diminished') return null;
  const intoNext = next ? rootMotion(chord, next) : 0;
  const outOf = previous ? rootMotion(previous, chord) : 0;
  const halfStep = (motion: number) => motion === 1 || motion === 11;
  if (halfStep(intoNext) || (next?.bass && halfStep(bassMotion(chord, next.bass)))) {
    return plain('passing diminished', context);
  }
  if (next && intoNext === 0) return plain('common-tone diminished', context);
  if (halfStep(outOf)) return plain('passing diminished', context);
  return plain('diminished in place of a dominant', context);
};

const bassMotion = (chord: Chord, bass: Note): number =>
  halfSteps(intervalBetween(chord.root, bass));

const borrowed: Rule = (context) => {
  const { chord, key } = context;
  const parallel: Key = { tonic: key.tonic, mode: isMinorKey(key) ? 'major' : 'minor' };
  if (isDiatonic(chord, parallel)) return plain(`borrowed from ${parallel.mode}`, context);
  const mode = KEY_MODES.find((name) => isDiatonic(chord, { tonic: key.tonic, mode: name }));
  return mode === undefined ? null : plain(`borrowed from ${mode}`, context);
};

/** A dominant on a degree whose fifth below belongs to the key, though it goes elsewhere. */
const unresolvedDominant: Rule = (context) => {
  const { chord, key } = context;
  if (chord.quality.family !== 'dominant') return null;
  const degreeAbove = above(key, chord);
  if (degreeAbove === 0 || degreeAbove === 5) {
    return plain('dominant as a blues colour', context);
  }
  const target = transpose(chord.root, FIFTH_DOWN);
  if (!inKey(target, key)) return null;
  const role = applied(context, target, null);
  return { ...role, name: `${role.name}, left unresolved` };
};

const mediant: Rule = (context) => {
  const distance = above(context.key, context.chord);
  const third = [3, 4, 8, 9].includes(distance);
  return third ? plain('chromatic mediant', context) : null;
};

/** In order: the first rule that explains the chord wins. */
const RULES: readonly Rule[] = [
  bluesHome,
  alteredDominant,
  backdoor,
  tritoneSubstitute,
  secondaryDominant,
  minorSubdominant,
  relatedSupertonic,
  diminished,
  borrowed,
  unresolvedDominant,
  mediant,
];

/** The role of a chord that is not diatonic in the key. */
export function roleOf(context: Context): Role {
  for (const rule of RULES) {
    const role = rule(context);
    if (role) return role;
  }
  return plain('chromatic', context);
}

/** Why the chord is there, as a short sentence for the player. */
export function roleSentence(role: string, symbol: string): string {
  const [pattern, sentence] = SENTENCES.find(([start]) => role.startsWith(start)) ?? ['', ''];
  const rest = role.slice(pattern.length).trim();
  return sentence.replace('{chord}', symbol).replace('{rest}', rest);
}

const SENTENCES: readonly (readonly [string, string])[] = [
  ['blues home dominant', '{chord} is a home colour of the blues; it need not resolve.'],
  ['dominant with altered tensions', '{chord} is the V with tensions from outside the key.'],
  ['backdoor dominant', '{chord} comes home by a whole step up instead of a fifth down.'],
  [
    'tritone substitute of',
    '{chord} stands in for {rest}, a tritone away: same third and seventh.',
  ],
  ['tritone substitute', '{chord} stands in for the V, a tritone away: same third and seventh.'],
  ['secondary dominant of', '{chord} is the dominant of {rest}.'],
  ['ii of a ii–V to', '{chord} prepares the dominant of {rest}.'],
  ['passing diminished', '{chord} passes by half step between its neighbours.'],
  ['common-tone diminished', '{chord} shares its root with the chord it leads to.'],
  ['diminished in place', '{chord} does a dominant’s work without the root.'],
  ['borrowed from', '{chord} is borrowed from the parallel {rest}.'],
  ['dominant as a blues colour', '{chord} is a dominant for its colour, not to resolve.'],
  ['chromatic mediant', '{chord} lies a third from the tonic and shares a note with it.'],
  ['chromatic', '{chord} comes from outside the key.'],
  ['', '{chord} comes from outside the key.'],
];
