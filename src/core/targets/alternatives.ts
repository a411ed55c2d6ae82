/**
 * Routes that differ as music: another lane to begin on, the moving third of a blues, another
 * register. The same pitches on other strings are no alternative.
 */
import type { Chord } from '../chords/chords';
import { at, modulo, range } from '../lists';
import { degree } from '../notes/degrees';
import { type Interval, pitchClass } from '../notes/notes';
import type { Path, PathOptions, PathSolver } from '../paths/layered';
import type { Candidate } from './candidates';
import type { RouteChord } from './request';

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

/** Pitches to begin on that are tried, the cheapest ways first, at the most. */
const BEGINNINGS = 3;

/** The chords over which local variations are tried, at the most. */
const MOST_VARIED = 8;

/**
 * The cheapest path, and the cheapest others that begin on another pitch, another guide tone's lane
 * among them, that keep a blues' moving third, or that land elsewhere over one chord. Each is exact
 * for its kind.
 */
export function differentPaths(
  chords: readonly RouteChord[],
  layers: Layers,
  count: number,
  solver: PathSolver,
  { onProgress }: PathOptions = {},
): readonly Path[] {
  const [first] = layers;
  if (!first) return [];
  const placeOf = (layer: number, node: number) => at(at(layers, layer), node);
  const taken: { readonly path: Path; readonly pitches: readonly number[] }[] = [];
  const take = (path: Path | undefined, least: number): boolean => {
    if (!path || taken.length >= count) return false;
    const pitches = path.nodes.map((node, layer) => placeOf(layer, node).midi);
    const differs = taken.every(
      (other) => other.pitches.filter((midi, index) => midi !== pitches[index]).length >= least,
    );
    if (differs) taken.push({ path, pitches });
    return differs;
  };
  const least = Math.max(1, Math.ceil(ANOTHER * chords.length));
  const moving = movingThirds(chords);
  // The lane of each guide tone has its place among the ways, and the moving third.
  const lanes = new Set(
    at(chords, 0).chord.quality.guideTones.filter((tone) =>
      first.some(({ degree }) => degree === tone),
    ),
  );
  const tries = Math.min(count, BEGINNINGS);
  for (const path of solver(tries, { kindOf: (node) => at(first, node).midi, onProgress })) {
    const { degree } = placeOf(0, at(path.nodes, 0));
    const reserved = lanes.size + (moving.size > 0 ? 1 : 0);
    const free = taken.length === 0 || lanes.has(degree) || count - taken.length > reserved;
    if (free && take(path, taken.length === 0 ? 0 : least)) lanes.delete(degree);
  }
  const solve = (allows: (layer: number, place: Candidate) => boolean) =>
    taken.length < count ? solver(1, { allows: wherePossible(layers, allows) })[0] : undefined;
  if (moving.size > 0) {
    take(
      solve((layer, { degree }) => (moving.get(layer) ?? degree) === degree),
      1,
    );
  }
  const [best] = taken;
  if (!best) return [];
  for (const tone of lanes) {
    take(
      solve((layer, { degree }) => layer > 0 || degree === tone),
      1,
    );
  }
  // Begun as the best is, so that each is a matter of one pass through the form.
  const begun = placeOf(0, at(best.path.nodes, 0));
  const varied = Math.min(MOST_VARIED, chords.length - 1);
  for (const turn of range(0, varied)) {
    const which = 1 + Math.floor((turn * (chords.length - 1)) / varied);
    take(
      solve((layer, place) =>
        layer === 0 ? place === begun : layer !== which || place.midi !== best.pitches[which],
      ),
      1,
    );
  }
  // On a short form every other way is one.
  for (let before = -1; before < taken.length && taken.length < count;) {
    before = taken.length;
    take(
      solve((layer, { midi }) => taken.every(({ pitches }) => pitches[layer] !== midi)),
      1,
    );
  }
  return taken.map(({ path }) => path).sort((a, b) => a.cost - b.cost);
}
