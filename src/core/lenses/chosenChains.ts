/** Which chains of borrowed pentatonics are worth playing through a chart. */
import { type Chord, sameChord } from '../chords/chords';
import { at, group, range } from '../lists';
import { assess, NOWHERE } from './assess';
import { type ChainStop, chainsThrough, SHORTEST_CHAIN } from './chains';
import { collectionMaterial } from './material';

/** What a stop of a chain is worth: a moving shape is what chains are for, but it must say the chord. */
const CHAIN_WORTH = { moving: 2, still: 0.75, guideTones: 2, begin: -3 } as const;

/** Share of a chord's guide tones that a stop holds. */
function saidBy(chords: readonly Chord[], { index, collection }: ChainStop): number {
  const { guideTones, guideToneCount } = assess(
    at(chords, index),
    collectionMaterial(collection),
    NOWHERE,
  );
  return guideToneCount === 0 ? 0 : guideTones.length / guideToneCount;
}

/** The stretches of chains that together are worth most, without overlap: by each chord's index. */
export function chosenChains(chords: readonly Chord[]): ReadonlyMap<number, ChainStop> {
  const stretches = chainsThrough(chords).flatMap(({ step, stops }) =>
    stops.flatMap((_, from) =>
      range(from + SHORTEST_CHAIN, stops.length + 1).map((to) => {
        const each = step === 0 ? CHAIN_WORTH.still : CHAIN_WORTH.moving;
        const stretch = stops.slice(from, to);
        const said = stretch.reduce((sum, stop) => sum + saidBy(chords, stop), 0);
        const worth = CHAIN_WORTH.begin + each * stretch.length + CHAIN_WORTH.guideTones * said;
        return { stops: stretch, worth };
      }),
    ),
  );
  const endingAt = group(stretches, ({ stops }) => at(stops, stops.length - 1).index);
  interface Best {
    readonly worth: number;
    readonly stops: readonly ChainStop[];
  }
  const best: Best[] = [{ worth: 0, stops: [] }];
  for (const index of chords.keys()) {
    best.push(
      (endingAt.get(index) ?? []).reduce<Best>(
        (most, { stops, worth }) => {
          const before = at(best, at(stops, 0).index);
          const sum = before.worth + worth;
          return sum > most.worth ? { worth: sum, stops: [...before.stops, ...stops] } : most;
        },
        at(best, index),
      ),
    );
  }
  const chosen = new Map(at(best, chords.length).stops.map((stop) => [stop.index, stop]));
  for (const [index, chord] of chords.entries()) {
    const before = chosen.get(index - 1);
    const goesOn = index > 0 && sameChord(at(chords, index - 1), chord);
    if (before && goesOn) chosen.set(index, before);
  }
  return chosen;
}
