<!-- A small map: the five zones, and the box of every chord of the chart in each. -->
<script lang="ts">
  import MapIcon from '@lucide/svelte/icons/map';
  import Popover from '$lib/ui/Popover.svelte';

  interface Props {
    open: boolean;
  }

  let { open = $bindable() }: Props = $props();
</script>

<Popover
  bind:open
  label="Zones"
  title="The five zones (Z)"
  button="button text-sm"
  sheet="max-h-[28rem] overflow-auto"
>
  {#snippet trigger()}
    <MapIcon size={15} aria-hidden="true" />Zones
  {/snippet}
  {#await import('./ZoneMapSheet.svelte') then { default: ZoneMapSheet }}<ZoneMapSheet />{/await}
</Popover>
