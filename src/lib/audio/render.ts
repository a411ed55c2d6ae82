/** What is played as sound files. */
import toWav from 'audiobuffer-to-wav';
import { transfer, wrap } from 'comlink';
import type { Written } from '$core/formats/result';
import { range } from '$core/lists';
import type { Passage } from 'corvel-core';
import type { Levelling } from './level.worker';
import { passageOnce, type Programme } from './programme';
import { render, type Rendering } from './tone';

/** How long the last note may ring, in seconds. */
const TAIL = 1.5;

/** Brings a recording to the level of a file. */
async function level(recording: AudioBuffer, signal: AbortSignal | undefined): Promise<void> {
  const worker = new Worker(new URL('./level.worker.ts', import.meta.url), { type: 'module' });
  try {
    const channels = range(0, recording.numberOfChannels).map((channel) =>
      recording.getChannelData(channel).slice(),
    );
    const sent = transfer(
      channels,
      channels.map(({ buffer }) => buffer),
    );
    const done = await wrap<Levelling>(worker).level(sent, recording.sampleRate);
    signal?.throwIfAborted();
    for (const [channel, samples] of done.entries()) recording.copyToChannel(samples, channel);
  } finally {
    worker.terminate();
  }
}

/** Some of a programme as a WAV file, as loud as files are. */
export async function programmeWav(
  programme: Programme,
  rendering: Omit<Rendering, 'tail'>,
): Promise<Uint8Array> {
  const recording = await render(programme, { tail: TAIL, ...rendering });
  await level(recording, rendering.signal);
  return new Uint8Array(toWav(recording));
}

/** The passage once through, as it is played. */
export async function writeWav(passage: Passage): Promise<Written<Uint8Array>> {
  const programme = passageOnce(passage);
  const { start, length } = programme;
  return { content: await programmeWav(programme, { from: start, to: length }), remarks: [] };
}
