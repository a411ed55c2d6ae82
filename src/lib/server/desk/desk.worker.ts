/** A thread that does one job on the whole book, and tells what it makes as it is asked for. */
import { constants, setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { problemOf } from '../problems';
import { type DeskJob, type Places, work } from './jobs';
import type { Piece } from './desk';

// Who saves goes first, and still it has its share of a busy machine. Elsewhere a priority is the whole process's.
if (process.platform === 'linux') setPriority(0, constants.priority.PRIORITY_BELOW_NORMAL);
const { places, job } = workerData as { readonly places: Places; readonly job: DeskJob };
const pieces = work(places, job);

async function next(): Promise<Piece> {
  try {
    const piece = await pieces.next();
    return piece.done ? { kind: 'done' } : { kind: 'told', told: piece.value };
  } catch (error) {
    const reason = error instanceof Error ? (error.stack ?? error.message) : String(error);
    return { kind: 'failed', problem: problemOf(error)?.kind ?? null, reason };
  }
}

parentPort?.on('message', () => {
  void next().then((piece) => {
    // Bytes are given away, not copied.
    const bytes = piece.kind === 'told' && piece.told instanceof Uint8Array ? piece.told : null;
    parentPort?.postMessage(piece, bytes ? [bytes.buffer as ArrayBuffer] : []);
  });
});
