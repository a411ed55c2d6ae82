/** A thread that answers questions of the engine, one after another; the pool of the server asks. */
import { parentPort } from 'node:worker_threads';
import { type EngineJob, type EngineReply, READY } from './jobs';
import { QUESTIONS } from './questions';

async function answer({ question, request }: EngineJob): Promise<EngineReply> {
  try {
    const result = await QUESTIONS[question]?.ask(request);
    if (!result) return { kind: 'failed', reason: `There is no question “${question}”.` };
    return result.ok
      ? { kind: 'answered', status: 200, body: JSON.stringify(result.value) }
      : { kind: 'answered', status: 422, body: JSON.stringify({ error: result.error }) };
  } catch (error) {
    return { kind: 'failed', reason: error instanceof Error ? String(error.stack) : String(error) };
  }
}

parentPort?.postMessage(READY);
parentPort?.on('message', (job: EngineJob) => {
  void answer(job).then((reply) => parentPort?.postMessage(reply));
});
