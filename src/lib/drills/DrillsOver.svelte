<!-- The end of a sitting: what came back, what returns sooner, and the ways on. -->
<script lang="ts">
  import { rollups } from 'd3-array';
  import { askAnew } from '$lib/ui/anew';
  import { DRILL_WORDS } from '$core/drills/kinds';
  import type { Sitting, Texts } from './sitting.svelte';

  interface Props {
    readonly sitting: Sitting;
    readonly texts: Texts;
  }

  let { sitting, texts }: Props = $props();

  const missed = $derived(sitting.outcome.filter((one) => !one.right));
  /** What did not come back, each once, with how often. */
  const kinds = $derived(
    rollups(
      missed,
      (cards) => cards.length,
      ({ card: { kind, chart } }) =>
        `${DRILL_WORDS[kind]}, ${chart ? (texts[chart]?.title ?? '') : 'no chart'}`,
    ),
  );
</script>

<section aria-labelledby="over" data-drills-over>
  <h2 id="over" class="heading text-2xl">
    {missed.length === 0
      ? `All ${sitting.outcome.length} were right.`
      : `${sitting.outcome.length - missed.length} of ${sitting.outcome.length} were right.`}
  </h2>
  {#if missed.length > 0}
    <p class="mt-1">To repeat:</p>
    <ul class="list-disc pl-6">
      {#each kinds as [name, count] (name)}
        <li>{name}{count > 1 ? `: ${count} times` : ''}</li>
      {/each}
    </ul>
  {/if}
  <p class="mt-3 flex gap-2">
    <button class="button-strong" onclick={() => void askAnew()}>Ten more (Space)</button>
    <a class="button" href="/log">To the log</a>
  </p>
</section>
