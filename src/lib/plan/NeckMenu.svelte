<!-- What the neck shows: the zone or all of it, its labels, shapes over the notes; the five zones. -->
<script lang="ts">
  import Popover from '$lib/ui/Popover.svelte';
  import { getStudy } from '$lib/study/study.svelte';

  interface Props {
    open: boolean;
    /** Whether the five zones are asked for. */
    zones: boolean;
  }

  let { open = $bindable(), zones = $bindable() }: Props = $props();

  const study = getStudy();
  const shapes = $derived(study.view.layers.length);
  // Opened again, it begins with what the neck shows.
  $effect(() => {
    if (!open) zones = false;
  });
</script>

<Popover
  bind:open
  label={zones ? 'All five zones' : 'Neck'}
  title="What the neck shows"
  button="button text-sm"
  sheet={zones ? 'max-h-[28rem] overflow-auto' : 'grid w-80 gap-2'}
>
  {#snippet trigger()}Neck{shapes > 0 ? ` (${shapes})` : ''} ▾{/snippet}
  {#if zones}
    {#await import('./ZoneMapSheet.svelte') then { default: ZoneMapSheet }}<ZoneMapSheet />{/await}
  {:else}
    {#await import('./NeckSheet.svelte') then { default: NeckSheet }}
      <NeckSheet onzones={() => (zones = true)} />
    {/await}
  {/if}
</Popover>
