<!-- What is in hand, with its reason, and what will be. -->
<script lang="ts">
  import { reasonFor } from '$core/lenses/options';
  import { showMaterial } from '$lib/frame/material';
  import { getStudy } from '$lib/study/study.svelte';
  import { showBox, showBoxInFull } from '$lib/settings/boxes';
  import { showSymbol } from '$lib/ui/glyphs';
  import { getPlanModel } from './model.svelte';

  const study = getStudy();
  const model = getPlanModel();

  const naming = $derived(study.settings.current.modeNames);
  const option = $derived(model.preview ?? model.current);
  /** The shapes on the neck in words. */
  const shapes = $derived(
    model.layers.map(({ name, box }) =>
      showSymbol(box ? `${name}: ${showBox(box, study.settings.current.boxNames)}` : name),
    ),
  );
  const why = $derived.by(() => {
    if (shapes.length > 0) return shapes.join(' · ');
    if (!model.now) return '';
    return option ? showSymbol(reasonFor(model.now.chord, option)) : 'your own choice';
  });
</script>

<div class="flex shrink-0 items-center gap-x-3 gap-y-1 max-lg:flex-wrap print:hidden">
  <p
    class="min-w-0 leading-6 max-lg:basis-full max-sm:min-h-19 sm:max-lg:min-h-13 lg:truncate"
    data-in-hand
  >
    {#if model.now}
      <span class="heading text-lg" data-material-name="now"
        >{showMaterial(option?.material ?? model.now.material, naming)}</span
      >
      <span
        class="text-sm text-ink-soft"
        title={model.layers.map(({ box }) => (box ? showBoxInFull(box) : '')).join(' ') || why}
        >{why}</span
      >
    {/if}
  </p>
  <button
    class="button shrink-0 text-sm max-sm:hidden"
    title="Choose another scale (V)"
    onclick={() => study.look({ leaf: 'scales' })}>Change</button
  >
  {#if model.next}
    <p
      class="ml-auto min-w-0 shrink truncate max-sm:hidden text-sm text-ink-soft"
      data-material-name="next"
    >
      next: {showMaterial(model.next.material, naming)}
    </p>
  {/if}
</div>
