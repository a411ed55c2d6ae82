/** Why a chord outside the key is there, in the field's terms. */
import type { Chord } from '../chords/chords';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween, type Note, pitchClass, transpose } from '../notes/notes';
import { isBluesHome } from './blues';
import {
  canArrive,
  FALLING_FIFTH,
  HALF_STEP_DOWN,
  isDominantSeventh,
  isMinorChord,
  isSupertonic,
  pullsAsDominant,
  rootMotion,
} from './changes';
import { isMinorKey, type Key, KEY_MODES } from '../keys/keys';
import { inKey, isDiatonic } from './membership';
import { numeralOf, usualRoot, writeAppliedNumeral, writeUsualNumeral } from '../keys/numerals';

export type RoleKind =
  | 'blues home dominant'
  | 'dominant with altered tensions'
  | 'backdoor dominant'
  | 'local tonic'
  | 'of a local key'
  | 'chromatic ii–V'
  | 'dominant chain'
  | 'tritone substitute'
  | 'secondary dominant'
  | 'related supertonic'
  | 'passing diminished'
  | 'common-tone diminished'
  | 'diminished in place of a dominant'
  | 'passing'
  | 'borrowed'
  | 'dominant as a blues colour'
  | 'chromatic mediant'
  | 'chromatic';

/** What a chord does in its key. */
export interface Role {
  readonly kind: RoleKind;
  /**
   * What it leads to, as a numeral; for a tritone substitute the dominant it stands for, where that
   * is not the key's own; for a borrowed chord the mode it is borrowed from. Null where there is none.
   */
  readonly of: string | null;
  /** Whether what it leads to does not come. */
  readonly unresolved: boolean;
  /** The chord's numeral, by what it leads to where that names it best. */
  readonly numeral: string;
}

/** The chord with its neighbours in time; null where the form gives none. */
interface Context {
  readonly chord: Chord;
  readonly previous: Chord | null;
  readonly next: Chord | null;
  readonly afterNext: Chord | null;
  readonly key: Key;
  /** The key of the moment, where a local tonic is home. */
  readonly moment: Key | null;
  readonly blues: boolean;
}

type Rule = (context: Context) => Role | null;

const above = (key: Key, chord: Chord): number => halfSteps(intervalBetween(key.tonic, chord.root));

const plain = (kind: RoleKind, { chord, key }: Context, of: string | null = null): Role => ({
  kind,
  of,
  unresolved: false,
  numeral: writeUsualNumeral(chord, key),
});

const FIFTH_DOWN = degree('4');
const FIFTH_UP = degree('5');

/** The numeral of a target by what the chord there is, or what the key has there. */
function targetNumeral(aim: Note, there: Chord | null, key: Key): string {
  const target = usualRoot(aim, key);
  const interval = intervalBetween(key.tonic, target);
  const chord = there && pitchClass(there.root) === pitchClass(target) ? there : null;
  const lower = chord
    ? isMinorChord(chord)
    : [2, 4, 9].includes(halfSteps(interval)) && !isMinorKey(key);
  return numeralOf(interval, lower);
}

function applied(context: Context, aim: Note, targetChord: Chord | null): Role {
  const { chord, key } = context;
  const target = usualRoot(aim, key);
  const of = targetNumeral(target, targetChord, key);
  const root = transpose(target, FIFTH_UP);
  const numeral = writeAppliedNumeral({ ...chord, root }, target, key).replace(
    /\/[^/]*$/u,
    `/${of}`,
  );
  return { kind: 'secondary dominant', of, unresolved: false, numeral };
}

const bluesHome: Rule = (context) =>
  context.blues && isBluesHome(context.chord, context.key)
    ? plain('blues home dominant', context)
    : null;

const alteredDominant: Rule = (context) =>
  (isDominantSeventh(context.chord) || context.chord.quality.family === 'augmented') &&
  above(context.key, context.chord) === 7
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

const localTonic: Rule = (context) => {
  const { chord, moment, key } = context;
  if (!moment || isDominantSeventh(chord) || isSupertonicOf(chord, moment)) return null;
  if (pitchClass(moment.tonic) === pitchClass(chord.root)) return plain('local tonic', context);
  const of = numeralOf(
    intervalBetween(key.tonic, usualRoot(moment.tonic, key)),
    isMinorKey(moment),
  );
  return plain('of a local key', context, of);
};

const isSupertonicOf = (chord: Chord, key: Key): boolean =>
  isSupertonic(chord) && above(key, chord) === 2;

/** A ii–V that slides by a half step into the next one. */
const chromaticTwoFive: Rule = (context) => {
  const { chord, previous, next, afterNext, key, moment } = context;
  if (moment) return null;
  const two = isSupertonic(chord) ? chord : previous;
  const five = isSupertonic(chord) ? next : chord;
  const after = isSupertonic(chord) ? afterNext : next;
  if (!two || !five || !after || !isSupertonic(two) || !isDominantSeventh(five)) return null;
  const slides =
    rootMotion(two, five) === FALLING_FIFTH &&
    rootMotion(two, after) === HALF_STEP_DOWN &&
    isSupertonic(after) &&
    isDiatonic(after, key);
  return slides ? plain('chromatic ii–V', context, targetNumeral(after.root, after, key)) : null;
};

