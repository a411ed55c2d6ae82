<!--
  Staff and tablature of a passage, a system at a time: those in view first, the rest when the page
  has nothing else to do. On paper all of them, at the paper's width. Drawn by a notation library
  that comes when it is needed.
-->
<script lang="ts">
  import type { Passage } from 'corvel-core';
  import type { DrawnEvent, drawOnPaper, drawSystem } from './draw';
  import { beforePaper } from '$lib/paper/prepared';
  import { drawSystems } from './queue';
  import { layOutSheet } from './systems';
  import type { Beats } from '$core/time/units';

  interface Drawer {
    readonly drawSystem: typeof drawSystem;
    readonly drawOnPaper: typeof drawOnPaper;
  }

  interface Props {
    readonly passage: Passage;
    /** The beat sounding; null when nothing plays. */
    readonly beat: Beats | null;
    /** Whether the degree of every note stands under it. */
    readonly degrees?: boolean;
  }

  let { passage, beat, degrees = false }: Props = $props();

  const LEAST_WIDTH = 280;
  let host = $state<HTMLDivElement>();
  let paper = $state<HTMLDivElement>();
  let width = $state(0);
  let failed = $state(false);
  let drawer = $state.raw<Drawer | null>(null);
  let events = $state.raw<readonly DrawnEvent[]>([]);

  const systems = $derived(
    width === 0
      ? []
      : layOutSheet(passage, { width: Math.max(LEAST_WIDTH, width), medium: 'screen', degrees }),
  );

  $effect(() => {
    const shown = systems;
    const hosts = host ? ([...host.children] as HTMLDivElement[]) : [];
    if (hosts.length === 0 || !drawer) return;
    events = [];
    let over = false;
    drawSystems({
      systems: shown,
      hosts,
      draw: drawer.drawSystem,
      isOver: () => over,
      playing: () => playing,
      ondrawn: (drawn) => (events = drawn),
    }).catch(() => (failed = true));
    return () => {
      over = true;
    };
  });

  async function load() {
    try {
      const module = await import('./draw');
      // The music font is loaded by its script; drawing before it would measure another.
      await document.fonts.ready;
      drawer = module;
    } catch {
      failed = true;
    }
  }
  $effect(() => {
    const loading = load();
    return beforePaper(() => loading);
  });

  const covers = (beat: Beats) => (one: { readonly from: Beats; readonly to: Beats }) =>
    one.from <= beat && beat < one.to;
  const sounding = $derived(beat === null ? undefined : events.find(covers(beat)));

  /** The system that plays; it is kept in view with those after it. */
  const playing = $derived(beat === null ? -1 : systems.findIndex(covers(beat)));
  /** How wide the light under what sounds is, and how far left of its note it begins, in pixels. */
  const LIGHT = { width: 26, before: 7 } as const;
  $effect(() => {
    if (playing >= 0) host?.children[playing]?.scrollIntoView({ block: 'start' });
  });
</script>

<svelte:window onbeforeprint={() => paper && drawer?.drawOnPaper(paper, passage, degrees)} />

{#if failed}
  <p class="text-now-text">The notation could not be drawn. The tablature can still be exported.</p>
{/if}
<div bind:clientWidth={width} class="relative min-w-0 print:hidden">
  <div
    bind:this={host}
    class="notation"
    role="img"
    aria-label="Staff and tablature: {passage.title}"
    data-notation
    data-systems={systems.length}
    data-drawn={events.length === 0 ? undefined : events.length}
  >
    {#each systems as { sheet }, index (index)}
      <div
        class="relative will-change-transform contain-strict"
        data-system={index}
        style:height="{sheet.heights.all}px"
      ></div>
    {/each}
  </div>
  <!-- Moved, not drawn anew: the staves under it are left alone while they play. -->
  {#if sounding && playing >= 0}
    {@const height = systems[playing]?.sheet.heights.all ?? 0}
    <div
      class="pointer-events-none absolute top-0 left-0 rounded-sm border-b-2 border-now bg-now/20 will-change-transform"
      style:width="{LIGHT.width}px"
      style:height="{height - 4}px"
      style:transform="translate({sounding.x - LIGHT.before}px, {playing * height}px)"
      data-sounding={sounding.from}
      aria-hidden="true"
    ></div>
  {/if}
</div>
<div bind:this={paper} class="notation hidden print:block" aria-hidden="true" data-paper></div>
