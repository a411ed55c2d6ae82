<script lang="ts">
  import RegionScreen from '$lib/shapes/RegionScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.chart.id}
  <RegionScreen stored={data.chart} settings={data.settings} />
{/key}
