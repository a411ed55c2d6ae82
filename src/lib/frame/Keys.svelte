<!-- The keys of a screen, and the sheet that lists them. -->
<script lang="ts">
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import { isLayerOpen } from '$lib/ui/opened';
  import { type Actions, runShortcut } from './shortcuts';

  interface Props {
    readonly actions: Actions;
    /** Where single characters may be switched off; null where there are no settings. */
    readonly settings?: SettingsStore | null;
    shown?: boolean;
  }

  let { actions, settings = null, shown = $bindable(false) }: Props = $props();

  const all = $derived<Actions>({ ...actions, help: () => (shown = true) });
</script>

<svelte:window
  onkeydown={(event) => {
    if (!isLayerOpen()) runShortcut(event, all, settings?.current.characterKeys);
  }}
/>

{#if shown}
  {#await import('./ShortcutSheet.svelte') then { default: ShortcutSheet }}
    <ShortcutSheet bind:open={shown} actions={all} {settings} />
  {/await}
{/if}
