<!-- Everything about a chord, one press away. -->
<script lang="ts">
  import Info from '@lucide/svelte/icons/info';
  import type { Chord } from 'corvel-core';
  import type { Cadence } from '$core/harmony/cadences';
  import type { ChordReading } from '$core/harmony/reading';
  import { showSymbol } from '$lib/ui/glyphs';
  import Popover from '$lib/ui/Popover.svelte';

  interface Props {
    readonly chord: Chord;
    readonly reading: ChordReading;
    readonly cadences: readonly Cadence[];
  }

  let { chord, reading, cadences }: Props = $props();
</script>

<Popover
  label="Spelling of {showSymbol(chord.symbol)}"
  named
  title="Spelling"
  button="button-quiet min-h-7 min-w-7 p-0"
  sheet="w-80"
  align="start"
>
  {#snippet trigger()}
    <Info size={15} aria-hidden="true" />
  {/snippet}
  {#await import('./SpellingSheet.svelte') then { default: SpellingSheet }}
    <SpellingSheet {chord} {reading} {cadences} />
  {/await}
</Popover>
