<!-- What a line does, and what it says of the changes when it is asked. -->
<script lang="ts">
  import { CLEAR } from '$core/licks/heard';
  import { readLick } from '$core/licks/reading';
  import { SCORE_PARTS, type ScorePart } from '$core/lines/score';
  import type { Beats } from '$core/time/units';
  import { list } from '$core/words';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import type { Practice } from './practice.svelte';
  import { barOf, DEFAULT_TIME } from '$core/time/metre';

  interface Props {
    readonly practice: Practice;
    /** What sounds, as the beat it began at; null where nothing does. */
    readonly moment: Beats | null;
  }

  let { practice, moment }: Props = $props();

  const study = getStudy();
  const passage = $derived(practice.passage);

  /** What the line does here, and from beginning to end; null for what is no line. */
  const idea = $derived.by(() => {
    const line = practice.opened ? null : (practice.exercise?.line ?? null);
    const bar = barOf(passage?.time ?? DEFAULT_TIME);
    if (!line) return null;
    const here = Math.floor((moment ?? 0) / bar);
    const which = line.plan.phrases.findLastIndex(({ bars }) => bars.first <= here);
    const words = line.words[Math.max(0, which)] ?? '';
    const names = Object.keys(SCORE_PARTS) as ScorePart[];
    const weak = names.filter((name) => line.score.parts[name] < 0.6);
    const less = list(weak.map((name) => SCORE_PARTS[name].words));
    return {
      here: `${words.charAt(0).toUpperCase()}${words.slice(1)}.`,
      all: `${line.words.join('; ')}.${less === '' ? '' : ` Less so than other lines: ${less}.`}`,
    };
  });
  /** Whether what the sheet says of the changes is looked at. */
  let asked = $state(false);
  /** Sentences of chords that are not heard, at the most. */
  const UNCLEAR = 4;
  const heard = $derived.by(() => {
    const { chart, key, neck } = study;
    const whole = practice.opened !== null || practice.settings.extent === 'whole';
    if (!passage || !chart || !whole || passage.notes.length === 0) return null;
    if (!asked) return { sentence: '', unclear: [] };
    const { heard: read } = readLick(chart, key, neck, passage.notes);
    const unclear = read.chords.filter(({ share }) => share < CLEAR).slice(0, UNCLEAR);
    return { sentence: read.sentence, unclear: unclear.map(({ sentence }) => sentence) };
  });
</script>

{#if idea || heard}
  <details
    class="min-w-0 text-ink-soft"
    ontoggle={(event) => (asked = event.currentTarget.open)}
    data-plan
  >
    <summary class="cursor-pointer">{idea?.here ?? 'What it says of the changes'}</summary>
    {#if idea}<p>{idea.all}</p>{/if}
    {#if heard}
      <p data-heard>
        {heard.sentence}
        {heard.unclear.map((sentence) => showSymbol(sentence)).join(' ')}
      </p>
    {/if}
  </details>
{/if}
