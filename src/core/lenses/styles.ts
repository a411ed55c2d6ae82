/**
 * A plan for a whole chart in one style: what to play over each chord and how much to say of it.
 * The choices are made together, as a cheapest path, since each depends on its neighbours.
 */
import { ARRIVALS } from '../harmony/cadences';
import type { Chart } from '../chart/form';
import { sameChord } from '../chords/chords';
import { isDiatonic } from '../harmony/membership';
import type { Reading } from '../harmony/reading';
import { at, modulo } from '../lists';
import { collection } from '../collections/collections';
import { FALLING_FIFTH, isMinorChord, rootMotion } from '../harmony/changes';
import { isMinorKey } from '../keys/keys';
import { degree } from '../notes/degrees';
import { type Note, pitchClass, simpleRoot, transpose } from '../notes/notes';
import { bestPaths } from '../paths/layered';
import { type ChainStop, resolves } from './chains';
import { chosenChains } from './chosenChains';
import { bestSingles, worthOf } from './coverage';
import type { Intent, LensContext, Suggestion } from './lens';
import type { Lens } from './table';
import { collectionMaterial, defaultMaterial, type Material } from './material';
import { lensContexts, optionOf, suggest } from './options';
import { borrowedCollection, borrowedInChains, keyCollections } from './pentatonics';
import { rankSum, sharedShare } from './ranking';
import { barOf } from '../time/metre';

/** Ways to plan a whole chart. */
export const STYLES = [
  'one-scale',
  'own-pentatonics',
  'chord-tones',
  'modes',
  'harmonic-minor',
  'melodic-minors',
  'chains',
  'blues',
] as const;
export type Style = (typeof STYLES)[number];

/** What is played over one chord, and how much of the change it says. */
export interface Choice {
  readonly lens: Lens;
  readonly material: Material;
  readonly intent: Intent;
}

/** How much must speak for a change before it is outlined, and before it is leant on. */
const THRESHOLDS: Readonly<Record<Style, readonly [outline: number, lean: number]>> = {
  'one-scale': [4, 2.5],
  'own-pentatonics': [2.75, 1],
  'chord-tones': [2, 0.5],
  modes: [2.5, 1],
  'harmonic-minor': [2.5, 1],
  'melodic-minors': [2.5, 1],
  chains: [2.75, 1],
  blues: [2.75, 1],
};

/** What a change gains by standing where a phrase of two or four bars begins. */
const phraseWeight = (bar: number): number =>
  (bar % 2 === 1 ? 0.25 : 0) + (bar % 4 === 1 ? 0.25 : 0);

/** Where a chord only goes on sounding, nothing changes. */
const UNCHANGED = -10;

/** How strongly each change asks to be said: new guide tones, a chord out of key, an arrival, time. */
function strengths(chart: Chart, reading: Reading): readonly number[] {
  const { chords } = chart;
  const barBeats = barOf(chart.source.time);
  return chords.map(({ chord, index, bar, beats }) => {
    const before = chords[modulo(index - 1, chords.length)]?.chord ?? chord;
    if (sameChord(before, chord) && chords.length > 1) return UNCHANGED;
    const tones = new Set(
      before.quality.degrees.map((one) => pitchClass(transpose(before.root, one))),
    );
    const fresh = chord.quality.guideTones.filter(
      (one) => !tones.has(pitchClass(transpose(chord.root, one))),
    ).length;
    const fast = reading.fast.some(({ from, to }) => from < index && index <= to);
    const arrives = reading.cadences.some(({ kind, to }) => to === index && ARRIVALS.has(kind));
    return (
      fresh +
      (isForeign(reading, index) ? 1 : 0) +
      phraseWeight(bar) +
      (arrives ? 1 : 0) +
      (beats >= barBeats ? 0.5 : 0) -
      (fast ? 3 : 0)
    );
  });
}

/** Out of the key, and not for being a home dominant of a blues. */
const isForeign = (reading: Reading, index: number): boolean =>
  reading.chords[index]?.diatonic === false &&
  reading.chords[index]?.role?.kind !== 'blues home dominant';

