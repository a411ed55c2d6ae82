<!-- A button that opens a small sheet beside it. What draws the sheet comes when it is first opened. -->
<script lang="ts">
  import type { Component, ComponentProps } from 'svelte';
  import type PopoverSheet from './PopoverSheet.svelte';

  let { open = $bindable(false), ...rest }: ComponentProps<typeof PopoverSheet> = $props();

  let Sheet = $state.raw<Component<ComponentProps<typeof PopoverSheet>, object, 'open'> | null>(
    null,
  );
  $effect(() => {
    if (!open || Sheet) return;
    void import('./PopoverSheet.svelte').then((module) => (Sheet = module.default));
  });
</script>

{#if Sheet}
  <Sheet bind:open {...rest} />
{:else}
  <button
    class={rest.button}
    title={rest.title}
    aria-label={rest.named ? rest.label : undefined}
    aria-haspopup="dialog"
    aria-expanded="false"
    onclick={() => (open = true)}
  >
    {@render rest.trigger()}
  </button>
{/if}
