import type { Question } from '$lib/engine/question';
import { QUESTIONS } from '$lib/engine/questions';
import { askEngine } from '$lib/server/engine';
import {
  type Body,
  readBody,
  readBytes,
  readRecording,
  refusalResponse,
} from '$lib/server/request';
import type { RequestHandler } from './$types';

/** Bytes a question's request may have; the usual limit where it says nothing. */
const bytesOf = ({ megabytes }: Question) =>
  megabytes === undefined ? undefined : megabytes * 2 ** 20;

/** Bytes of a file of any kind. */
const FILE_BYTES = 5 * 2 ** 20;

const READERS: Readonly<
  Record<Question['takes'], (request: Request, question: Question) => Promise<Body<unknown>>>
> = {
  json: (request, question) => readBody(request, question.request, bytesOf(question)),
  sound: (request) => readRecording(request),
  file: (request) => readBytes(request, FILE_BYTES),
};

export const POST: RequestHandler = async ({ params, request }) => {
  const question = Object.hasOwn(QUESTIONS, params.question) && QUESTIONS[params.question];
  if (!question) {
    const message = `There is no question “${params.question}”; GET /api/engine lists them.`;
    return refusalResponse({ status: 404, code: 'not_found', message });
  }
  const body = await READERS[question.takes](request, question);
  if (!body.ok) return refusalResponse(body.refusal);
  return askEngine({ question: params.question, request: body.value });
};
