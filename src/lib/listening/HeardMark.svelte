<!-- What is heard, on the neck: one place of it, in the zone where it has one, since an ear knows no strings. -->
<script lang="ts">
  import type { Neck, Zone } from 'corvel-core';
  import { inZone, placesOfPitch } from '$core/neck/neck';
  import type { NeckLayout } from '$lib/neck/layout';

  interface Props {
    readonly neck: Neck;
    readonly zone: Zone | null;
    readonly layout: NeckLayout;
    /** The pitch, its cents after the point; null where nothing is heard. */
    readonly pitch: number | null;
  }

  let { neck, zone, layout, pitch }: Props = $props();

  const midi = $derived(pitch === null ? null : Math.round(pitch));
  const place = $derived.by(() => {
    if (midi === null) return null;
    const places = placesOfPitch(neck, midi);
    return places.find(({ fret }) => zone !== null && inZone(zone, fret)) ?? places[0] ?? null;
  });
</script>

{#if place}
  <circle
    class="pointer-events-none fill-none stroke-ink"
    cx={layout.finger(place.fret)}
    cy={layout.string(place.string)}
    r={16 * layout.noteScale}
    stroke-width={2 * layout.noteScale}
    stroke-dasharray="4 4"
    data-heard={midi}
  />
{/if}
