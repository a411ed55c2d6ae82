/** What is played as sound files. */
import toWav from 'audiobuffer-to-wav';
import type { Written } from '$core/formats/result';
import type { Passage } from '$core/phrases/passage';
import { passageProgramme, type Programme } from './programme';
import { render, type Rendering } from './tone';

/** How long the last note may ring, in seconds. */
const TAIL = 1.5;

/** Some of a programme as a WAV file. */
export async function programmeWav(
  programme: Programme,
  rendering: Omit<Rendering, 'tail'>,
): Promise<Uint8Array> {
  return new Uint8Array(toWav(await render(programme, { tail: TAIL, ...rendering })));
}

/** The passage once through, as it is played. */
export async function writeWav(passage: Passage): Promise<Written<Uint8Array>> {
  const programme = { ...passageProgramme(passage), loop: false };
  const { start, length } = programme;
  return { content: await programmeWav(programme, { from: start, to: length }), remarks: [] };
}
