/** A take kept: what was heard in a pass becomes a lick over its bars. */
import { lickOfPassage, overChart } from '$core/licks/lick';
import { takeOf } from '$core/listening/take';
import { passageOf } from '$core/phrases/passage';
import { createLick } from '$lib/licks/api';
import type { Study } from '$lib/study/study.svelte';
import type { Landed } from './landed.svelte';
import { cutPassage } from './line';
import type { Stage } from './stage.svelte';

export type KeptTake = { readonly id: string } | { readonly refused: string };

/** Keeps what was played in the last pass that is over. */
export async function keepTake(study: Study, stage: Stage, landed: Landed): Promise<KeptTake> {
  const pass = Math.max(0, stage.pass - (stage.playing ? 1 : 0));
  const chart = stage.chartIn(pass);
  const taken = takeOf(study.neck, study.zone, landed.heardIn(pass));
  if (!chart || !stage.form || taken.length === 0)
    return { refused: 'No notes of the last pass were heard.' };
  const played = overChart(chart, study.key, study.neck, taken);
  const title = `Take on ${chart.source.title}`;
  const whole = passageOf(chart, study.key, study.neck, title, played);
  const { start, form } = stage;
  const id = await createLick(
    lickOfPassage(cutPassage(whole, start, start + form.beats), 'a take'),
  );
  return id === null ? { refused: 'The server does not answer. The take was not kept.' } : { id };
}