/** Intents for every chord: the strong changes outlined, the fast and the plain ones coasted. */
export function proposeIntents(chart: Chart, reading: Reading, style: Style): readonly Intent[] {
  const [outline, lean] = THRESHOLDS[style];
  return strengths(chart, reading).map((strength) =>
    strength >= outline ? 'outline' : strength >= lean ? 'lean' : 'coast',
  );
}

/** Something that may be played over a chord in a style, and what the style thinks of it. */
interface Candidate {
  readonly suggestion: Suggestion;
  readonly bonus: number;
}

const candidate = (suggestion: Suggestion, bonus = 0): Candidate => ({ suggestion, bonus });

const plain = (lens: Lens, material: Material): Suggestion => ({
  lens,
  material,
  why: '',
  common: false,
});

const DEFAULT_BONUS = 4;
const COAST_BONUS = 8;

/** The key's own pentatonic where a chord of the key is passed over. */
const coasting = (context: LensContext, passedOver: boolean): readonly Candidate[] =>
  passedOver && context.key !== null && isDiatonic(context.chord, context.key)
    ? suggest(context, ['key-scale'])
        .slice(0, 1)
        .map((suggestion) => candidate(suggestion, COAST_BONUS))
    : [];

const MINOR_THIRD = degree('b3');
const FLAT_SECOND = degree('b2');
const FOURTH = degree('4');
const FLAT_SEVENTH = degree('b7');

/**
 * The two schools of a minor ii–V–i: one harmonic minor, the tonic's, over everything, or three melodic
 * minors, a minor third above the root of the iiø, a half step above that of the V, and the tonic's own,
 * whose roots spell the iv. (Levine, "The Jazz Theory Book", 1995, has both.) A V that goes to a major chord
 * is coloured alike. Null for other chords.
 */
function inCadence(
  style: 'harmonic-minor' | 'melodic-minors',
  { chord, next, key }: LensContext,
): Suggestion | null {
  const { root, quality } = chord;
  const falls = next !== null && rootMotion(chord, next) === FALLING_FIFTH;
  const minor = (tonic: Note, name: string): Suggestion =>
    plain('mode', collectionMaterial(collection(simpleRoot(tonic, root), name)));
  if (quality.family === 'half-diminished' && falls)
    return style === 'harmonic-minor'
      ? minor(transpose(root, FLAT_SEVENTH), 'harmonic minor')
      : minor(transpose(root, MINOR_THIRD), 'melodic minor');
  const led = next !== null && isMinorChord(next);
  const five = quality.family === 'dominant' || (quality.family === 'major' && led);
  if (five && falls && next.quality.family !== 'dominant')
    return style === 'harmonic-minor'
      ? minor(transpose(root, FOURTH), 'harmonic minor')
      : minor(transpose(root, FLAT_SECOND), 'melodic minor');
  const home = key !== null && isMinorKey(key) && pitchClass(key.tonic) === pitchClass(root);
  return home && quality.family === 'minor'
    ? minor(root, style === 'harmonic-minor' ? 'harmonic minor' : 'melodic minor')
    : null;
}

function candidatesFor(
  style: Style,
  context: LensContext,
  passedOver: boolean,
): readonly Candidate[] {
  switch (style) {
    case 'own-pentatonics':
      return [
        ...suggest(context, ['own-pentatonic']).map((one) => candidate(one, DEFAULT_BONUS)),
        ...suggest(context, ['borrowed-pentatonic'])
          .filter(({ common }) => common)
          .map((one) => candidate(one, -DEFAULT_BONUS)),
        ...coasting(context, passedOver),
      ];
    case 'chord-tones':
      return [
        ...suggest(context, ['chord-tones'])
          .slice(0, 1)
          .map((one) => candidate(one)),
        ...coasting(context, passedOver),
      ];
    case 'modes':
      return suggest(context, ['mode']).map((one, index) =>
        candidate(one, index === 0 ? DEFAULT_BONUS : 0),
      );
    case 'harmonic-minor':
    case 'melodic-minors': {
      const minor = inCadence(style, context);
      return minor
        ? [candidate(minor)]
        : suggest(context, ['mode']).map((one, index) =>
            candidate(one, index === 0 ? DEFAULT_BONUS : 0),
          );
    }
    case 'chains': {
      const falls = context.next !== null && resolves(context.chord, context.next);
      return borrowedInChains(context.chord, falls).map((borrowed) =>
        candidate(
          plain(
            'borrowed-pentatonic',
            collectionMaterial(borrowedCollection(context.chord, borrowed)),
          ),
        ),
      );
    }
    case 'blues':
      return suggest(context, ['blues']).map((one, index) =>
        candidate(one, index === 0 ? DEFAULT_BONUS : 0),
      );
    default:
      return [];
  }
}

