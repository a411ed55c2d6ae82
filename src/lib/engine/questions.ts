/** Every question the engine answers over HTTP: its schemas, its words, its answer. */
import type { z } from 'zod';
import { answerChart } from './chart';
import { answerCollections } from './collections';
import type { EngineResult } from './refusals';
import { chartAnswer, chartRequest, collectionsAnswer, collectionsRequest } from './schemas';

export interface Question {
  readonly summary: string;
  readonly request: z.ZodType;
  readonly answer: z.ZodType;
  /** The request has already passed its schema. */
  readonly ask: (request: unknown) => EngineResult<unknown>;
}

function question<Request, Answer>(
  summary: string,
  request: z.ZodType<Request>,
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
};
