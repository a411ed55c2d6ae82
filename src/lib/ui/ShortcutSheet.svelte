<script lang="ts">
  import Dialog from './Dialog.svelte';
  import type { Shortcut } from './shortcuts';

  interface Props {
    open: boolean;
    readonly shortcuts: readonly Shortcut[];
  }

  let { open = $bindable(), shortcuts }: Props = $props();
</script>

<Dialog bind:open title="Keys">
  <dl class="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1.5">
    {#each shortcuts as { shown, does } (shown)}
      <dt class="font-semibold whitespace-nowrap">{shown}</dt>
      <dd>{does}</dd>
    {/each}
  </dl>
  <p class="mt-4 text-sm text-ink-soft">
    On the neck the arrow keys walk from note to note instead. While you type, keys only type.
  </p>
</Dialog>
