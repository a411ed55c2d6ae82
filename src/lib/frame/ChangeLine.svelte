<!-- The change from now to next in one sentence: what falls, rises or stays, and where to land. -->
<script lang="ts">
  import type { Chord } from 'corvel-core';
  import type { SaidChange } from '$core/targets/changes';
  import { showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly now: Chord;
    /** The chord that comes, and what is said of the change; null where nothing changes. */
    readonly next: Chord | null;
    readonly said: SaidChange | null;
  }

  let { now, next, said }: Props = $props();
</script>

<!-- As high as its lines, whatever they say, two of them or three where it is narrow: nothing under it moves. -->
<div
  class="flex shrink-0 items-start gap-x-5 will-change-transform max-sm:flex-col lg:h-14 print:hidden"
  data-change
>
  <h2 class="heading shrink-0 text-[1.75rem]/9 whitespace-nowrap">
    <span class="text-now-text" data-chord-name="now">{showSymbol(now.symbol)}</span>
    {#if next}
      <span class="mx-1 text-xl text-ink-soft" aria-hidden="true">→</span><span class="sr-only"
        >to</span
      >
      <span class="text-next-text" data-chord-name="next">{showSymbol(next.symbol)}</span>
    {/if}
  </h2>
  <p
    class="min-w-0 text-[1.0625rem]/[1.4rem] max-lg:min-h-[4.3rem] lg:pt-1.5 short:min-h-15 short:text-sm/5"
    data-sentence
  >
    {#if said}
      {#each said.clauses as { text, goal }, index (goal)}
        {showSymbol(text)} <strong>{showSymbol(goal)}</strong>{index + 1 < said.clauses.length
          ? '. '
          : '.'}
      {/each}
      <!-- Its line is kept: where to land is known a moment later. -->
      <span class="block font-semibold text-next-text max-lg:min-h-6 short:min-h-5" data-landing
        >{said.landing ? showSymbol(said.landing) : ''}</span
      >
    {:else}
      Only one chord: nothing changes.
    {/if}
  </p>
</div>
