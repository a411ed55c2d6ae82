/** Passages as sound files. */
import toWav from 'audiobuffer-to-wav';
import type { Written } from '$core/formats/result';
import type { Passage } from '$core/phrases/passage';
import { passageProgramme } from './programme';
import { render } from './tone';

/** How long the last note may ring, in seconds. */
const TAIL = 1;

/** The passage once through, as it is played. */
export async function writeWav(passage: Passage): Promise<Written<Uint8Array>> {
  const samples = await render(passageProgramme(passage), TAIL);
  return { content: new Uint8Array(toWav(samples)), remarks: [] };
}
