/** What is notable about the changes, in words: chains, parallels, common tones, the moving third. */
import { rememberOf } from '../cache';
import { type Chord, chordName, chordNotes, sameChord } from '../chords/chords';
import { pitchMask } from '../collections/collections';
import { FALLING_FIFTH, rootMotion } from '../harmony/changes';
import { at } from '../lists';
import { degree } from '../notes/degrees';
import { type Interval, type Note, noteName, pitchClass, step, transpose } from '../notes/notes';
import { cross } from './crossing';
import { type Lanes, lanesOf } from './lanes';

type RemarkKind = 'common tone' | 'one note changes' | '3-7 chain' | 'parallel' | 'moving third';

/** Something notable between chords `from` and `to`, both indices of those given. */
interface Remark {
  readonly kind: RemarkKind;
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

const named = (chord: Chord): string => chordName({ ...chord, bass: null });

const maskOf = rememberOf((chord: Chord) => pitchMask(chordNotes(chord)));

/** A common tone must last through this many different chords to be worth a remark. */
const LASTING = 4;

function commonTones(chords: readonly Chord[]): readonly Remark[] {
  const remarks: Remark[] = [];
  let start = 0;
  while (start < chords.length) {
    let mask = maskOf(at(chords, start));
    let end = start;
    let different = 1;
    for (let index = start + 1; index < chords.length; index++) {
      const chord = at(chords, index);
      const kept = mask & maskOf(chord);
      if (kept === 0) break;
      if (!sameChord(chord, at(chords, index - 1))) different += 1;
      mask = kept;
      end = index;
    }
    if (different >= LASTING) {
      const note = chordNotes(at(chords, start)).find((one) => mask & (1 << pitchClass(one)));
      const name = note === undefined ? '' : noteName(note);
      const text = `${name} is a chord tone of ${different} chords in a row.`;
      remarks.push({ kind: 'common tone', from: start, to: end, text });
      start = end;
    }
    start += 1;
  }
  return remarks;
}

function singleMoves(chords: readonly Chord[]): readonly Remark[] {
  return chords.slice(1).flatMap((chord, index): readonly Remark[] => {
    const before = at(chords, index);
    const { moves, leaves, arrives } = cross(chordNotes(before), chordNotes(chord));
    const [move] = moves;
    if (!move || moves.length !== 1 || leaves.length + arrives.length > 0) return [];
    const text = `One chord tone changes: ${noteName(move.from)} to ${noteName(move.to)}.`;
    return [{ kind: 'one note changes', from: index, to: index + 1, text }];
  });
}

/** Stretches of at least `least` steps for which something holds from each chord to the next. */
function stretches(
  length: number,
  least: number,
  holds: (index: number) => boolean,
): readonly (readonly [from: number, to: number])[] {
  const found: [number, number][] = [];
  let from = 0;
  for (let index = 0; index <= length; index++) {
    if (index < length - 1 && holds(index)) continue;
    if (index - from >= least) found.push([from, index]);
    from = index + 1;
  }
  return found;
}

const isThird = (degree: Interval): boolean => step(degree) === 2;
const isSeventh = (degree: Interval): boolean => step(degree) === 6;

function thirdSeventhChains(chords: readonly Chord[], { guideTones }: Lanes): readonly Remark[] {
  if (guideTones.length !== chords.length) return [];
  return stretches(chords.length, 2, (index) => {
    const here = at(guideTones, index);
    const next = at(guideTones, index + 1);
    const swaps =
      (isThird(here.degree) && isSeventh(next.degree)) ||
      (isSeventh(here.degree) && isThird(next.degree));
    const falls = rootMotion(at(chords, index), at(chords, index + 1)) === FALLING_FIFTH;
    return swaps && falls && next.halfSteps <= 0 && next.halfSteps >= -1;
  }).map(([from, to]) => {
    const begins = isThird(at(guideTones, from).degree) ? '3 to 7 to 3' : '7 to 3 to 7';
    const text = `Roots fall by fifths from ${named(at(chords, from))} to ${named(at(chords, to))}: the guide tone holds or falls a half step, ${begins}.`;
    return { kind: '3-7 chain', from, to, text };
  });
}

function parallels(chords: readonly Chord[]): readonly Remark[] {
  const motion = (index: number) => rootMotion(at(chords, index), at(chords, index + 1));
  const alike = (index: number) => {
    const same = at(chords, index).quality.name === at(chords, index + 1).quality.name;
    return same && motion(index) !== 0;
  };
  return stretches(chords.length, 2, (index) => {
    const goesOn = index === 0 || !alike(index - 1) || motion(index) === motion(index - 1);
    return alike(index) && goesOn;
  }).map(([from, to]) => {
    const text = `The same chord shifted, ${named(at(chords, from))} to ${named(at(chords, to))}: every lane runs parallel.`;
    return { kind: 'parallel', from, to, text };
  });
}

const THIRD = degree('3');
const FLAT_SEVENTH = degree('b7');

/** From I7 to IV7 the third falls a half step to the seventh, and back it rises. */
function movingThird(before: Chord, after: Chord): readonly [third: Note, seventh: Note] | null {
  const dominant = ({ quality }: Chord) =>
    quality.family === 'dominant' && quality.core.includes(FLAT_SEVENTH);
  if (!dominant(before) || !dominant(after)) return null;
  if (rootMotion(before, after) !== FALLING_FIFTH) return null;
  return [transpose(before.root, THIRD), transpose(after.root, FLAT_SEVENTH)];
}

function movingThirds(chords: readonly Chord[], tonic: Note): readonly Remark[] {
  return chords.slice(1).flatMap((chord, index): readonly Remark[] => {
    const before = at(chords, index);
    const home = (one: Chord) => pitchClass(one.root) === pitchClass(tonic);
    const out = home(before) ? movingThird(before, chord) : null;
    const back = home(chord) ? movingThird(chord, before) : null;
    const found = out ?? back;
    if (!found) return [];
    const [third, seventh] = found.map(noteName);
    const one = named(home(before) ? before : chord);
    const four = named(home(before) ? chord : before);
    const text = out
      ? `The moving third: ${third}, third of ${one}, falls a half step to ${seventh}, seventh of ${four}.`
      : `The moving third returns: ${seventh}, seventh of ${four}, rises a half step to ${third}, third of ${one}.`;
    return [{ kind: 'moving third', from: index, to: index + 1, text }];
  });
}

/** Everything notable about a row of chords, in order; the tonic where they are a blues. */
export function remarksOn(chords: readonly Chord[], bluesTonic: Note | null): readonly Remark[] {
  const all = [
    ...(bluesTonic === null ? [] : movingThirds(chords, bluesTonic)),
    ...thirdSeventhChains(chords, lanesOf(chords)),
    ...parallels(chords),
    ...commonTones(chords),
    ...singleMoves(chords),
  ];
  return all.sort((a, b) => a.from - b.from || b.to - a.to);
}
