<!-- The drawer under the neck: scales, the change, targets, style. Closed it is its four names. -->
<script lang="ts">
  import type { Chart, Option } from 'corvel-core';
  import type { Mark } from '$core/neck/marks';
  import { speakMark } from '$lib/neck/speech';
  import NeckMenu from './NeckMenu.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { LEAVES, type Leaf } from '$lib/study/view';

  interface Props {
    readonly chart: Chart;
    /** The mark of the neck under the pointer or the focus; null when there is none. */
    readonly read: Mark | null;
    neckShown: boolean;
    zonesShown: boolean;
  }

  let { chart, read, neckShown = $bindable(), zonesShown = $bindable() }: Props = $props();

  const study = getStudy();

  const LEAF_NAMES: Readonly<Record<Leaf, readonly [name: string, key: string]>> = {
    scales: ['Scales', 'V'],
    change: ['The change', 'C'],
    targets: ['Targets', ''],
    style: ['Style', ''],
  };
  const around = $derived(
    study.now ? { now: study.now.chord, next: study.next?.chord ?? null } : null,
  );
  const leaf = $derived(study.view.leaf);

  /** An option that others are compared with; it is of one chord only. */
  let compared = $state.raw<{ readonly index: number; readonly option: Option } | null>(null);
</script>

<div
  class="flex min-h-0 flex-col border-t border-line pt-1 print:hidden {leaf === null
    ? 'shrink-0'
    : 'min-h-48 flex-1'}"
>
  <div class="flex shrink-0 items-center gap-1 max-sm:flex-wrap" role="group" aria-label="Drawer">
    {#each LEAVES as one (one)}
      {@const [name, key] = LEAF_NAMES[one]}
      <button
        class="min-h-8 shrink-0 rounded-sm px-3 text-sm max-sm:px-2 pointer-coarse:min-h-11 {leaf ===
        null
          ? 'max-sm:hidden'
          : ''} {leaf === one ? 'bg-ink text-paper' : 'hover:bg-line'}"
        aria-expanded={leaf === one}
        aria-controls={leaf === one ? 'drawer' : undefined}
        title={key === '' ? name : `${name} (${key})`}
        data-leaf={one}
        onclick={() => study.look({ leaf: leaf === one ? null : one })}>{name}</button
      >
    {/each}
    <p class="ml-auto min-w-0 truncate text-right text-sm text-ink-soft" data-readout>
      {#if read && around}{speakMark(read, around)}{:else}<span class="max-lg:hidden"
          >Space plays · → next chord · ? keys</span
        >{/if}
    </p>
    <NeckMenu bind:open={neckShown} bind:zones={zonesShown} />
  </div>
  {#if leaf !== null}
    <section
      id="drawer"
      aria-label={LEAF_NAMES[leaf][0]}
      class="min-h-0 flex-1 pt-1 will-change-transform {leaf === 'scales'
        ? 'grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]'
        : 'overflow-y-auto [scrollbar-width:thin]'}"
    >
      {#if leaf === 'scales'}
        {#await import('./ScalesLeaf.svelte') then { default: ScalesLeaf }}
          <ScalesLeaf {chart} bind:compared />
        {/await}
      {:else if leaf === 'change'}
        {#await import('./ChangeLeaf.svelte') then { default: ChangeLeaf }}<ChangeLeaf />{/await}
      {:else if leaf === 'targets'}
        {#await import('./TargetsLeaf.svelte') then { default: TargetsLeaf }}
          <TargetsLeaf {chart} />
        {/await}
      {:else}
        {#await import('./StyleLeaf.svelte') then { default: StyleLeaf }}<StyleLeaf />{/await}
      {/if}
    </section>
  {/if}
</div>
