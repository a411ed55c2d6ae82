<!-- The five zones, and the box of every chord of the chart in each. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { chordName } from 'corvel-core';
  import { matchingPentatonic } from '$core/collections/pentatonics';
  import { pentatonicIn } from '$core/neck/zones';
  import { BOX_NAMES } from '$lib/settings/settings';
  import { NAMING_LABELS, showBox, showBoxInFull } from '$lib/settings/boxes';
  import { showSymbol } from '$lib/ui/glyphs';
  import { ZONE_SAYS } from '$lib/frame/words';

  const study = getStudy();

  const naming = $derived(study.settings.current.boxNames);
  /** The chart's chords, each once. */
  const distinct = $derived([
    ...new Map(study.planned.map(({ chord }) => [chordName({ ...chord, bass: null }), chord])),
  ]);
  const here = (low: number, high: number) => study.zone.low === low && study.zone.high === high;
</script>

<div class="mb-2 flex items-center gap-3">
  <label class="flex items-center gap-2">
    Named as
    <select
      class="field"
      value={naming}
      onchange={(event) => {
        const picked = BOX_NAMES.find((name) => name === event.currentTarget.value);
        if (picked) study.settings.change({ boxNames: picked });
      }}
    >
      {#each BOX_NAMES as name (name)}<option value={name}>{NAMING_LABELS[name]}</option>{/each}
    </select>
  </label>
  <a
    class="ml-auto underline"
    href="/plan/{study.id}/region?zone={study.zone.low}-{study.zone.high}"
  >
    Overview of this zone
  </a>
</div>
<table class="border-collapse" data-zone-map>
  <thead>
    <tr>
      <th scope="col" class="pr-3 text-left font-normal text-ink-soft" data-explain={ZONE_SAYS}
        >Zone</th
      >
      {#each study.zones as { low, high }, index (low)}
        <th scope="col" class="p-0.5">
          <button
            class="button w-full justify-center px-2 {here(low, high)
              ? 'border-ink font-bold'
              : ''}"
            title="Zone {index + 1} ({index + 1})"
            onclick={() => study.chooseZone({ low, high })}>{low}–{high}</button
          >
        </th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each distinct as [name, chord] (name)}
      <tr class="border-t border-line">
        <th scope="row" class="heading pr-3 text-left">{showSymbol(name)}</th>
        {#each study.zones as zone (zone.low)}
          {@const shape = pentatonicIn(study.neck, matchingPentatonic(chord), zone)}
          <td
            class="px-2 py-0.5 text-center whitespace-nowrap"
            title={shape ? showBoxInFull(shape.box) : ''}
          >
            {shape ? showBox(shape.box, naming) : '–'}
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
<TheoryLink part="zones-and-boxes" of="zones" />
