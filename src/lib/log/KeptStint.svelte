<!-- What of this playing stands in the log by now, and the player's own word for it. -->
<script lang="ts">
  import type { Said } from '$lib/log/messages';
  import type { KeptSoFar } from './keeper.svelte';
  import { minutesName } from '$lib/log/words';

  interface Props {
    readonly kept: KeptSoFar;
    /** Whether it was listened to: then nothing needs to be said. */
    readonly heard: boolean;
    readonly onsay: (said: Said) => void;
  }

  let { kept, heard, onsay }: Props = $props();
</script>

<p class="text-ink-soft" data-kept-stint={kept.waiting ? 'waiting' : 'kept'}>
  {kept.waiting ? 'Kept here until the server is back' : 'In the log'}: {minutesName(
    kept.minutes,
  )}{kept.said ? `, ${kept.said}` : ''}.
  {#if kept.said === null && !heard}
    It went
    <button class="underline" title="It went well (9)" onclick={() => onsay('clean')}>clean</button>
    or
    <button class="underline" title="It was shaky (8)" onclick={() => onsay('shaky')}>shaky</button>
  {/if}
</p>
