<script lang="ts">
  import PracticeScreen from '$lib/practice/PracticeScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.chart.id}
  <PracticeScreen stored={data.chart} settings={data.settings} />
{/key}
