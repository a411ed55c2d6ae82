<!-- What waits for the server: said wherever the player is, for as long as it waits. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { inform } from '$lib/ui/messages.svelte';
  import { keepsAnything } from './storage';
  import { openOutbox, outbox } from './outbox.svelte';

  onMount(() => {
    if (!keepsAnything())
      inform('This browser keeps no site data: while the server is away, keep this page open.');
    return openOutbox();
  });

  const things = $derived(
    outbox.waiting === 1 ? 'One thing you did waits' : `${outbox.waiting} things you did wait`,
  );
</script>

<div role="status" class="print:hidden" data-waiting={outbox.away === 'no' ? 0 : outbox.waiting}>
  {#if outbox.away !== 'no' && outbox.waiting > 0}
    <p
      class="fixed bottom-3 left-3 z-40 max-w-sm rounded border border-line bg-sheet px-3 py-2 text-sm shadow"
    >
      {#if outbox.away === 'locked'}
        The server asks for its <a class="underline" href="/unlock">passcode</a> again.
      {:else}
        The server does not answer.
      {/if}
      {things}
      {outbox.lasting
        ? 'in this browser and will be sent when it is back.'
        : 'on this page: keep it open, since this browser keeps nothing.'}
    </p>
  {/if}
</div>
