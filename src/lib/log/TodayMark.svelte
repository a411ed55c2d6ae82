<!-- Today in the head, which comes when the page has been drawn. -->
<script lang="ts">
  import { type Component, onMount } from 'svelte';

  let Today = $state.raw<Component | null>(null);
  onMount(() => {
    const later = setTimeout(() => {
      void import('./Today.svelte').then((module) => (Today = module.default));
    }, 300);
    return () => clearTimeout(later);
  });
</script>

<!-- Its room is kept, so that nothing beside it moves when it comes. -->
<div class="flex min-w-11 shrink-0 justify-end sm:min-w-16 print:hidden">
  {#if Today}<Today />{/if}
</div>