/** Dominants that fall by half steps, three and more chords of them, or two that come home so. */
const dominantChain: Rule = (context) => {
  const { chord, previous, next, afterNext } = context;
  const falls = (from: Chord | null, to: Chord | null) =>
    from !== null && to !== null && rootMotion(from, to) === HALF_STEP_DOWN;
  if (!isDominantSeventh(chord) || !next || !isDominantSeventh(next) || !falls(chord, next)) {
    return null;
  }
  const before = previous !== null && isDominantSeventh(previous) && falls(previous, chord);
  return before || falls(next, afterNext) ? plain('dominant chain', context) : null;
};

const tritoneSubstitute: Rule = (context) => {
  const { chord, next, key } = context;
  if (!next || chord.quality.family !== 'dominant') return null;
  if (rootMotion(chord, next) !== HALF_STEP_DOWN) return null;
  if (above(key, next) === 0) return plain('tritone substitute', context);
  const of = targetNumeral(next.root, next, key);
  return plain('tritone substitute', context, `V/${of}`);
};

/** The dominant of the next chord, or of the one after when that chord's own ii comes between. */
const secondaryDominant: Rule = (context) => {
  const { chord, next, afterNext, key } = context;
  if (!next || !pullsAsDominant(chord)) return null;
  // A plain ♭III, ♭VI or ♭VII is of the parallel minor, whatever it falls to.
  const flat = !isMinorKey(key) && [3, 8, 10].includes(above(key, chord));
  if (flat && !isDominantSeventh(chord) && chord.quality.family === 'major') return null;
  const target = transpose(chord.root, FIFTH_DOWN);
  if (rootMotion(chord, next) === FALLING_FIFTH) {
    const home = inKey(next.root, key) || isDiatonic(next, key) || canArrive(next);
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
    ? plain('borrowed', context, 'minor')
    : null;
};

/** A minor or half-diminished chord that prepares a dominant from outside the key. */
const relatedSupertonic: Rule = (context) => {
  const { chord, next, key } = context;
  if (!next || !isSupertonic(chord) || !isDominantSeventh(next)) return null;
  if (rootMotion(chord, next) !== FALLING_FIFTH) return null;
  const target = transpose(next.root, FIFTH_DOWN);
  const of = targetNumeral(target, context.afterNext, key);
  return plain('related supertonic', context, of);
};

/** A minor chord whose shape slides by a half step into the next one of its kind. */
const passing: Rule = (context) => {
  const { chord, next } = context;
  if (!next || chord.quality.family !== 'minor' || next.quality.name !== chord.quality.name)
    return null;
  return [1, HALF_STEP_DOWN].includes(rootMotion(chord, next)) ? plain('passing', context) : null;
};

/** A major triad that pulls to a minor chord of the key, and steps up beside it instead. */
const deceptive: Rule = (context) => {
  const { chord, next, key } = context;
  if (!next || chord.quality.family !== 'major' || !pullsAsDominant(chord)) return null;
  const target = transpose(chord.root, FIFTH_DOWN);
  const minor = !isMinorKey(key) && [2, 4, 9].includes(above(key, { ...chord, root: target }));
  if (!minor || rootMotion(chord, next) !== 1) return null;
  return { ...applied(context, target, null), unresolved: true };
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

/** The parallel modes chords are borrowed from: nobody lends from a locrian key. */
const BORROWED_FROM = KEY_MODES.filter((mode) => mode !== 'locrian');

const borrowed: Rule = (context) => {
  const { chord, key } = context;
  const parallel: Key = { tonic: key.tonic, mode: isMinorKey(key) ? 'major' : 'minor' };
  if (isDiatonic(chord, parallel)) return plain('borrowed', context, parallel.mode);
  const mode = BORROWED_FROM.find((name) => isDiatonic(chord, { tonic: key.tonic, mode: name }));
  if (mode === undefined) return null;
  // Nobody borrows a dominant from a mode: it is there for its colour.
  return isDominantSeventh(chord)
    ? plain('dominant as a blues colour', context)
    : plain('borrowed', context, mode);
};

/** The dominant on the flat seventh of the parallel minor, whatever it does. */
const borrowedDominant: Rule = (context) =>
  above(context.key, context.chord) === 10 ? borrowed(context) : null;

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
  return { ...applied(context, target, null), unresolved: true };
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
  localTonic,
  chromaticTwoFive,
  dominantChain,
  tritoneSubstitute,
  secondaryDominant,
  minorSubdominant,
  relatedSupertonic,
  passing,
  deceptive,
  diminished,
  borrowedDominant,
  unresolvedDominant,
  borrowed,
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
