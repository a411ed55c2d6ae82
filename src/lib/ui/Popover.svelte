<!-- A button that opens a small sheet beside it. What draws the sheet comes when it is first opened. -->
<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import type PopoverSheet from './PopoverSheet.svelte';
  import { whenOpened } from './whenOpened.svelte';

  let {
    open = $bindable(false),
    ...rest
  }: Omit<ComponentProps<typeof PopoverSheet>, 'back'> = $props();

  const sheet = whenOpened(
    () => open,
    () => import('./PopoverSheet.svelte'),
  );
</script>

{#if sheet.drawer}
  <sheet.drawer bind:open back={sheet.back} {...rest} />
{:else if rest.trigger}
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
