<!-- The neck itself: frets, inlays, nut, capo, strings. What is played on it is drawn by others. -->
<script lang="ts">
  import { DOUBLE_INLAYS, SINGLE_INLAYS } from '$core/neck/geometry';
  import type { Neck, Zone } from 'corvel-core';
  import { inZone, openPitch } from '$core/neck/neck';
  import { range } from '$core/lists';
  import { gauge, type NeckLayout, strings } from './layout';

  interface Props {
    readonly neck: Neck;
    readonly layout: NeckLayout;
    /** Frets whose numbers stand out; all of them are numbered there. */
    readonly zone: Zone | null;
  }

  let { neck, layout, zone }: Props = $props();

  const frets = $derived(range(Math.max(1, layout.frets.low), layout.frets.high + 1));
  const middle = $derived((layout.top + layout.bottom) / 2);
  const gap = $derived((layout.bottom - layout.top) / 5);
  const size = $derived(gap > 24 ? 5 : 3.5);
  const inlaid = (fret: number) => SINGLE_INLAYS.includes(fret) || DOUBLE_INLAYS.includes(fret);
</script>

{#each frets as fret (fret)}
  {@const x = layout.wire(fret)}
  <line class="stroke-line-strong" x1={x} x2={x} y1={layout.top} y2={layout.bottom} />
  {#if SINGLE_INLAYS.includes(fret)}
    <circle class="fill-line" cx={layout.finger(fret)} cy={middle} r={size} />
  {:else if DOUBLE_INLAYS.includes(fret)}
    <circle class="fill-line" cx={layout.finger(fret)} cy={middle - gap} r={size} />
    <circle class="fill-line" cx={layout.finger(fret)} cy={middle + gap} r={size} />
  {/if}
  {#if inlaid(fret) || (zone && inZone(zone, fret))}
    <text
      class="fill-ink-soft text-[13px]"
      class:font-bold={zone && inZone(zone, fret)}
      x={layout.finger(fret)}
      y={layout.height - 6}
      text-anchor="middle">{fret}</text
    >
  {/if}
{/each}
{#if layout.frets.low === 0}
  <line
    class="stroke-ink"
    stroke-width="5"
    x1={layout.start}
    x2={layout.start}
    y1={layout.top - 2}
    y2={layout.bottom + 2}
  />
{/if}
{#each strings(neck) as string (string)}
  <line
    class="stroke-ink-soft"
    stroke-width={gauge(openPitch(neck, string))}
    x1={layout.start}
    x2={layout.end}
    y1={layout.string(string)}
    y2={layout.string(string)}
  />
{/each}
{#if neck.capo > 0 && inZone(layout.frets, neck.capo)}
  <line
    class="stroke-ink"
    stroke-width="7"
    stroke-linecap="round"
    x1={layout.finger(neck.capo)}
    x2={layout.finger(neck.capo)}
    y1={layout.top - 6}
    y2={layout.bottom + 6}
  />
{/if}
