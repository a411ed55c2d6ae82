<!-- Choices whose chords the chart no longer has: kept until the player puts them back or drops them. -->
<script lang="ts">
  import { showSymbol } from '$lib/ui/glyphs';
  import type { PlanSession } from './session.svelte';

  interface Props {
    readonly session: PlanSession;
  }

  let { session }: Props = $props();

  const kept = $derived(session.plan.setAside);
</script>

{#if kept.length > 0}
  <details class="rounded border border-line-strong px-3 py-1.5 text-sm" data-set-aside>
    <summary>
      {kept.length === 1 ? 'One choice was' : `${kept.length} choices were`} set aside: the chord {kept.length ===
      1
        ? 'it was made for is'
        : 'each was made for is'} no longer there.
    </summary>
    <ul class="my-1.5 flex flex-wrap gap-2">
      {#each kept as one, index (index)}
        <li class="flex items-center gap-2 rounded border border-line px-2 py-1">
          {showSymbol(one.chord)}, bar {one.bar}: {showSymbol(
            one.choice?.name ?? one.choice?.lens ?? '',
          )}
          <button class="underline" onclick={() => session.putBack(one)}>
            Put on {showSymbol(session.now?.chord.symbol ?? '')}
          </button>
        </li>
      {/each}
    </ul>
    <button class="underline" onclick={session.dropSetAside}>Drop them</button>
  </details>
{/if}
