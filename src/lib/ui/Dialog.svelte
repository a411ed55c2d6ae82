<!-- A dialog. What draws it comes when it is first opened. -->
<script lang="ts">
  import type { Component, ComponentProps } from 'svelte';
  import type DialogSheet from './DialogSheet.svelte';

  import { rememberFocus } from './opened';

  let { open = $bindable(), ...rest }: Omit<ComponentProps<typeof DialogSheet>, 'back'> = $props();

  let Sheet = $state.raw<Component<ComponentProps<typeof DialogSheet>, object, 'open'> | null>(
    null,
  );
  let back = $state.raw<(() => boolean) | null>(null);
  $effect.pre(() => {
    if (open) back = rememberFocus();
  });
  $effect(() => {
    if (!open || Sheet) return;
    void import('./DialogSheet.svelte').then((module) => (Sheet = module.default));
  });
</script>

{#if Sheet}<Sheet bind:open {back} {...rest} />{/if}
