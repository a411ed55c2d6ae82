/** Everything a player could play over each chord of a chart, by every lens, best first. */
import { withBassTone } from '../chords/bass';
import { rememberBy } from '../cache';
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
import { tensionOver } from '../chords/over';
import type { Reading } from '../harmony/reading';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween, type Note, pitchClass, transpose } from '../notes/notes';
import { type Assessment, assess } from './assess';
import { bestSingles } from './coverage';
import {
  type CadenceAround,
  type Intent,
  type LensContext,
  type Suggestion,
  type Switch,
} from './lens';
import { collectionMaterial, type Material } from './material';
import { modeContextAt } from './modeContext';
import { withFlatFifth } from './pentatonics';
import {
  ownParts,
  type RankContext,
  type RankParts,
  rankSum,
  WEIGHTS,
  withNeighbours,
} from './ranking';
import { type Lens, LENS_TABLE, LENSES } from './table';
import {
  againstSentence,
  clashSentence,
  coverSentence,
  gainSentence,
  missingSentence,
} from './words';

/** A suggestion held against its chord, as far as the chord's place alone decides. */
interface Held {
  readonly suggestion: Suggestion;
  readonly assessment: Assessment;
  readonly intent: Intent;
  readonly parts: RankParts;
}

/** A suggestion weighed: what it covers and costs over the chord, and where it ranks. */
export interface Option extends Omit<Suggestion, 'covers' | 'then' | 'front'> {
  readonly covers: NonNullable<Suggestion['covers']> | null;
  readonly then: Switch | null;
  readonly assessment: Assessment;
  /** What it is good for: naming the change, touching a guide tone, or staying put. */
  readonly intent: Intent;
  /** What speaks for it and against it; they sum to what it is ranked by. */
  readonly parts: RankParts;
  /** From 1, the best. */
  readonly rank: number;
}

/** What every lens needs to know of every chord of a chart, in order. */
export function lensContexts(chart: Chart, reading: Reading): readonly LensContext[] {
  const singles = reading.key.key === null ? bestSingles(chart) : [];
  const bluesTonic = reading.blues ? (reading.key.key?.tonic ?? null) : null;
  const cadencesAt = (index: number): readonly CadenceAround[] =>
    reading.cadences
      .filter(({ from, to }) => from <= index && index <= to)
      .map(({ kind, key, from, to }) => ({ kind, key, before: index - from, after: to - index }));
  return chart.chords.flatMap(({ index }): readonly LensContext[] => {
    const context = modeContextAt(chart, reading, index);
    return context
      ? [
          {
            ...context,
            chord: withBassTone(context.chord),
            cadences: cadencesAt(index),
            bluesTonic,
            singles,
            idiom: reading.idiom,
          },
        ]
      : [];
  });
}

/** What the lenses asked for suggest over a chord, in the order of the lenses. */
export const suggest = (
  context: LensContext,
  lenses: readonly Lens[] = LENSES,
): readonly Suggestion[] => lenses.flatMap((lens) => LENS_TABLE[lens].answer(context));

function intentOf(lens: Lens, { guideTones, guideToneCount }: Assessment): Intent {
  if (lens === 'key-scale' || guideTones.length === 0) return 'coast';
  return guideTones.length === guideToneCount ? 'outline' : 'lean';
}

function hold(context: LensContext, suggestion: Suggestion): Held {
  const assessment = assess(context.chord, suggestion.material, context);
  return {
    suggestion,
    assessment,
    intent: intentOf(suggestion.lens, assessment),
    parts: ownParts(suggestion, assessment),
  };
}

const chordId = (chord: Chord | null): string =>
  chord === null ? '' : `${chord.root}${chord.quality.name}/${chord.bass ?? ''}`;

