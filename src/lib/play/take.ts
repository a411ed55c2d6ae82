/** A take: what was heard in a pass, as notes over its bars, kept with the chart when the player says so. */
import { CLEAR, heardSays, hearChanges } from '$core/licks/heard';
import { type Lick, lickOfPassage, overChart } from '$core/licks/lick';
import { takeOf } from '$core/listening/take';
import { passageOf } from '$core/phrases/passage';
import { playedAt } from '$core/time/swing';
import { freshId } from '$lib/ui/ids';
import { keepTake as keepOn } from '$lib/licks/api';
import type { Sound } from '$lib/listening/ear.svelte';
import type { Study } from '$lib/study/study.svelte';
import type { PassLandings } from '$lib/stage/judging';
import { cutPassage } from '$lib/stage/line';
import type { Stage } from '$lib/stage/stage.svelte';

/** What was played in a pass as written notes over its chart; null where there is nothing. */
function playedIn(study: Study, stage: Stage, { pass, taken }: PassLandings) {
  const chart = stage.chartIn(pass);
  const { neck, zone, key } = study;
  const round = stage.passIn(pass);
  if (!chart || !round) return null;
  const notes = takeOf(neck, zone, taken, (beat) => playedAt(beat, stage.feel, chart.source.time));
  return notes.length === 0 ? null : { chart, key, neck, notes, round };
}

/** Whether the changes of a pass would be heard with the band muted, and what would say the first that is not. */
export function heardAlone(study: Study, stage: Stage, pass: PassLandings): string | null {
  const played = playedIn(study, stage, pass);
  if (!played) return null;
  const { chart, neck, notes, round } = played;
  const { start } = round;
  const end = start + round.beats;
  // Only what the loop goes over was played; which chords there are, the whole chart says.
  const chords = hearChanges(chart, neck, notes).chords.filter(({ index }) => {
    const beat = chart.chords[index]?.beat ?? -Infinity;
    return beat >= start && beat < end;
  });
  const unclear = chords.find(({ share }) => share < CLEAR);
  return `${heardSays(chords)}${unclear ? ` ${unclear.sentence}` : ''}`;
}

/** The take of a pass as it is kept. */
function lickOf(study: Study, stage: Stage, pass: PassLandings): Lick | null {
  const played = playedIn(study, stage, pass);
  if (!played) return null;
  const { chart, key, neck, notes, round } = played;
  const title = `Take on ${chart.source.title}: ${pass.landed} of ${pass.asked} landed`;
  const whole = passageOf(chart, key, neck, title, overChart(chart, key, neck, notes));
  return lickOfPassage(cutPassage(whole, round.start, round.start + round.beats), 'a take');
}

type KeptTake =
  | { readonly id: string; /** Until the server is back. */ readonly waiting: boolean }
  | { readonly refused: string };

/** Keeps a pass with its chart, and its sound where that is given. */
export async function keepTake(
  study: Study,
  stage: Stage,
  pass: PassLandings,
  sound: Sound | null,
): Promise<KeptTake> {
  const lick = lickOf(study, stage, pass);
  if (!lick) return { refused: 'No notes of the last pass were heard.' };
  const id = freshId();
  const { wavOf } = await import('$lib/audio/wav');
  const file = sound && new Blob([wavOf([sound.samples], sound.rate)], { type: 'audio/wav' });
  const sent = await keepOn(id, study.id, lick, file);
  return sent.kind === 'refused'
    ? { refused: sent.message }
    : { id, waiting: sent.kind === 'waiting' };
}
