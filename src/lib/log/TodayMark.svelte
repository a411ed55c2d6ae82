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

{#if Today}<Today />{/if}
