<!-- What a take is besides a lick: of which chart, when, its sound; and how it becomes a lick. -->
<script lang="ts">
  import type { Lick } from '$core/licks/lick';
  import { warn } from '$lib/ui/messages.svelte';
  import { bytesName } from '$lib/ui/amounts';
  import { dropSound, soundAddress } from './api';
  import type { StoredLick } from './messages';

  interface Props {
    readonly take: StoredLick;
    readonly onlick: (lick: Lick) => void;
    /** The lick as it stands by now. */
    readonly lick: Lick;
  }

  let { take, lick, onlick }: Props = $props();

  let dropped = $state(false);
  const sound = $derived(dropped ? null : take.sound);
  const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short' });

  async function drop() {
    if (await dropSound(take.id)) dropped = true;
    else warn('The server does not answer. Nothing was changed.');
  }
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm" data-take-head>
  <p>
    A take of {when.format(new Date(take.made))},
    <a class="underline" href="/plan/{take.takeOf}/play">kept with its chart</a>.
  </p>
  <button class="button" onclick={() => onlick({ ...lick })}>Make it a lick</button>
  {#if sound !== null}
    <audio class="h-9 min-w-48" controls preload="none" src={soundAddress(take.id)}></audio>
    <a class="button-quiet" href={soundAddress(take.id)} download="{lick.title}.wav">WAV</a>
    <button class="button-quiet" onclick={() => void drop()}
      >Delete the sound, {bytesName(sound)}</button
    >
  {/if}
</div>
