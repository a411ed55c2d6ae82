<!-- A dialog. What draws it comes when it is first opened. -->
<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import type DialogSheet from './DialogSheet.svelte';
  import { whenOpened } from './whenOpened.svelte';

  let { open = $bindable(), ...rest }: Omit<ComponentProps<typeof DialogSheet>, 'back'> = $props();

  const sheet = whenOpened(
    () => open,
    () => import('./DialogSheet.svelte'),
  );
</script>

{#if sheet.drawer}<sheet.drawer bind:open back={sheet.back} {...rest} />{/if}
