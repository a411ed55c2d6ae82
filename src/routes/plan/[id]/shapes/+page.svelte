<script lang="ts">
  import ShapesScreen from '$lib/shapes/ShapesScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.chart.id}
  <ShapesScreen stored={data.chart} settings={data.settings} />
{/key}
