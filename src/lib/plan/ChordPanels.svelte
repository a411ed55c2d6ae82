<!-- Under the neck: what to play now, what the change does, and why, or the model.targets. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import type { Chart } from '$core/chart/form';
  import type { Lens } from '$core/lenses/table';
  import type { Option } from '$core/lenses/options';
  import Choice from '$lib/ui/Choice.svelte';
  import ChangePanel from './ChangePanel.svelte';
  import NowPanel from './NowPanel.svelte';
  import WhyPanel from './WhyPanel.svelte';

  interface Props {
    readonly chart: Chart;
    spelled: boolean;
    lens: Lens | null;
  }

  let { chart, spelled = $bindable(), lens = $bindable() }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  /** An option held to compare others with; it is of one chord only. */
  let held = $state.raw<{ readonly index: number; readonly option: Option } | null>(null);
  const heldHere = $derived(held?.index === model.now?.index ? (held?.option ?? null) : null);

  const beside = $derived(study.view.targets ? 'targets' : 'why');
</script>

<div
  class="grid min-h-0 flex-1 print:hidden will-change-transform gap-x-4 gap-y-4 border-t border-line pt-1 max-lg:min-h-56 md:grid-cols-2 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)] lg:grid-rows-[auto_minmax(0,1fr)] lg:gap-y-1 xl:grid-cols-[minmax(0,1.6fr)_minmax(0,0.9fr)_minmax(0,0.75fr)] xl:grid-rows-[minmax(0,1fr)]"
>
  <section
    aria-label="Now"
    class="flex min-h-0 min-w-0 flex-col gap-0.5 lg:row-span-2 xl:row-span-1"
  >
    <NowPanel
      bind:spelled
      bind:lens
      held={heldHere}
      onhold={(option) => (held = option && model.now ? { index: model.now.index, option } : null)}
    />
  </section>
  <section aria-label="The change" class="min-h-0 min-w-0 overflow-y-auto [scrollbar-width:thin]">
    <ChangePanel />
  </section>
  <section
    aria-label={beside === 'targets' ? 'Targets' : 'Why'}
    class="min-h-0 min-w-0 overflow-y-auto [scrollbar-width:thin]"
  >
    <div class="mb-1.5 flex">
      <Choice
        label="Beside the change"
        bare
        value={beside}
        options={[
          ['why', 'Why'],
          ['targets', 'Targets'],
        ]}
        onchange={(shown) => study.look({ targets: shown === 'targets' })}
      />
    </div>
    {#if beside === 'targets'}
      {#await import('./TargetsPanel.svelte') then { default: TargetsPanel }}
        <TargetsPanel {chart} />
      {/await}
    {:else}
      <WhyPanel
        {chart}
        naming={study.settings.current.modeNames}
        held={heldHere}
        onrelease={() => (held = null)}
      />
    {/if}
  </section>
</div>
