/** `options`, `coverage`, `crossings` and `chains`: choosing material, and what changes. */
import type { z } from 'zod';
import type { Chart } from '$core/chart/form';
import { type Chord, chordNotes } from '$core/chords/chords';
import { degreesOver } from '$core/chords/over';
import { parentCollection, parseCollection } from '$core/collections/collections';
import { type Crossing, cross } from '$core/crossings/crossing';
import { type Lane, lanesOf } from '$core/crossings/lanes';
import { remarksOn } from '$core/crossings/remarks';
import { readHarmony } from '$core/harmony/reading';
import { at } from '$core/lists';
import type { Clash } from '$core/lenses/assess';
import { chainsThrough } from '$core/lenses/chains';
import { coverageOf } from '$core/lenses/coverage';
import {
  collectionMaterial,
  defaultMaterial,
  type Material,
  parseMaterial,
} from '$core/lenses/material';
import {
  changeFrom,
  lensContexts,
  type Option,
  optionsFor,
  reasonFor,
  tensionsOver,
} from '$core/lenses/options';
import { degreeName } from '$core/notes/degrees';
import { type Interval, type Note, noteName, parseNote } from '$core/notes/notes';
import { describeChord, requestedChart } from './chart';
import type {
  chainsAnswer,
  chainsRequest,
  coverageAnswer,
  coverageRequest,
  crossingsAnswer,
  crossingsRequest,
  optionAnswer,
  optionsAnswer,
  optionsRequest,
} from './lensSchemas';
import { accept, type EngineResult, refuse } from './refusals';

/** What a request plays over each chord; null where it says nothing. */
export function requestedChoices(
  chart: Chart,
  names: readonly (string | null)[] | undefined,
): EngineResult<readonly (Material | null)[]> {
  if (names && names.length > chart.chords.length) {
    const message = `There are ${names.length} choices for ${chart.chords.length} chords.`;
    return refuse({ code: 'out_of_range', message, path: 'choices' });
  }
  const choices: (Material | null)[] = [];
  for (const [index, name] of (names ?? []).entries()) {
    const material = name === null ? null : parseMaterial(name);
    if (name !== null && material === null) {
      const message = `“${name}” is nothing to play: write it like Eb major pentatonic, Cm7 arpeggio or Bb triad.`;
      return refuse({ code: 'unknown_collection', message, path: `choices.${index}` });
    }
    choices.push(material);
  }
  return accept(chart.chords.map(({ index }) => choices[index] ?? null));
}

const describeClash = ({ note, degree, above }: Clash) => ({
  note: noteName(note),
  degree: degreeName(degree),
  above: noteName(above),
});

function describeOption(
  chord: Chord,
  option: Option,
  previous: Material | null,
  index: number,
): z.infer<typeof optionAnswer> {
  const { lens, material, assessment, covers, then } = option;
  const parent = material.collection && parentCollection(material.collection);
  const { held, arrives, leaves } = changeFrom(previous, material);
  return {
    lens,
    name: material.name,
    root: noteName(material.root),
    collection: material.kind,
    notes: material.notes.map(noteName),
    degrees: assessment.degrees.map(degreeName),
    tensions: [...tensionsOver(chord, option)],
    ...(parent ? { parent: { root: noteName(parent.root), collection: parent.kind.name } } : {}),
    covered: assessment.covered.map(noteName),
    missing: assessment.missing.map(noteName),
    clashes: assessment.clashes.map(describeClash),
    blue: assessment.blue.map(noteName),
    colours: assessment.colours.map(noteName),
    outsideKey: assessment.outsideKey.map(noteName),
    fromPrevious: {
      held: held.map(noteName),
      arrives: arrives.map(noteName),
      leaves: leaves.map(noteName),
    },
    common: option.common,
    intent: option.intent,
    rank: option.rank,
    reason: reasonFor(chord, option),
    ...(covers ? { covers: { from: index - covers.before, to: index + covers.after } } : {}),
    ...(then ? { then: { name: then.to.name, after: then.after } } : {}),
  };
}

export function answerOptions(
  request: z.infer<typeof optionsRequest>,
): EngineResult<z.infer<typeof optionsAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const { chords } = chart.value;
  const { index } = request;
  const played = chords[index];
  if (!played) {
    const message =
      chords.length === 0
        ? 'This chart has no chords.'
        : `This chart has the chords 0 to ${chords.length - 1}.`;
    return refuse({ code: 'out_of_range', message, path: 'index' });
  }
  const choices = requestedChoices(chart.value, request.choices);
  if (!choices.ok) return choices;
  const choiceAt = (place: number): Material | null => {
    const other = chords[place];
    return other ? (choices.value[place] ?? defaultMaterial(other.chord)) : null;
  };
  const reading = readHarmony(chart.value);
  const context = at(lensContexts(chart.value, reading), index);
  const previous = choiceAt(index - 1);
  const neighbours = [previous, choiceAt(index + 1)].filter((one) => one !== null);
  const options = optionsFor(context, { neighbours, preferred: [] }, request.lenses);
  return accept({
    chord: describeChord(played, reading.chords[index]),
    options: options.map((option) => describeOption(played.chord, option, previous, index)),
  });
}

