<!-- A button that opens a small sheet beside it. What draws the sheet comes when it is first opened. -->
<script lang="ts">
  import type { Component, ComponentProps } from 'svelte';
  import type PopoverSheet from './PopoverSheet.svelte';

  import { rememberFocus } from './opened';

  let {
    open = $bindable(false),
    ...rest
  }: Omit<ComponentProps<typeof PopoverSheet>, 'back'> = $props();

  let Sheet = $state.raw<Component<ComponentProps<typeof PopoverSheet>, object, 'open'> | null>(
    null,
  );
  /** Gives the focus back to where it was when the sheet was opened, by whatever way. */
  let back = $state.raw<(() => boolean) | null>(null);
  $effect.pre(() => {
    if (open) back = rememberFocus();
  });
  $effect(() => {
    if (!open || Sheet) return;
    void import('./PopoverSheet.svelte').then((module) => (Sheet = module.default));
  });
</script>

{#if Sheet}
  <Sheet bind:open {back} {...rest} />
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
