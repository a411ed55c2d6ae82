<!-- The head of every screen of a chart: its title and facts, its screens, undo, whether it is saved. -->
<script lang="ts">
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { Snippet } from 'svelte';
  import { keyName } from '$core/keys/keys';
  import { addressOf } from '$lib/study/place';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import SaveState from './SaveState.svelte';
  import { SCREENS, type Screen } from './screens';

  interface Props {
    readonly screen: Screen;
    /** What the screen shows, under the chart's title; its facts when left out. */
    readonly heading?: string | undefined;
    /** What else the screen offers. */
    readonly tools?: Snippet | undefined;
    readonly onkeys: () => void;
  }

  let { screen, heading, tools, onkeys }: Props = $props();

  const study = getStudy();
  const { document } = study;

  const key = $derived.by(() => {
    if (!study.reading) return null;
    const { key: found, given } = study.reading.key;
    if (!found) return 'no single key';
    return given ? showSymbol(keyName(found)) : `${showSymbol(keyName(found))}, as heard`;
  });
  const facts = $derived.by(() => {
    if (heading !== undefined) return [heading];
    const { source } = study.chart ?? {};
    if (!source) return [];
    return [
      key,
      `${source.time.beats}/${source.time.unit}`,
      source.tempo === null ? null : `${source.tempo} bpm`,
      source.feel,
      study.reading?.form,
    ].filter((fact) => fact !== null && fact !== undefined);
  });
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <h1 class="heading text-2xl">{study.title}</h1>
  <p class="mr-auto flex flex-wrap gap-x-3 text-sm text-ink-soft" data-heading>
    {#each facts as fact (fact)}<span>{fact}</span>{/each}
  </p>
  <SaveState />
  <div class="flex flex-wrap print:hidden">
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
    {@render tools?.()}
    <nav class="flex" aria-label="Screens of this chart">
      {#each SCREENS as { id, name, title, path, Icon } (id)}
        {#if id !== screen}
          <a class="button-quiet text-sm" href={addressOf(study.id, path, study.place)} {title}>
            <Icon size={16} aria-hidden="true" />{name}
          </a>
        {/if}
      {/each}
    </nav>
    <button class="button-quiet" onclick={onkeys} aria-label="Keys" title="Keys (?)">
      <Keyboard size={16} aria-hidden="true" />
    </button>
  </div>
</div>
