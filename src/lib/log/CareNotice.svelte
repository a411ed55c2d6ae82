<!-- A rest that is due, and the day's cautions: quiet, and gone when they are noted. -->
<script lang="ts">
  import { care, takesCare } from './care.svelte';

  interface Props {
    /** Whether anything is played on this screen now. */
    readonly playing: boolean;
  }

  let { playing }: Props = $props();

  takesCare(() => playing);
</script>

{#if care.restDue || care.cautions}
  <p role="status" class="text-sm print:hidden" data-care={care.restDue ? 'rest' : 'cautions'}>
    {#if care.restDue}
      Half an hour is over: rest the hands a few minutes.
    {:else}
      Warm up first. Stop at pain, tingling or numbness, and see a clinician if it lasts. Keep the
      volume moderate.
    {/if}
    <button class="underline" onclick={care.noted}>Got it</button>
  </p>
{/if}
