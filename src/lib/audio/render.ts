/** What is played as sound files. */
import { transfer, wrap } from 'comlink';
import type { Written } from '$core/formats/result';
import { range } from '$core/lists';
import type { Passage } from 'corvel-core';
import type { Writing } from './wav.worker';
import { passageOnce, type Programme } from './programme';
import { render, type Rendering } from './tone';

/** How long the last note may ring, in seconds. */
const TAIL = 1.5;

/** Some of a programme as a WAV file, as loud as files are. */
export async function programmeWav(
  programme: Programme,
  rendering: Omit<Rendering, 'tail'>,
): Promise<Uint8Array> {
  const recording = await render(programme, { tail: TAIL, ...rendering });
  const worker = new Worker(new URL('./wav.worker.ts', import.meta.url), { type: 'module' });
  try {
    const channels = range(0, recording.numberOfChannels).map((channel) =>
      recording.getChannelData(channel).slice(),
    );
    const sent = transfer(
      channels,
      channels.map(({ buffer }) => buffer),
    );
    const written = await wrap<Writing>(worker).write(sent, recording.sampleRate);
    rendering.signal?.throwIfAborted();
    return written;
  } finally {
    worker.terminate();
  }
}

/** The passage once through, as it is played. */
export async function writeWav(passage: Passage): Promise<Written<Uint8Array>> {
  const programme = passageOnce(passage);
  const { start, length } = programme;
  return { content: await programmeWav(programme, { from: start, to: length }), remarks: [] };
}