/** Everything a lens's answer depends on, in a word: charts come back to the same places. */
function placeId(context: LensContext): string {
  const { chord, next, moment, key, blues, settings, bluesTonic, cadences, singles, idiom } =
    context;
  const around = cadences.map(
    (one) => `${one.kind}${one.key.tonic}${one.key.mode}${one.before}-${one.after}`,
  );
  const alone = singles.map(({ name }) => name);
  return [
    chordId(chord),
    chordId(next),
    ...[key, moment].map((one) => (one ? `${one.tonic}${one.mode}` : '')),
    `${blues} ${settings.join()} ${bluesTonic} ${idiom.name} ${idiom.given}`,
    ...around,
    ...alone,
  ].join('|');
}

const heldOver = rememberBy(placeId, (context: LensContext): readonly Held[] =>
  suggest(context).map((suggestion) => hold(context, suggestion)),
);

const UNWEIGHED: RankContext = { neighbours: [], preferred: [] };

/** All options over a chord, best first; equal ones in the order of the lenses. */
export function optionsFor(
  context: LensContext,
  weighing: RankContext = UNWEIGHED,
  lenses: readonly Lens[] = LENSES,
): readonly Option[] {
  const weighed = inOrderOfLenses(
    heldOver(context)
      .filter(({ suggestion }) => lenses.includes(suggestion.lens))
      .map((held) => {
        const parts = withNeighbours(held.parts, held.suggestion, weighing);
        return { held, parts, sum: rankSum(parts) };
      }),
  );
  weighed.sort((a, b) => b.sum - a.sum);
  const listed = arranged(weighed, context);
  return listed.map(({ held, parts }, index) => ranked(held, parts, index + 1));
}

interface Weighed {
  readonly held: Held;
  readonly parts: RankParts;
  readonly sum: number;
}

const lowered = (weighed: Weighed, below: number): Weighed => {
  const order = below + WEIGHTS.order - weighed.sum;
  return { ...weighed, parts: { ...weighed.parts, order }, sum: weighed.sum + order };
};

/** Keeps the order of those lenses that have one: modes as the table has them, common ones first. */
function inOrderOfLenses(weighed: readonly Weighed[]): Weighed[] {
  const limits = new Map<Lens, number>();
  for (const { held, sum } of weighed) {
    const { lens, common } = held.suggestion;
    if (LENS_TABLE[lens].order !== 'common first' || !common) continue;
    limits.set(lens, Math.min(limits.get(lens) ?? Infinity, sum));
  }
  const excess = new Map<Lens, number>();
  for (const { held, sum } of weighed) {
    const { lens, common } = held.suggestion;
    const limit = limits.get(lens);
    if (limit === undefined || common) continue;
    excess.set(lens, Math.max(excess.get(lens) ?? 0, sum - limit));
  }
  return weighed.map((one) => {
    const { lens, common } = one.held.suggestion;
    switch (LENS_TABLE[lens].order) {
      case 'common first': {
        const over = excess.get(lens) ?? 0;
        return common || over === 0 ? one : lowered(one, one.sum - over);
      }
      case 'as given': {
        const limit = limits.get(lens);
        const kept = limit !== undefined && one.sum >= limit ? lowered(one, limit) : one;
        limits.set(lens, kept.sum);
        return kept;
      }
      default:
        return one;
    }
  });
}

const FLAT_SEVENTH = degree('b7');
const MAJOR_SEVENTH = degree('7');

/** How many at the head of a list sound different from one another. */
const HEADS = 5;
/** In a blues, a blues scale stands no lower than this. */
const BLUES_PLACE = 3;

/** Over the IV7 of a blues: its major seventh, the third of I, which nobody plays there first; as a mask. */
function sourOver({ blues, key, chord }: LensContext): number {
  const four = key !== null && halfSteps(intervalBetween(key.tonic, chord.root)) === 5;
  const { degrees } = chord.quality;
  if (!blues || !four || !degrees.includes(FLAT_SEVENTH)) return 0;
  return 1 << pitchClass(transpose(chord.root, MAJOR_SEVENTH));
}

