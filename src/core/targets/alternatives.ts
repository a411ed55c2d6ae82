/**
 * Routes that differ as music: another lane to begin on, the moving third of a blues, another
 * register. The same pitches on other strings are no alternative.
 */
import type { Chord } from '../chords/chords';
import { at, modulo, range } from '../lists';
import { degree } from '../notes/degrees';
import { type Interval, pitchClass } from '../notes/notes';
import type { Path, PathOptions, PathSolver } from '../paths/layered';
import type { Candidate, RouteChord } from './route';

type Allows = NonNullable<PathOptions['allows']>;

type Layers = readonly (readonly Candidate[])[];

const THIRD = degree('3');
const FLAT_SEVENTH = degree('b7');
const FOURTH_UP = 5;

const isDominant = ({ quality }: Chord): boolean =>
  quality.core.includes(THIRD) && quality.core.includes(FLAT_SEVENTH);

/** Whether two chords are the I7 and IV7 of a blues. */
const isHomeAndFourth = (home: Chord, fourth: Chord): boolean =>
  isDominant(home) &&
  isDominant(fourth) &&
  modulo(pitchClass(fourth.root) - pitchClass(home.root), 12) === FOURTH_UP;

/**
 * The degree that each chord of a blues takes where the third of I falls to the seventh of IV and
 * comes back; empty where a form never goes both ways.
 */
function movingThirds(chords: readonly RouteChord[]): ReadonlyMap<number, Interval> {
  const pairs = range(0, chords.length).map((index) => {
    const onward = (index + 1) % chords.length;
    return { index, onward, from: at(chords, index).chord, to: at(chords, onward).chord };
  });
  const away = pairs.filter(({ from, to }) => isHomeAndFourth(from, to));
  const back = pairs.filter(({ from, to }) => isHomeAndFourth(to, from));
  const homes = new Set(away.map(({ from }) => pitchClass(from.root)));
  const both = back.filter(({ to }) => homes.has(pitchClass(to.root)));
  if (both.length === 0) return new Map();
  const returns = new Set(both.map(({ to }) => pitchClass(to.root)));
  return new Map([
    ...away
      .filter(({ from }) => returns.has(pitchClass(from.root)))
      .flatMap(({ index, onward }) => [[index, THIRD] as const, [onward, FLAT_SEVENTH] as const]),
    ...both.flatMap(({ index, onward }) => [
      [index, FLAT_SEVENTH] as const,
      [onward, THIRD] as const,
    ]),
  ]);
}

/** Forbids nothing where a chord would be left without a place. */
function wherePossible(
  layers: Layers,
  allows: (layer: number, place: Candidate) => boolean,
): Allows {
  const free = layers.map((layer, index) => !layer.some((place) => allows(index, place)));
  return (layer, node) => at(free, layer) || allows(layer, at(at(layers, layer), node));
}

/** Stops that must sound otherwise for a route to be another: a quarter of them, one at least. */
const ANOTHER = 0.25;

/** The places of a chord from which local variations are tried, at the most. */
const MOST_VARIED = 8;

/**
 * The cheapest path, and the cheapest of each kind that differs from those before: in the degree it
 * begins on, by the moving third, in register, or over one chord. Each is exact for its kind.
 */
export function differentPaths(
  chords: readonly RouteChord[],
  layers: Layers,
  count: number,
  solver: PathSolver,
  { onProgress }: PathOptions = {},
): readonly Path[] {
  const pitchesOf = ({ nodes }: Path) =>
    nodes.map((node, layer) => at(at(layers, layer), node).midi);
  const [best] = solver(1, { onProgress });
  if (!best) return [];
  const taken: { readonly path: Path; readonly pitches: readonly number[] }[] = [];
  const accept = (path: Path | undefined, least: number) => {
    if (!path || taken.length >= count) return;
    const pitches = pitchesOf(path);
    const differs = taken.every(
      (other) => other.pitches.filter((midi, index) => midi !== pitches[index]).length >= least,
    );
    if (differs) taken.push({ path, pitches });
  };
  const least = Math.max(1, Math.ceil(ANOTHER * chords.length));
  accept(best, 0);
  const solve = (allows: (layer: number, place: Candidate) => boolean) =>
    taken.length < count ? solver(1, { allows: wherePossible(layers, allows) })[0] : undefined;
  const first = at(chords, 0).chord.quality;
  const begun = (degree: Interval) => solve((layer, place) => layer > 0 || place.degree === degree);
  for (const guide of first.guideTones) accept(begun(guide), least);
  const moving = movingThirds(chords);
  if (moving.size > 0) {
    accept(
      solve(
        (layer, place) => moving.get(layer) === undefined || moving.get(layer) === place.degree,
      ),
      1,
    );
  }
  const untaken = () =>
    solve((layer, { midi }) => taken.every(({ pitches }) => pitches[layer] !== midi));
  while (taken.length < count) {
    const before = taken.length;
    accept(untaken(), least);
    if (taken.length === before) break;
  }
  const varied = range(0, Math.min(MOST_VARIED, chords.length)).map((turn) =>
    Math.floor((turn * chords.length) / Math.min(MOST_VARIED, chords.length)),
  );
  const wanted = at(taken, 0).pitches;
  for (const which of varied) {
    accept(
      solve((layer, { midi }) => layer !== which || midi !== wanted[which]),
      1,
    );
  }
  return taken.map(({ path }) => path).sort((a, b) => a.cost - b.cost);
}
