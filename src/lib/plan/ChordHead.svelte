<!-- A chord of the change by name, what it does in the key, and what is played over it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { ChordReading } from '$core/harmony/reading';
  import type { ModeNaming } from '$lib/settings/settings';
  import { showSymbol } from '$lib/ui/glyphs';
  import type { PlannedChord } from '$lib/study/choices';
  import { showMaterial } from '$lib/frame/material';

  interface Props {
    readonly time: 'now' | 'next';
    readonly planned: PlannedChord;
    readonly reading: ChordReading | undefined;
    readonly naming: ModeNaming;
    /** Stands behind the chord's name. */
    readonly details?: Snippet;
  }

  let { time, planned, reading, naming, details }: Props = $props();
</script>

<h2 class="flex flex-wrap items-baseline gap-x-2">
  <span class="text-sm font-semibold {time === 'now' ? 'text-now-text' : 'text-next-text'}">
    {time === 'now' ? 'Now' : 'Next'}
  </span>
  <span class="heading text-xl/7" data-chord-name={time}>{showSymbol(planned.chord.symbol)}</span>
  {#if reading?.numeral}<span class="text-ink-soft">{showSymbol(reading.numeral)}</span>{/if}
  {@render details?.()}
  <span class="text-sm text-ink-soft lg:sr-only" data-material-name={time}
    >{showMaterial(planned.material, naming)}{#if planned.then}, then {showMaterial(
        planned.then.material,
        naming,
      )}{/if}</span
  >
</h2>