/** The list as it is shown: what players reach for first, and nothing twice among the first few. */
function arranged(sorted: readonly Weighed[], context: LensContext): readonly Weighed[] {
  const { blues } = context;
  const sour = sourOver(context);
  const isBlues = ({ held }: Weighed) =>
    held.suggestion.material.collection?.kind.family === 'blues';
  const first = sorted.filter((one) => frontOf(one) !== null);
  const rest: Weighed[] = [
    ...first.toSorted((a, b) => (frontOf(a) ?? 0) - (frontOf(b) ?? 0)),
    ...sorted.filter((one) => frontOf(one) === null),
  ];
  const heads: Weighed[] = [];
  const heard = new Set<number>();
  while (heads.length < HEADS) {
    const due = blues && heads.length === BLUES_PLACE - 1 && !heads.some(isBlues);
    const fresh = ({ held: { suggestion } }: Weighed) =>
      !heard.has(suggestion.material.mask) && (suggestion.material.mask & sour) === 0;
    const found = due ? rest.findIndex((one) => fresh(one) && isBlues(one)) : -1;
    const place = found >= 0 ? found : rest.findIndex(fresh);
    const [next] = place < 0 ? [] : rest.splice(place, 1);
    if (!next) break;
    heard.add(next.held.suggestion.material.mask);
    heads.push(next);
  }
  return [...heads, ...rest];
}

const frontOf = ({ held }: Weighed): number | null => held.suggestion.front ?? null;

/** What a chord starts with where nothing was chosen: what ranks first by its place alone. */
export const firstOption = rememberBy(
  placeId,
  (context: LensContext): Option | null => optionsFor(context)[0] ?? null,
);

/** Field by field: spreading thousands of suggestions is what takes the time otherwise. */
const ranked = (
  { suggestion, assessment, intent }: Held,
  parts: RankParts,
  rank: number,
): Option => ({
  lens: suggestion.lens,
  material: suggestion.material,
  why: suggestion.why,
  common: suggestion.common,
  covers: suggestion.covers ?? null,
  then: suggestion.then ?? null,
  assessment,
  intent,
  parts,
  rank,
});

/** A suggestion weighed by itself. */
export function optionOf(context: LensContext, suggestion: Suggestion): Option {
  const held = hold(context, suggestion);
  return ranked(held, held.parts, 1);
}

/** Borrowed pentatonics with the flat fifth, as blues scales; those that have none are left out. */
export const withFlatFifths = (
  context: LensContext,
  options: readonly Option[],
): readonly Option[] =>
  options.flatMap(({ lens, material, why, common }) => {
    const blues = material.collection && withFlatFifth(material.collection);
    return blues
      ? [optionOf(context, { lens, material: collectionMaterial(blues), why, common })]
      : [];
  });

/** One line: what speaks for an option, its cost, its gain. */
export function reasonFor(chord: Chord, option: Option): string {
  const { why, material, assessment } = option;
  const cost =
    missingSentence(chord, assessment) ??
    clashSentence(chord, assessment) ??
    againstSentence(chord, material.notes, assessment);
  const gain = gainSentence(chord, material.notes, assessment) ?? coverSentence(assessment);
  const sentence = [why, cost, gain].filter((part) => part !== null).join('; ');
  return `${sentence.slice(0, 1).toUpperCase()}${sentence.slice(1)}.`;
}

/** Each note of a material over a chord, as a tension where it is one. */
export const tensionsOver = (chord: Chord, { assessment }: Option): readonly string[] =>
  assessment.degrees.map((degree) => tensionOver(chord, degree));

/** What changes from the notes chosen over the chord before. */
interface FromPrevious {
  readonly held: readonly Note[];
  readonly arrives: readonly Note[];
  readonly leaves: readonly Note[];
}

/** Held, arriving and leaving notes after a choice; everything arrives where nothing stood before. */
export function changeFrom(previous: Material | null, material: Material): FromPrevious {
  const before = previous?.mask ?? 0;
  const has = (mask: number, note: Note) => (mask & (1 << pitchClass(note))) !== 0;
  return {
    held: material.notes.filter((note) => has(before, note)),
    arrives: material.notes.filter((note) => !has(before, note)),
    leaves: previous ? previous.notes.filter((note) => !has(material.mask, note)) : [],
  };
}
