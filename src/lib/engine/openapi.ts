/** The OpenAPI 3.1 description of the engine, made from its questions' schemas. */
import { z } from 'zod';
import type { Question } from './question';
import { QUESTIONS } from './questions';
import { errorAnswer } from './shapes';

const jsonContent = (schema: z.ZodType) => ({
  'application/json': { schema: withoutDialect(schema) },
});

function withoutDialect(schema: z.ZodType): Record<string, unknown> {
  const described: Record<string, unknown> = { ...z.toJSONSchema(schema) };
  delete described['$schema'];
  return described;
}

const fileContent = {
  'application/octet-stream': { schema: { type: 'string', format: 'binary' } },
};
const soundContent = { 'audio/wav': { schema: { type: 'string', format: 'binary' } } };

const contentOf = ({ takes, request }: Question) =>
  takes === 'json' ? jsonContent(request) : takes === 'sound' ? soundContent : fileContent;

const failure = (description: string) => ({ description, content: jsonContent(errorAnswer) });

export function describeEngine() {
  const paths = Object.entries(QUESTIONS).map(([name, question]) => [
    `/api/engine/${name}`,
    {
      post: {
        operationId: name,
        summary: question.summary,
        requestBody: {
          required: true,
          content: contentOf(question),
        },
        responses: {
          200: { description: 'The answer', content: jsonContent(question.answer) },
          400: failure('invalid_json'),
          413: failure('too_large'),
          422: failure('invalid_request, invalid_chart, unknown_collection or out_of_range'),
        },
      },
    },
  ]);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Corvel engine',
      version: '1.0.0',
      description:
        'Chords, collections and the neck as questions and answers in JSON. It keeps no state.',
    },
    paths: Object.fromEntries(paths) as Record<string, unknown>,
  };
}
