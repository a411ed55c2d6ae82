/** Every question the engine answers over HTTP: its schemas, its words, its answer. */
import type { z } from 'zod';
import { answerChart } from './chart';
import { answerCollections } from './collections';
import { answerChains, answerCoverage, answerCrossings, answerOptions } from './lenses';
import {
  chainsAnswer,
  chainsRequest,
  coverageAnswer,
  coverageRequest,
  crossingsAnswer,
  crossingsRequest,
  optionsAnswer,
  optionsRequest,
} from './lensSchemas';
import type { EngineResult } from './refusals';
import { answerHomes, answerTriads, answerZones } from './neck';
import {
  chartAnswer,
  chartRequest,
  collectionsAnswer,
  collectionsRequest,
  homesAnswer,
  homesRequest,
  triadsAnswer,
  triadsRequest,
  zonesAnswer,
  zonesRequest,
} from './schemas';

import { answerExercise, answerInto, answerRoute } from './targets';
import {
  exerciseAnswer,
  exerciseRequest,
  intoAnswer,
  intoRequest,
  routeAnswer,
  routeRequest,
} from './targetSchemas';

export interface Question {
  readonly summary: string;
  readonly request: z.ZodType;
  readonly answer: z.ZodType;
  /** The request has already passed its schema. */
  readonly ask: (request: unknown) => EngineResult<unknown>;
}

function question<Request, Answer>(
  summary: string,
  request: z.ZodType<Request, unknown>,
  answer: z.ZodType<Answer>,
  ask: (request: Request) => EngineResult<Answer>,
): Question {
  return { summary, request, answer, ask: (value) => ask(value as Request) };
}

export const QUESTIONS: Readonly<Record<string, Question>> = {
  chart: question(
    'A chart read whole: chords as played, key, functions, cadences, form.',
    chartRequest,
    chartAnswer,
    answerChart,
  ),
  collections: question(
    'A collection by its name with its modes and relations, or every collection that holds some notes.',
    collectionsRequest,
    collectionsAnswer,
    answerCollections,
  ),
  zones: question(
    'Where every chord of a chart lies under the hand: in the five zones, or in one.',
    zonesRequest,
    zonesAnswer,
    answerZones,
  ),
  triads: question(
    'A way through a chart with triads on three strings.',
    triadsRequest,
    triadsAnswer,
    answerTriads,
  ),
  homes: question(
    'A chord, its arpeggio and a collection round one root, on strings 6, 5 and 4.',
    homesRequest,
    homesAnswer,
    answerHomes,
  ),
  options: question(
    'What could be played over a chord, by every lens, with reason and cost; best first.',
    optionsRequest,
    optionsAnswer,
    answerOptions,
  ),
  coverage: question(
    'One collection held against a whole chart: what it covers, lacks and clashes with.',
    coverageRequest,
    coverageAnswer,
    answerCoverage,
  ),
  crossings: question(
    'What holds, moves, leaves and arrives at every change, and the guide-tone lanes.',
    crossingsRequest,
    crossingsAnswer,
    answerCrossings,
  ),
  chains: question(
    'One pentatonic shape shifted through the chords, its roots in even steps.',
    chainsRequest,
    chainsAnswer,
    answerChains,
  ),
  route: question(
    'One note to land on for each chord, chosen together as the path that costs least.',
    routeRequest,
    routeAnswer,
    answerRoute,
  ),
  into: question(
    'Ways from a sounding note into the next chord, best first.',
    intoRequest,
    intoAnswer,
    answerInto,
  ),
  exercise: question(
    'An exercise from the drill book, made from the chart, the choices and a zone.',
    exerciseRequest,
    exerciseAnswer,
    answerExercise,
  ),
};
