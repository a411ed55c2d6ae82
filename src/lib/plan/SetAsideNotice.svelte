<!-- Choices whose chords the chart no longer has: kept until the player puts them back or drops them. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { putBack, dropSetAside } from '$lib/study/edits';
  import { showSymbol } from '$lib/ui/glyphs';

  const study = getStudy();

  const kept = $derived(study.plan.setAside);
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
          <button class="underline" onclick={() => study.edit(putBack(study.nowIndex, one))}>
            Put on {showSymbol(study.now?.chord.symbol ?? '')}
          </button>
        </li>
      {/each}
    </ul>
    <button class="underline" onclick={() => study.edit(dropSetAside)}>Delete them</button>
  </details>
{/if}
