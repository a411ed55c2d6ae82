<!-- The heading of a printed page: which chart, what of it, and all that is needed to play it. -->
<script lang="ts">
  import { keyName } from '$core/keys/keys';
  import type { Passage, Zone } from 'corvel-core';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';

  interface Props {
    /** What of the chart the page shows. */
    readonly what: string;
    /** The frets it lies in; null for several zones. */
    readonly zone: Zone | null;
    /** A passage whose key, time and tempo stand in place of the chart's. */
    readonly passage?: Passage | null;
  }

  let { what, zone, passage = null }: Props = $props();

  const study = getStudy();

  const facts = $derived.by(() => {
    const { source } = study.chart ?? {};
    const key = passage ? passage.key : study.key;
    const time = passage?.time ?? source?.time ?? { beats: 4, unit: 4 };
    const { tuning, capo } = study.instrument;
    const tempo = passage?.tempo ?? source?.tempo ?? null;
    return [
      key ? showSymbol(keyName(key)) : 'no single key',
      `${time.beats}/${time.unit}`,
      tempo === null ? null : `${tempo} bpm`,
      source?.feel,
      zone && `zone ${zone.low}–${zone.high}`,
      tuning.map((name) => showSymbol(name.replace(/\d+$/u, ''))).join(' '),
      capo > 0 ? `capo ${capo}` : null,
    ].filter((fact) => fact !== null && fact !== undefined);
  });
</script>

<header class="hidden border-b border-ink pb-1 print:block" data-print-heading>
  <p class="heading text-xl">{study.title}</p>
  <p class="text-xs">{what}</p>
  <p class="text-xs">{facts.join(' · ')}</p>
</header>
