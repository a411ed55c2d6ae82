<!-- Where a session is: which block, of how many, why, what is left of it, and what comes next. -->
<script lang="ts">
  import { clockName } from '$lib/ui/amounts';
  import { showSymbol } from '$lib/ui/glyphs';
  import type { SessionPlace } from './block.svelte';
  import { exerciseName } from './words';

  interface Props {
    readonly place: SessionPlace;
    /** Whether the key for the next block works here. */
    readonly keyed?: boolean;
  }

  let { place, keyed = true }: Props = $props();

  const { block, next, left, over } = $derived(place);
  const nextSays = $derived(next ? `${exerciseName(next.exercise)}, ${next.title}` : 'the summary');
</script>

{#if block}
  <p
    class="flex min-w-0 flex-wrap items-baseline gap-x-3 text-sm"
    data-session-block={place.number}
  >
    <strong>Block {place.number} of {place.count}</strong>
    <span class="tabular-nums {over ? 'font-semibold' : ''}" data-block-left>
      {over ? 'time is up' : `${clockName(left)} left`}
    </span>
    <span class="text-ink-soft" data-block-reason>{showSymbol(block.reason)}</span>
    <a
      class={over ? 'button-strong' : 'underline'}
      href={place.onward}
      title={keyed ? 'Next block (>)' : 'Next block'}
      data-block-next>Next: {nextSays}</a
    >
    {#if next}<a class="underline" href={place.end}>End the session</a>{/if}
  </p>
{/if}