const tonesOf = (chord: Chord, notes: readonly Note[]) => {
  const degrees = degreesOver(chord, notes);
  return notes.map((note, index) => ({
    note: noteName(note),
    degree: degreeName(degrees[index] ?? (0 as Interval)),
  }));
};

export function answerCoverage(
  request: z.infer<typeof coverageRequest>,
): EngineResult<z.infer<typeof coverageAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const collection = parseCollection(request.collection);
  if (!collection) {
    const message = `“${request.collection}” is not a collection: write a root and a name, like Eb major pentatonic.`;
    return refuse({ code: 'unknown_collection', message });
  }
  const coverage = coverageOf(chart.value, collectionMaterial(collection));
  return accept({
    chords: coverage.map(({ played: { index, chord }, assessment }) => ({
      index,
      symbol: chord.symbol,
      covered: tonesOf(chord, assessment.covered),
      missing: tonesOf(chord, assessment.missing),
      clashes: assessment.clashes.map(describeClash),
    })),
    spoken: coverage.map(({ sentence }) => sentence),
  });
}

/** A chord with the notes that cross out of it or into it. */
interface Side {
  readonly chord: Chord;
  readonly notes: readonly Note[];
}

function describeCrossing(before: Side, after: Side) {
  const { held, moves, arrives, leaves }: Crossing = cross(before.notes, after.notes);
  const one = ({ chord }: Side, note: Note) => at(tonesOf(chord, [note]), 0);
  return {
    held: held.map(noteName),
    moves: moves.map(({ from, to, halfSteps }) => ({
      from: one(before, from),
      to: one(after, to),
      semitones: halfSteps,
    })),
    arrives: arrives.map(noteName),
    leaves: leaves.map(noteName),
  };
}

const describeLane = (lane: Lane) =>
  lane.map(({ index, note, degree, halfSteps }) => ({
    index,
    note: noteName(note),
    degree: degreeName(degree),
    semitones: halfSteps,
  }));

export function answerCrossings(
  request: z.infer<typeof crossingsRequest>,
): EngineResult<z.infer<typeof crossingsAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const choices = requestedChoices(chart.value, request.choices);
  if (!choices.ok) return choices;
  const start = request.start === undefined ? null : parseNote(request.start);
  if (request.start !== undefined && start === null) {
    const message = `“${request.start}” is not a note: write it like Eb, F# or Abb.`;
    return refuse({ code: 'invalid_request', message, path: 'start' });
  }
  const { chords } = chart.value;
  const reading = readHarmony(chart.value);
  const pairs = chords
    .map(({ index }) => [index, (index + 1) % chords.length] as const)
    .slice(0, request.loop && chords.length > 1 ? chords.length : Math.max(0, chords.length - 1));
  const side = (index: number, notes: readonly Note[]): Side => ({
    chord: at(chords, index).chord,
    notes,
  });
  const lanes = lanesOf(
    chords.map(({ chord }) => chord),
    start,
  );
  return accept({
    crossings: pairs.map(([from, to]) => {
      const before = choices.value[from];
      const after = choices.value[to];
      return {
        from,
        to,
        chord: describeCrossing(
          side(from, chordNotes(at(chords, from).chord)),
          side(to, chordNotes(at(chords, to).chord)),
        ),
        ...(before && after
          ? { collection: describeCrossing(side(from, before.notes), side(to, after.notes)) }
          : {}),
      };
    }),
    lanes: {
      '1': describeLane(lanes['1']),
      '3': describeLane(lanes['3']),
      '5': describeLane(lanes['5']),
      '7': describeLane(lanes['7']),
      smooth: describeLane(lanes.smooth),
      definers: describeLane(lanes.definers),
    },
    remarks: [
      ...remarksOn(
        chords.map(({ chord }) => chord),
        reading.blues ? (reading.key.key?.tonic ?? null) : null,
      ),
    ],
  });
}

export function answerChains(
  request: z.infer<typeof chainsRequest>,
): EngineResult<z.infer<typeof chainsAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const { chords } = chart.value;
  const last = Math.max(0, chords.length - 1);
  const { from = 0, to = last } = request;
  if (from < 0 || to > last || from > to) {
    const message = `A stretch lies between chord 0 and chord ${last}, its beginning first.`;
    return refuse({ code: 'out_of_range', message, path: from < 0 || from > to ? 'from' : 'to' });
  }
  const stretch = chords.slice(from, to + 1).map(({ chord }) => chord);
  return accept({
    chains: chainsThrough(stretch).map(({ step, stops }) => ({
      step,
      stops: stops.map(({ index, collection, relation }) => ({
        index: from + index,
        root: noteName(collection.root),
        collection: collection.kind.name,
        relation: degreeName(relation),
      })),
    })),
  });
}
