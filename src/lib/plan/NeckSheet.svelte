<!-- Choosing what the neck shows, and what stands under the bars. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { LAYER_KINDS, type LayerKind } from '$core/neck/layers';
  import { stringSets } from '$core/neck/voicings';
  import { MODE_NAMES } from '$lib/settings/settings';
  import { LANE_VIEWS } from '$lib/study/view';
  import { LANE_NAMES } from '$lib/frame/strip';
  import OnlyChoice from '$lib/frame/OnlyChoice.svelte';
  import { ZONE_SAYS } from '$lib/frame/words';
  import { LABEL_NAMES, LABELS } from '$lib/neck/labelKinds';
  import Choice from '$lib/ui/Choice.svelte';

  interface Props {
    readonly onzones: () => void;
  }

  let { onzones }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  const NAMES: Readonly<Record<LayerKind, string>> = {
    box: 'Pentatonic box',
    scale: 'Scale position',
    arpeggio: 'Arpeggio',
    triad: 'Triad',
    grip: 'Grip',
    home: 'Home: grip, arpeggio, scale',
  };
  const sets = $derived(stringSets(study.neck));
  const shownSet = $derived(study.view.strings?.join('-') ?? '');
</script>

<div class="flex items-center justify-between gap-2">
  <Choice
    label="Show"
    bare
    value={model.whole ? 'whole' : 'zone'}
    options={[
      ['zone', 'Zone', ZONE_SAYS],
      ['whole', 'Whole neck'],
    ]}
    onchange={model.toggleWhole}
  />
  <button class="button" onclick={onzones} title="All five zones (Z)">All five zones</button>
</div>
<label class="flex items-center gap-2">
  Labels
  <select
    class="field ml-auto w-44"
    name="labels"
    value={study.view.labels}
    onchange={(event) => {
      const labels = LABELS.find((one) => one === event.currentTarget.value);
      if (labels) study.look({ labels });
    }}
  >
    {#each LABELS as labels (labels)}<option value={labels}>{LABEL_NAMES[labels]}</option>{/each}
  </select>
</label>
<div class="flex items-center justify-between gap-2">
  Notes
  <OnlyChoice />
</div>
<label class="flex items-center gap-2">
  <input
    type="checkbox"
    checked={study.view.targets}
    onchange={(event) => study.look({ targets: event.currentTarget.checked })}
  />
  Targets<kbd class="ml-auto text-ink-soft">F</kbd>
</label>
<p class="border-t border-line pt-2 font-semibold">Shapes</p>
{#each LAYER_KINDS as kind (kind)}
  <label class="flex items-center gap-2">
    <input
      type="checkbox"
      checked={study.view.layers.includes(kind)}
      onchange={() => model.toggleLayer(kind)}
    />
    {NAMES[kind]}
  </label>
{/each}
<label class="flex items-center gap-2 border-t border-line pt-2">
  <input
    type="checkbox"
    checked={study.view.oneOctave}
    onchange={() => study.look({ oneOctave: !study.view.oneOctave })}
  />
  One octave from the lowest root
</label>
<label class="flex items-center gap-2">
  Strings
  <select
    class="field ml-auto"
    value={shownSet}
    onchange={(event) => {
      const picked = sets.find((set) => set.join('-') === event.currentTarget.value);
      study.look({ strings: picked ? [...picked] : null });
    }}
  >
    <option value="">all</option>
    {#each sets as set (set.join('-'))}
      <option value={set.join('-')}>{set.join(' ')}</option>
    {/each}
  </select>
</label>
<label class="flex items-center gap-2 border-t border-line pt-2">
  Under the bars
  <select
    class="field ml-auto w-40"
    name="lane"
    value={study.view.lane}
    onchange={(event) => {
      const picked = LANE_VIEWS.find((view) => view === event.currentTarget.value);
      if (picked) study.look({ lane: picked });
    }}
  >
    {#each LANE_VIEWS as view (view)}<option value={view}>{LANE_NAMES[view]}</option>{/each}
  </select>
</label>
<label class="flex items-center gap-2">
  <input
    type="checkbox"
    checked={study.view.opened}
    onchange={(event) => study.look({ opened: event.currentTarget.checked })}
  />
  in every row
</label>
<label class="flex items-center gap-2">
  Modes
  <select
    class="field ml-auto w-40"
    name="modes"
    value={study.settings.current.modeNames}
    onchange={(event) => {
      const picked = MODE_NAMES.find((naming) => naming === event.currentTarget.value);
      if (picked) study.settings.change({ modeNames: picked });
    }}
  >
    <option value="mode">by their own name</option>
    <option value="parent">by parent scale</option>
  </select>
</label>
