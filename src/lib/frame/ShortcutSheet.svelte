<script lang="ts">
  import Dialog from '$lib/ui/Dialog.svelte';
  import { type Actions, SHORTCUTS } from './shortcuts';

  interface Props {
    open: boolean;
    readonly actions: Actions;
  }

  let { open = $bindable(), actions }: Props = $props();

  const shown = $derived(SHORTCUTS.filter(({ id }) => actions[id]));
</script>

<Dialog bind:open title="Keys">
  <dl class="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1.5">
    {#each shown as { id, shown: key, does } (id)}
      <dt class="font-semibold whitespace-nowrap">{key}</dt>
      <dd>{does}</dd>
    {/each}
  </dl>
  <p class="mt-4 text-sm text-ink-soft">
    On the neck the arrow keys walk from note to note instead. While you type, keys only type.
  </p>
</Dialog>
