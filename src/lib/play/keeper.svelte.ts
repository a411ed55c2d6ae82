/** The log writes itself: what is played is a stint from half a minute on, and grows while it goes on. */
import { onDestroy, untrack } from 'svelte';
import { FREE } from '$core/log/session';
import { addStint, changeStint } from '$lib/log/api';
import { localMoment, SAID, type Said, STINT, type StintContent } from '$lib/log/messages';
import { sizeOf } from '$lib/study/loops';
import type { Study } from '$lib/study/study.svelte';
import type { Landed, PassLandings } from './landed.svelte';
import type { Stage } from './stage.svelte';

/** How often a stint that goes on is kept. */
const EVERY = 15_000;

interface Going {
  readonly at: string;
  readonly since: number;
  readonly exercise: string;
  readonly zone: { readonly low: number; readonly high: number };
  readonly tempo: number;
  id: string | null;
  asked: number;
  landed: number;
  said: Said | null;
}

export function keepsStints(study: Study, stage: Stage, landed: Landed) {
  let going: Going | null = null;
  let counted: PassLandings | null = null;
  /** What is being written, so that a stint is added once. */
  let writing: Promise<unknown> = Promise.resolve();
  let kept = $state.raw<{ readonly minutes: number; readonly said: Said | null } | null>(null);

  const exercise = () =>
    stage.kept ? 'sheet' : stage.settings.line === 'none' ? FREE : stage.settings.line;

  function contentOf(one: Going): StintContent {
    const { chart } = study;
    const loop = stage.settings.loop;
    const heard = one.asked > 0;
    const said = one.said === null ? null : SAID[one.said];
    return {
      ...{ at: one.at, chart: study.id, exercise: one.exercise, zone: one.zone },
      extent: (chart && sizeOf(chart, stage.index, loop)) ?? 'form',
      tempoFrom: Math.round(one.tempo),
      tempo: Math.round(stage.tempo),
      minutes: Math.min(STINT.most, (performance.now() - one.since) / 60_000),
      asked: heard ? one.asked : said === null ? null : SAID.asked,
      landed: heard ? one.landed : said,
      note: '',
    };
  }

  function write(one: Going) {
    const content = contentOf(one);
    if (content.minutes < STINT.least) return;
    kept = { minutes: content.minutes, said: one.said };
    writing = writing.then(async () => {
      if (one.id === null) one.id = await addStint(content);
      else await changeStint(one.id, content);
    });
  }

  const what = $derived(
    stage.playing ? `${exercise()} ${study.zone.low}-${study.zone.high}` : null,
  );
  $effect(() => {
    if (what === null) return;
    const began: Going = {
      ...{ at: localMoment(), since: performance.now(), exercise: exercise() },
      ...{ zone: { low: study.zone.low, high: study.zone.high }, tempo: stage.tempo },
      ...{ id: null, asked: 0, landed: 0, said: null },
    };
    going = began;
    const timer = setInterval(() => write(began), EVERY);
    return () => {
      clearInterval(timer);
      write(began);
    };
  });
  $effect(() => {
    const { done } = landed;
    // A recording that was opened is no practice of now.
    if (!going || !done || done === counted || done.span === null) return;
    counted = done;
    going.asked += done.asked;
    going.landed += done.landed;
    // A pass that was broken off is judged after the last was written.
    if (!untrack(() => stage.playing)) write(going);
  });
  onDestroy(() => (going = null));

  return {
    /** The stint that was kept last, if any. */
    get kept() {
      return kept;
    },
    /** The player's own word for how it went. */
    say(said: Said) {
      if (!going) return;
      going.said = said;
      write(going);
    },
  };
}
