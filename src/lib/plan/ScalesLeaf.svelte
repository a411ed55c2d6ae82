<!-- The scales over the chord sounding now; why one is chosen, or two of them beside each other. -->
<script lang="ts">
  import type { Chart, Option } from 'corvel-core';
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import ScalesList from './ScalesList.svelte';
  import WhyPanel from './WhyPanel.svelte';

  interface Props {
    readonly chart: Chart;
    /** An option that others are compared with; it is of one chord only. */
    compared: { readonly index: number; readonly option: Option } | null;
  }

  let { chart, compared = $bindable() }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  const held = $derived(compared?.index === model.now?.index ? (compared?.option ?? null) : null);
</script>

<div class="flex min-h-0 min-w-0 flex-col gap-0.5">
  <ScalesList
    {held}
    onhold={(option) =>
      (compared = option && model.now ? { index: model.now.index, option } : null)}
  />
</div>
<div class="min-h-0 min-w-0 overflow-y-auto [scrollbar-width:thin]">
  <WhyPanel
    {chart}
    naming={study.settings.current.modeNames}
    {held}
    onrelease={() => (compared = null)}
  />
</div>
