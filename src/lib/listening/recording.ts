/** A recording opened instead of a microphone: whatever the browser decodes, heard in the worker. */
import type { HeardNote } from '$core/listening/notes';
import { openHearing } from './hearing';

const LIMIT = 60 * 2 ** 20;

type OpenedRecording =
  | { readonly ok: true; readonly notes: readonly HeardNote[] }
  | { readonly ok: false; readonly message: string };

/** The notes of a recording's file. */
export async function openRecording(file: File): Promise<OpenedRecording> {
  if (file.size > LIMIT) return { ok: false, message: 'A recording may hold 60 MB.' };
  const context = new OfflineAudioContext(1, 1, 44_100);
  let buffer: AudioBuffer;
  try {
    buffer = await context.decodeAudioData(await file.arrayBuffer());
  } catch {
    return { ok: false, message: `${file.name} is no recording this browser can read.` };
  }
  const { worker, remote } = openHearing();
  try {
    const notes = await remote.whole(buffer.getChannelData(0), buffer.sampleRate);
    if (notes.length === 0) return { ok: false, message: 'No notes were heard in this recording.' };
    return { ok: true, notes };
  } finally {
    worker.terminate();
  }
}
