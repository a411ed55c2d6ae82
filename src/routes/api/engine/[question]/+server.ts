import type { Question } from '$lib/engine/question';
import { QUESTIONS } from '$lib/engine/questions';
import { askEngine } from '$lib/server/engine';
import { readBody, readRecording, refusalResponse } from '$lib/server/request';
import type { RequestHandler } from './$types';

/** Bytes a question's request may have; the usual limit where it says nothing. */
const bytesOf = ({ megabytes }: Question) =>
  megabytes === undefined ? undefined : megabytes * 2 ** 20;

export const POST: RequestHandler = async ({ params, request }) => {
  const question = Object.hasOwn(QUESTIONS, params.question) && QUESTIONS[params.question];
  if (!question) {
    const message = `There is no question “${params.question}”; GET /api/engine lists them.`;
    return refusalResponse({ status: 404, code: 'not_found', message });
  }
  const body =
    question.takes === 'sound'
      ? await readRecording(request)
      : await readBody(request, question.request, bytesOf(question));
  if (!body.ok) return refusalResponse(body.refusal);
  return askEngine({ question: params.question, request: body.value });
};
