<!-- What to be asked: what is due, or a kind, a chart, a zone. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { DRILL_KINDS, DRILL_WORDS } from '$core/drills/kinds';
  import type { Zone } from 'corvel-core';
  import { zoneWord } from '$lib/study/place';
  import { GENERAL_ZONES, type Wanted } from './cards';

  export interface DrillChart {
    readonly id: string;
    readonly title: string;
    readonly zones: readonly Zone[];
  }

  interface Props {
    readonly charts: readonly DrillChart[];
    readonly wanted: Wanted;
  }

  let { charts, wanted }: Props = $props();

  const zones = $derived(charts.find(({ id }) => id === wanted.chart)?.zones ?? GENERAL_ZONES);

  function choose(changed: { kind?: string; chart?: string; zone?: string }) {
    const now = {
      kind: wanted.kind ?? '',
      chart: wanted.chart ?? '',
      zone: wanted.zone ? zoneWord(wanted.zone) : '',
      ...changed,
    };
    const asked = new URLSearchParams(Object.entries(now).filter(([, value]) => value !== ''));
    void goto(asked.size > 0 ? `/drills?${asked}` : '/drills', { keepFocus: true });
  }
</script>

<div class="flex flex-wrap gap-2 text-sm" role="group" aria-label="What to be asked">
  <select
    class="field"
    name="drill-kind"
    aria-label="Kind of question"
    value={wanted.kind ?? ''}
    onchange={(event) => choose({ kind: event.currentTarget.value })}
  >
    <option value="">What is due</option>
    {#each DRILL_KINDS as kind (kind)}<option value={kind}>{DRILL_WORDS[kind]}</option>{/each}
  </select>
  <select
    class="field max-w-48"
    name="drill-chart"
    aria-label="Chart"
    value={wanted.chart ?? ''}
    onchange={(event) => choose({ chart: event.currentTarget.value, zone: '' })}
  >
    <option value="">Your charts</option>
    <option value="general">No chart</option>
    {#each charts as { id, title } (id)}<option value={id}>{title}</option>{/each}
  </select>
  <select
    class="field"
    name="drill-zone"
    aria-label="Frets"
    value={wanted.zone ? zoneWord(wanted.zone) : ''}
    onchange={(event) => choose({ zone: event.currentTarget.value })}
  >
    <option value="">Any frets</option>
    {#if wanted.zone && !zones.some((zone) => zoneWord(zone) === zoneWord(wanted.zone as Zone))}
      <option value={zoneWord(wanted.zone)}>Frets {wanted.zone.low} to {wanted.zone.high}</option>
    {/if}
    {#each zones as zone (zoneWord(zone))}
      <option value={zoneWord(zone)}>Frets {zone.low} to {zone.high}</option>
    {/each}
  </select>
</div>
