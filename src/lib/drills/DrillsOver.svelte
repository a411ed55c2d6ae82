<!-- The end of a sitting: what came back, what returns sooner, and the ways on. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { DRILL_WORDS } from '$core/drills/drills';
  import type { Sitting, Texts } from './sitting.svelte';

  interface Props {
    readonly sitting: Sitting;
    readonly texts: Texts;
  }

  let { sitting, texts }: Props = $props();

  const missed = $derived(sitting.outcome.filter((one) => !one.right));
</script>

<section aria-labelledby="over" data-drills-over>
  <h2 id="over" class="heading text-2xl">
    {missed.length === 0
      ? 'All of it came back.'
      : `${sitting.outcome.length - missed.length} came back, ${missed.length} did not.`}
  </h2>
  {#if missed.length > 0}
    <p class="mt-1">These return sooner:</p>
    <ul class="list-disc pl-6">
      {#each missed as { card: one } (one.id)}
        <li>
          {DRILL_WORDS[one.kind]}, {one.chart ? (texts[one.chart]?.title ?? '') : 'general'}
        </li>
      {/each}
    </ul>
  {/if}
  <p class="mt-3 flex gap-2">
    <button class="button-strong" onclick={() => void invalidateAll()}>Ten more</button>
    <a class="button" href="/log">To the log</a>
  </p>
</section>
