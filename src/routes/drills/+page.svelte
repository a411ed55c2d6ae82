<script lang="ts">
  import DrillsScreen from '$lib/drills/DrillsScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Drills · Corvel</title></svelte:head>

{#key data.cards}
  <DrillsScreen
    cards={data.cards}
    texts={data.texts}
    charts={data.charts}
    wanted={data.wanted}
    settings={data.settings}
  />
{/key}
