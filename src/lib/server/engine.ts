/** The engine's questions asked away from the thread that serves everyone. */
import { createPool, type Pool } from './pool';
import type { EngineJob, EngineReply } from '$lib/engine/jobs';
import { QUESTIONS } from '$lib/engine/questions';
import { log } from './log';
import { type Refusal, refusalResponse } from './request';

/** Milliseconds of the processor that a question may take, and those it may wait for its turn. */
const DEADLINE = 1_500;
const PATIENCE = 600;
/** The same for a recording: the longest is twenty minutes of it, and others wait behind it. */
const RECORDING_DEADLINE = 60_000;
const RECORDING_PATIENCE = 120_000;
/** Deadlines by the clock that either may take on a machine that is busy with other programs. */
const LONGEST = 8;

interface Pools {
  readonly questions: Pool<EngineJob, EngineReply>;
  /** Recordings have a thread of their own: no question waits behind one. */
  readonly recordings: Pool<EngineJob, EngineReply>;
}
let pools: Pools | null = null;

/** The script of the threads as built; none while developing, where questions are asked in place. */
function threads(): Pools | null {
  const script = process.env['CORVEL_ENGINE'];
  if (!script) return null;
  pools ??= {
    questions: createPool({
      script,
      size: 2,
      deadline: DEADLINE,
      longest: LONGEST,
      patience: PATIENCE,
      queue: 64,
      idle: 15_000,
      warm: true,
      megabytes: 192,
    }),
    recordings: createPool({
      script,
      size: 1,
      deadline: RECORDING_DEADLINE,
      longest: LONGEST,
      patience: RECORDING_PATIENCE,
      queue: 4,
      idle: 15_000,
      warm: false,
      megabytes: 192,
    }),
  };
  return pools;
}

/** Has a thread ready before the first question. */
export const warmEngine = (): void => void threads();

const LATE: Refusal = {
  status: 422,
  code: 'too_long',
  message: `This takes more than ${DEADLINE / 1000} seconds of the processor: ask for fewer chords, a zone, or fewer alternatives.`,
};

const BUSY: Refusal = {
  status: 503,
  code: 'busy',
  message: 'The server is busy with other questions. Try again in a moment.',
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
    const result = await QUESTIONS[job.question]?.ask(job.request);
    if (!result) return failure(`There is no question “${job.question}”.`);
    return result.ok
      ? Response.json(result.value)
      : refusalResponse({ status: 422, ...result.error });
  }
  const sound = QUESTIONS[job.question]?.takes === 'sound';
  const outcome = await (sound ? running.recordings : running.questions).run(job);
  switch (outcome.kind) {
    case 'done':
      return respond(outcome.reply);
    case 'late':
      return refusalResponse(LATE);
    case 'busy': {
      const response = refusalResponse(BUSY);
      response.headers.set('retry-after', '2');
      return response;
    }
  }
}