/** Half steps a shape is shifted between two roots, the shorter way. */
const shift = (from: Material, to: Material): number =>
  Math.abs(modulo(pitchClass(to.root) - pitchClass(from.root) + 5, 12) - 5);

const SHARED_WORTH = 4;
const OTHER_SHAPE = 6;
/** What a shift by so many half steps costs a chain: the neighbouring fret is what it is about. */
const SHIFTS = [1, 0, 2] as const;

function stepCost(style: Style, from: Material, to: Material): number {
  if (style !== 'chains') return SHARED_WORTH * (1 - sharedShare(from, to));
  const frets = shift(from, to);
  return (SHIFTS[frets] ?? frets + 2) * 2 + (from.kind === to.kind ? 0 : OTHER_SHAPE);
}

const SIZE_COST = 0.6;

/** The one collection that serves a whole chart best for what it asks of the hand. */
function singleScale(chart: Chart, reading: Reading): Material | null {
  const { key } = reading.key;
  const all = key ? keyCollections(key, reading.blues).map(collectionMaterial) : bestSingles(chart);
  const beats = chart.chords.reduce((sum, played) => sum + played.beats, 0);
  const value = (material: Material) =>
    worthOf(chart, material) - beats * SIZE_COST * (material.notes.length - 5);
  return all.reduce<Material | null>(
    (best, one) => (best === null || value(one) > value(best) ? one : best),
    null,
  );
}

// Whole hundredths, so that equal sums are equal.
const hundredths = (cost: number): number => Math.round(cost * 100);

/** A choice for every chord of a chart in a style. Empty where the chart has no chords. */
export function propose(chart: Chart, reading: Reading, style: Style): readonly Choice[] {
  const intents = proposeIntents(chart, reading, style);
  const contexts = lensContexts(chart, reading);
  if (style === 'one-scale') {
    const single = singleScale(chart, reading);
    return contexts.map(({ chord }, index) => ({
      lens: single ? 'key-scale' : 'own-pentatonic',
      material: single ?? defaultMaterial(chord),
      intent: at(intents, index),
    }));
  }
  const chains =
    style === 'chains'
      ? chosenChains(contexts.map(({ chord }) => chord))
      : new Map<number, ChainStop>();
  const layers = contexts.map((context, index) => {
    const { chord } = context;
    const before = contexts[modulo(index - 1, contexts.length)]?.chord ?? chord;
    const passedOver = at(intents, index) === 'coast' && !sameChord(before, chord);
    const chained = chains.get(index);
    const found = chained
      ? [candidate(plain('borrowed-pentatonic', collectionMaterial(chained.collection)))]
      : candidatesFor(style, context, passedOver);
    return found.length > 0
      ? found
      : [candidate(plain('own-pentatonic', defaultMaterial(context.chord)))];
  });
  const worth = layers.map((candidates, index) =>
    candidates.map(
      ({ suggestion, bonus }) => bonus + rankSum(optionOf(at(contexts, index), suggestion).parts),
    ),
  );
  const material = (layer: number, node: number) => at(at(layers, layer), node).suggestion.material;
  const [best] = bestPaths(
    {
      sizes: layers.map((candidates) => candidates.length),
      node: (layer, node) => -hundredths(at(at(worth, layer), node)),
      edge: (layer, from, to) =>
        hundredths(
          stepCost(style, material(layer, from), material((layer + 1) % layers.length, to)),
        ),
      loop: layers.length > 1,
    },
    1,
  );
  return (best?.nodes ?? []).map((node, index) => {
    const { lens, material: chosen } = at(at(layers, index), node).suggestion;
    return { lens, material: chosen, intent: at(intents, index) };
  });
}
