/** Chains: one pentatonic shape for each chord, whose roots keep climbing, falling or staying. */
import { type Chord, sameChord } from '../chords/chords';
import type { Collection } from '../collections/collections';
import { FALLING_FIFTH, rootMotion } from '../harmony/changes';
import { at, modulo } from '../lists';
import { type Interval, pitchClass } from '../notes/notes';
import { borrowedCollection, borrowedInChains, withFlatFifth } from './pentatonics';

const CHAIN_STEPS = [1, -1, 2, -2, 0] as const;
type ChainStep = (typeof CHAIN_STEPS)[number];

/** What is played over one chord of a chain. */
export interface ChainStop {
  /** Index of the chord among those given. */
  readonly index: number;
  readonly collection: Collection;
  /** Degree of the pentatonic's root over the chord. */
  readonly relation: Interval;
}

/** Three or more stops whose roots are `step` half steps apart, the shape always the same. */
export interface Chain {
  readonly step: ChainStep;
  readonly stops: readonly ChainStop[];
}

interface IndexedChord {
  readonly chord: Chord;
  readonly index: number;
}

/** Stops that make a chain. */
export const SHORTEST_CHAIN = 3;

/** Whether a dominant resolves, so that its tensions may be bent; one that ends the row may. */
export const resolves = (chord: Chord, next: Chord | undefined): boolean =>
  next === undefined ||
  (rootMotion(chord, next) === FALLING_FIFTH && next.quality.family !== 'dominant');

/** The stops a chord offers: its pentatonics in common use. */
function stopsFor(changes: readonly IndexedChord[], place: number): readonly ChainStop[] {
  const { chord, index } = at(changes, place);
  const falls = resolves(chord, changes[place + 1]?.chord);
  return borrowedInChains(chord, falls).map((borrowed) => ({
    index,
    collection: borrowedCollection(chord, borrowed),
    relation: borrowed.relation,
  }));
}

/** Chains of blues scales: the same shapes with the flat fifth in each, where they have one. */
export const bluesChains = (chains: readonly Chain[]): readonly Chain[] =>
  chains.flatMap(({ step, stops }) => {
    const blues = stops.flatMap((stop) => {
      const collection = withFlatFifth(stop.collection);
      return collection ? [{ ...stop, collection }] : [];
    });
    return blues.length === stops.length ? [{ step, stops: blues }] : [];
  });

const distance = (from: Collection, to: Collection): number =>
  modulo(pitchClass(to.root) - pitchClass(from.root) + 5, 12) - 5;

const follows = (from: ChainStop, to: ChainStop, step: ChainStep): boolean =>
  from.collection.kind === to.collection.kind && distance(from.collection, to.collection) === step;

/**
 * Every longest chain through a row of chords, at least three stops long (two where there are only
 * two chords); the longest first, then those that begin earlier. A chord that only goes on sounding
 * is one stop.
 */
export function chainsThrough(chords: readonly Chord[]): readonly Chain[] {
  const changes = chords
    .map((chord, index) => ({ chord, index }))
    .filter(({ chord, index }) => {
      const before = chords[index - 1];
      return !before || !sameChord(before, chord);
    });
  const stops = changes.map((_, place) => stopsFor(changes, place));
  const shortest = Math.min(SHORTEST_CHAIN, changes.length);
  const chains = CHAIN_STEPS.flatMap((step) =>
    stops.flatMap((here, index) =>
      here
        .filter((stop) => !(stops[index - 1] ?? []).some((before) => follows(before, stop, step)))
        .flatMap((stop): readonly Chain[] => {
          const run = [stop];
          for (let ahead = index + 1; ahead < stops.length; ahead++) {
            const last = at(run, run.length - 1);
            const next = at(stops, ahead).find((one) => follows(last, one, step));
            if (!next) break;
            run.push(next);
          }
          return run.length >= shortest && run.length > 1 ? [{ step, stops: run }] : [];
        }),
    ),
  );
  return chains.sort(
    (a, b) =>
      b.stops.length - a.stops.length ||
      Math.abs(a.step) - Math.abs(b.step) ||
      at(a.stops, 0).index - at(b.stops, 0).index,
  );
}
