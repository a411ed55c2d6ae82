/** The engine's questions asked away from the thread that serves everyone. */
import { createPool, type Pool } from './pool';
import type { EngineJob, EngineReply } from '$lib/engine/jobs';
import { QUESTIONS } from '$lib/engine/questions';
import { log } from './log';
import { type Refusal, refusalResponse } from './request';

/** Milliseconds: what a question may take, and what one may wait for its turn. */
const DEADLINE = 1_500;
/** Milliseconds that a recording may take: the longest is twenty minutes of it. */
const RECORDING_DEADLINE = 60_000;
const PATIENCE = 600;

let pool: Pool<EngineJob, EngineReply> | null = null;

/** The script of the threads as built; none while developing, where questions are asked in place. */
function threads(): Pool<EngineJob, EngineReply> | null {
  const script = process.env['CORVEL_ENGINE'];
  if (!script) return null;
  pool ??= createPool({
    script,
    size: 2,
    deadline: DEADLINE,
    patience: PATIENCE,
    idle: 15_000,
    megabytes: 192,
  });
  return pool;
}

const LATE: Refusal = {
  status: 422,
  code: 'too_long',
  message: `This takes longer than ${DEADLINE / 1000} seconds: ask for fewer chords, a zone, or fewer alternatives.`,
};

const BUSY: Refusal = {
  status: 429,
  code: 'busy',
  message: 'Other questions are being answered; ask again in a moment.',
};

function failure(reason: string): Response {
  log('error', 'engine', { reason });
  const message = 'Something went wrong while this was worked out.';
  return refusalResponse({ status: 500, code: 'internal', message });
}

const respond = (reply: EngineReply): Response =>
  reply.kind === 'failed'
    ? failure(reply.reason)
    : new Response(reply.body, {
        status: reply.status,
        headers: { 'content-type': 'application/json' },
      });

/** Answers a question whose request has passed its schema. */
export async function askEngine(job: EngineJob): Promise<Response> {
  const running = threads();
  if (!running) {
    const result = QUESTIONS[job.question]?.ask(job.request);
    if (!result) return failure(`There is no question “${job.question}”.`);
    return result.ok
      ? Response.json(result.value)
      : refusalResponse({ status: 422, ...result.error });
  }
  const sound = QUESTIONS[job.question]?.takes === 'sound';
  const outcome = await running.run(job, sound ? RECORDING_DEADLINE : DEADLINE);
  switch (outcome.kind) {
    case 'done':
      return respond(outcome.reply);
    case 'late':
      return refusalResponse(LATE);
    case 'busy':
      return refusalResponse(BUSY);
  }
}
