<script lang="ts">
  import { browser } from '$app/environment';
  import StudyRoot from '$lib/study/StudyRoot.svelte';
  import type { LayoutProps } from './$types';

  let { data, children }: LayoutProps = $props();
</script>

{#if browser || !data.large}
  {#key data.chart.id}
    <StudyRoot stored={data.chart} settings={data.settings}>
      {@render children()}
    </StudyRoot>
  {/key}
{:else}
  <p class="p-4 text-ink-soft">Reading the chart…</p>
{/if}
