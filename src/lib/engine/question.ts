/** What a question of the engine is: its words, its request, its answer, its function. */
import type { z } from 'zod';
import type { EngineResult } from './refusals';

export interface Question {
  readonly summary: string;
  readonly request: z.ZodType;
  readonly answer: z.ZodType;
  /** What a request holds: JSON, or the bytes of a recording or of any file as they are. */
  readonly takes: 'json' | 'sound' | 'file';
  /** Megabytes a request may hold, where the usual half is too little. */
  readonly megabytes?: number | undefined;
  /** The request has already passed its schema. */
  readonly ask: (request: unknown) => EngineResult<unknown> | Promise<EngineResult<unknown>>;
}

/** A question whose function is held to its schemas. */
export function question<Request, Answer>(parts: {
  readonly summary: string;
  readonly takes?: 'sound' | 'file';
  readonly megabytes?: number;
  readonly request: z.ZodType<Request, unknown>;
  readonly answer: z.ZodType<Answer>;
  readonly ask: (request: Request) => EngineResult<Answer> | Promise<EngineResult<Answer>>;
}): Question {
  return { takes: 'json', ...parts, ask: (value) => parts.ask(value as Request) };
}
