<!-- Title, key, tempo and feel; undo; and whether everything is saved. -->
<script lang="ts">
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import LayoutGrid from '@lucide/svelte/icons/layout-grid';
  import Music from '@lucide/svelte/icons/music';
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import PencilRuler from '@lucide/svelte/icons/pencil-ruler';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import { keyName } from '$core/harmony/keys';
  import type { Chart } from '$core/chart/form';
  import type { Reading } from '$core/harmony/reading';
  import type { ChartEditing, SaveState } from '$lib/charts/document.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import type ChartDetails from './ChartDetails.svelte';
  import ExportMenu from './ExportMenu.svelte';

  interface Props {
    readonly document: ChartEditing;
    readonly chart: Chart | null;
    readonly reading: Reading | null;
    readonly editing: 'text' | 'bars' | null;
    detailed: boolean;
    readonly ontext: () => void;
    readonly onbars: () => void;
    readonly onkeys: () => void;
    /** Where every shape of the chord sounding now is shown. */
    readonly shapes: string;
    /** Where exercises are made from the chart. */
    readonly practice: string;
  }

  let {
    document,
    chart,
    reading,
    editing,
    detailed = $bindable(),
    ontext,
    onbars,
    onkeys,
    shapes,
    practice,
  }: Props = $props();

  const SAVED: Readonly<Record<SaveState, string>> = {
    saved: 'Saved',
    saving: 'Saving…',
    offline: 'Server away: kept here, sent when it is back',
    conflict: 'Changed elsewhere too',
    refused: 'Not saved',
  };

  // With all that transposing needs: it comes when it is first opened.
  let Details = $state.raw<typeof ChartDetails | null>(null);
  $effect(() => {
    if (!detailed || Details) return;
    void import('./ChartDetails.svelte').then((module) => (Details = module.default));
  });

  const key = $derived.by(() => {
    if (!reading) return null;
    const { key: found, given } = reading.key;
    if (!found) return 'no single key';
    return given ? showSymbol(keyName(found)) : `${showSymbol(keyName(found))}, as heard`;
  });
  const facts = $derived(
    chart
      ? [
          key,
          `${chart.source.time.beats}/${chart.source.time.unit}`,
          chart.source.tempo === null ? null : `${chart.source.tempo} bpm`,
          chart.source.feel,
          reading?.form,
        ].filter((fact) => fact !== null && fact !== undefined)
      : [],
  );
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <h1 class="heading text-2xl">{chart?.source.title || 'Untitled'}</h1>
  <p class="mr-auto flex flex-wrap gap-x-3 text-sm text-ink-soft">
    {#each facts as fact (fact)}<span>{fact}</span>{/each}
  </p>
  <p
    role="status"
    data-save-state={document.saveState}
    class="text-sm {document.saveState === 'saved' || document.saveState === 'saving'
      ? 'text-ink-soft'
      : 'font-semibold text-now-text'}"
  >
    {SAVED[document.saveState]}{document.refusal && document.saveState === 'refused'
      ? `: ${document.refusal}`
      : ''}
  </p>
  <div class="flex flex-wrap">
    <button
      class="button-quiet"
      disabled={!document.canUndo}
      onclick={document.undo}
      aria-label="Undo"
      title="Undo (Ctrl Z)"
    >
      <Undo size={16} aria-hidden="true" />
    </button>
    <button
      class="button-quiet"
      disabled={!document.canRedo}
      onclick={document.redo}
      aria-label="Redo"
      title="Redo (Ctrl Y)"
    >
      <Redo size={16} aria-hidden="true" />
    </button>
    {#if chart}
      {#if Details}
        <Details
          bind:open={detailed}
          text={document.text}
          {chart}
          home={reading?.key.key ?? null}
          onedit={(text) => document.edit({ text })}
        />
      {:else}
        <button
          class="button-quiet text-sm"
          title="Key, tempo and transposing (K)"
          aria-haspopup="dialog"
          aria-expanded="false"
          onclick={() => (detailed = true)}>Key and tempo</button
        >
      {/if}
    {/if}
    <button
      class="button-quiet text-sm"
      onclick={onbars}
      aria-pressed={editing === 'bars'}
      title="Edit the bars (E)"
    >
      <PencilRuler size={16} aria-hidden="true" />Bars
    </button>
    <button
      class="button-quiet text-sm"
      onclick={ontext}
      aria-pressed={editing === 'text'}
      title="Chart text (T)"
    >
      <PencilLine size={16} aria-hidden="true" />Text
    </button>
    <a class="button-quiet text-sm" href={shapes} title="Every shape of this chord">
      <LayoutGrid size={16} aria-hidden="true" />Shapes
    </a>
    <a class="button-quiet text-sm" href={practice} title="Practice sheet (Q)">
      <Music size={16} aria-hidden="true" />Practice
    </a>
    <ExportMenu text={document.text} plan={document.plan} />
    <button class="button-quiet" onclick={onkeys} aria-label="Keys" title="Keys (?)">
      <Keyboard size={16} aria-hidden="true" />
    </button>
  </div>
</div>
