<!-- The button that says whether it is listened to, and opens what is listened to. -->
<script lang="ts">
  import EarIcon from '@lucide/svelte/icons/ear';
  import type { Mistakes } from '$core/listening/simulated';
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import Popover from '$lib/ui/Popover.svelte';
  import type { Ear } from './ear.svelte';

  interface Props {
    readonly ear: Ear;
    readonly settings: SettingsStore;
    readonly mistakes: Mistakes;
    readonly onmistakes: (mistakes: Mistakes) => void;
    /** What may be opened as a recording, in words, and what becomes of it: a sentence. */
    readonly recording: string;
    readonly onrecording: (file: File) => Promise<string | null>;
  }

  let { ear, settings, mistakes, onmistakes, recording, onrecording }: Props = $props();
</script>

<Popover
  label="Listen"
  title="Listen to the guitar (L)"
  button="button min-h-9 {ear.state === 'hearing' ? 'bg-ink text-paper' : ''}"
  sheet="w-88"
>
  {#snippet trigger()}<EarIcon size={15} aria-hidden="true" />{ear.state === 'hearing'
      ? 'Listening'
      : 'Listen'}{/snippet}
  {#await import('./ListenSheet.svelte') then { default: ListenSheet }}
    <ListenSheet {ear} {settings} {mistakes} {onmistakes} {recording} {onrecording} />
  {/await}
</Popover>
