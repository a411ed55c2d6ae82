<script lang="ts">
  import PlanScreen from '$lib/plan/PlanScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.chart.id}
  <PlanScreen stored={data.chart} settings={data.settings} />
{/key}
