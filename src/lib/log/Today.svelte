<!-- Minutes played today, in the head of every screen; it leads to the log. -->
<script lang="ts">
  import Timer from '@lucide/svelte/icons/timer';
  import { onMount } from 'svelte';
  import { onMessage, onReturn } from '$lib/live/live';
  import { care } from './care.svelte';
  import { lookUpToday, STINTS, today } from './today.svelte';
  import { counted } from '$core/words';

  onMount(() => {
    void lookUpToday();
    // What was played on another device counts as well.
    const ends = [
      onMessage('changed', ({ path }) => {
        if (path.startsWith(STINTS)) void lookUpToday();
      }),
      onReturn(() => void lookUpToday()),
    ];
    return () => {
      for (const end of ends) end();
    };
  });

  const whole = $derived(Math.round(today.minutes ?? 0));
  const says = $derived(
    `Played today: ${counted(whole, 'minute')}${care.restDue ? '; a rest is due' : ''}`,
  );
</script>

{#if today.minutes !== null}
  <a
    class="button-quiet text-sm whitespace-nowrap max-sm:px-1 tabular-nums {care.restDue
      ? 'font-semibold text-now-text'
      : ''}"
    href="/log"
    title={says}
    data-today={whole}
    ><Timer size={16} class="max-sm:hidden lg:max-2xl:hidden" aria-hidden="true" /><span
      class="sr-only"
      >Played today:
    </span>{whole} min{#if care.restDue}<span class="sr-only">; a rest is due</span>{/if}</a
  >
{/if}
