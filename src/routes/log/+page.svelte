<script lang="ts">
  import LogScreen from '$lib/screens/LogScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Log · Corvel</title></svelte:head>

<LogScreen
  charts={data.charts}
  stints={data.stints}
  count={data.count}
  weeks={data.weeks}
  blocks={data.blocks}
  minutes={data.minutes}
  cells={data.cells}
  ladders={data.ladders}
  skipped={data.skipped}
  over={data.over}
  taken={data.taken}
/>
