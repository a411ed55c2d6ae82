<!-- A dialog. What draws it comes when it is first opened. -->
<script lang="ts">
  import type { Component, ComponentProps } from 'svelte';
  import type DialogSheet from './DialogSheet.svelte';

  let { open = $bindable(), ...rest }: ComponentProps<typeof DialogSheet> = $props();

  let Sheet = $state.raw<Component<ComponentProps<typeof DialogSheet>, object, 'open'> | null>(
    null,
  );
  $effect(() => {
    if (!open || Sheet) return;
    void import('./DialogSheet.svelte').then((module) => (Sheet = module.default));
  });
</script>

{#if Sheet}<Sheet bind:open {...rest} />{/if}
