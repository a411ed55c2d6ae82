<!-- The neck of a question: what it shows, what is chosen, and what was asked for once it is answered. -->
<script lang="ts">
  import type { Drill } from '$core/drills/kinds';
  import { range } from '$core/lists';
  import { type Neck as NeckShape, noteName } from 'corvel-core';
  import { placeWords, samePlace, stringCount } from '$core/neck/neck';
  import type { DrawnMark } from '$lib/neck/drawn';
  import { layOut, measuresIn } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import { createWires } from '$lib/neck/wires.svelte';
  import { zoneInSight } from '$lib/neck/zoneInSight';
  import { showSymbol } from '$lib/ui/glyphs';
  import type { Sitting } from './sitting.svelte';

  interface Props {
    readonly drill: Drill;
    readonly sitting: Sitting;
    readonly neck: NeckShape;
    readonly leftHanded: boolean;
    /** Pixels there are across. */
    readonly width: number;
  }

  let { drill, sitting, neck, leftHanded, width }: Props = $props();

  const wires = createWires(() => ({ neck, focus: drill.zone }));
  const layout = $derived(
    layOut(neck, {
      ...measuresIn({ width, height: null }, stringCount(neck)),
      leftHanded,
      played: drill.zone,
      wires: wires.current,
    }),
  );

  /** What the places that are shown turn out to be; a box or a held note is named in the sentence. */
  const asked = $derived.by(() => {
    const { note, degree } = drill.answer;
    if (drill.kind === 'name-note' && note !== undefined) return showSymbol(noteName(note));
    return degree === undefined ? '' : showSymbol(degree);
  });

  const marks = $derived.by((): readonly DrawnMark[] => {
    const { low, high } = drill.zone;
    const { answered, isChosen } = sitting;
    const wanted = drill.answer.places ?? [];
    const markOf = (string: number, fret: number): DrawnMark | null => {
      const place = { string, fret };
      if (drill.shown.some((one) => samePlace(one, place)))
        return { ...place, kind: 'asked', label: answered ? asked : '?' };
      const chosen = isChosen(place);
      if (answered && wanted.some((one) => samePlace(one, place)))
        return { ...place, kind: 'plain', weight: 'guide', changed: !chosen, label: '✓' };
      if (chosen) {
        const [weight, label] = answered ? (['blue', '✗'] as const) : (['chord', ''] as const);
        return { ...place, kind: 'plain', weight, changed: false, label };
      }
      return drill.asks === 'places' && !answered
        ? { ...place, kind: 'ground', weight: 'colour', label: '' }
        : null;
    };
    return range(1, stringCount(neck) + 1).flatMap((string) =>
      range(Math.max(low, neck.capo), Math.min(high, neck.frets) + 1).flatMap(
        (fret) => markOf(string, fret) ?? [],
      ),
    );
  });

  const speak = (mark: DrawnMark) => placeWords(mark) + (sitting.isChosen(mark) ? ', chosen' : '');
</script>

<div class="overflow-x-auto" {@attach zoneInSight(() => ({ layout, zone: drill.zone, width }))}>
  <Neck
    class="min-w-[720px]"
    {neck}
    {layout}
    {marks}
    label="Neck, frets {drill.zone.low} to {drill.zone.high}"
    zone={drill.zone}
    shaded
    {leftHanded}
    {speak}
    onpick={sitting.toggle}
  />
</div>
