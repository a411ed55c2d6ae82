<!-- What the neck shows besides the notes of now and next, and which of its strings. -->
<script lang="ts">
  import LayersIcon from '@lucide/svelte/icons/layers';
  import { getStudy } from '$lib/study/study.svelte';
  import Popover from '$lib/ui/Popover.svelte';

  const study = getStudy();
</script>

<Popover
  label="View"
  title="What the neck and the strip show"
  button="button text-sm"
  sheet="grid w-72 gap-2"
>
  {#snippet trigger()}
    <LayersIcon size={15} aria-hidden="true" />View{study.view.layers.length > 0
      ? ` (${study.view.layers.length})`
      : ''}
  {/snippet}
  {#await import('./LayersSheet.svelte') then { default: LayersSheet }}<LayersSheet />{/await}
</Popover>
