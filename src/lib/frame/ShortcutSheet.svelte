<script lang="ts">
  import Dialog from '$lib/ui/Dialog.svelte';
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import { type Actions, SHORTCUTS } from './shortcuts';

  interface Props {
    open: boolean;
    readonly actions: Actions;
    readonly settings: SettingsStore | null;
  }

  let { open = $bindable(), actions, settings }: Props = $props();

  const shown = $derived(SHORTCUTS.filter(({ id }) => actions[id]));
</script>

<Dialog bind:open title="Keys">
  <dl class="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1.5">
    {#each shown as { id, shown: key, does } (id)}
      <dt class="font-semibold whitespace-nowrap">{key}</dt>
      <dd>{does}</dd>
    {/each}
  </dl>
  {#if settings}
    <label class="mt-4 flex items-center gap-2">
      <input
        type="checkbox"
        name="character-keys"
        checked={settings.current.characterKeys}
        onchange={(event) => settings.change({ characterKeys: event.currentTarget.checked })}
      />
      Single-character keys are on
    </label>
  {/if}
  <p class="mt-4 text-sm text-ink-soft">
    On the neck the arrow keys move from note to note. While you type, or a sheet is open, keys act
    there only. Escape closes what was opened last.
  </p>
</Dialog>
