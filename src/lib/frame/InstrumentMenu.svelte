<!-- What this chart is played on: one of the player's instruments, or the same in another tuning. -->
<script lang="ts">
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import Popover from '$lib/ui/Popover.svelte';
</script>

<Popover
  label="Instrument"
  named
  title="Instrument and tuning of this chart"
  button="button-quiet"
  sheet="grid w-72 gap-2"
  side="bottom"
>
  {#snippet trigger()}<SlidersHorizontal size={16} aria-hidden="true" />{/snippet}
  {#await import('./InstrumentSheet.svelte') then { default: InstrumentSheet }}
    <InstrumentSheet />
  {/await}
</Popover>
