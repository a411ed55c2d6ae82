<!-- A plan in one style, for as much of the chart as it is taken for. -->
<script lang="ts">
  import Wand from '@lucide/svelte/icons/list-music';
  import Popover from '$lib/ui/Popover.svelte';

  interface Props {
    open: boolean;
  }

  let { open = $bindable() }: Props = $props();
</script>

<Popover
  bind:open
  label="Styles"
  title="A plan in one style (J)"
  button="button text-sm"
  sheet="w-96 md:w-[46rem]"
>
  {#snippet trigger()}
    <Wand size={15} aria-hidden="true" />Styles
  {/snippet}
  {#await import('./StylesSheet.svelte') then { default: StylesSheet }}
    <StylesSheet onchosen={() => (open = false)} />
  {/await}
</Popover>
