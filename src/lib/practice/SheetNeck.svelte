<!-- The neck under the sheet: what sounds, what comes, and the other notes over the same chord. -->
<script lang="ts">
  import { degreeOver, weightOver } from '$core/chords/over';
  import { samePlace, stringCount, uniquePlaces } from '$core/neck/neck';
  import type { PlayedNote } from '$core/phrases/passage';
  import type { Zone } from 'corvel-core';
  import type { DrawnMark } from '$lib/neck/drawn';
  import { heightFor, layOut, measuresIn } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import { createWires } from '$lib/neck/wires.svelte';
  import { zoneInSight } from '$lib/neck/zoneInSight';
  import { getStudy } from '$lib/study/study.svelte';
  import { late } from '$lib/ui/afterPaint.svelte';
  import { showNote, showOver } from '$lib/ui/glyphs';

  interface Props {
    readonly zone: Zone;
    /** All notes of the sheet. */
    readonly notes: readonly PlayedNote[];
    readonly sounding: readonly PlayedNote[];
    readonly next: readonly PlayedNote[];
    /** The chord that the notes stand over now, by its number in the chart; null before the first. */
    readonly chord: number | null;
  }

  let { zone, notes, sounding, next, chord }: Props = $props();

  const study = getStudy();
  let width = $state(1240);
  /** Pixels between the strings: the sheet is what this screen is for. */
  const GAP = 30;
  const wires = createWires(() => ({ neck: study.neck, focus: zone }));
  const layout = $derived(
    layOut(study.neck, {
      ...measuresIn(
        { width, height: heightFor(GAP, stringCount(study.neck)) },
        stringCount(study.neck),
      ),
      played: zone,
      leftHanded: study.instrument.leftHanded,
      wires: wires.current,
    }),
  );

  const chordOf = (note: PlayedNote) => study.chart?.chords[note.chord ?? -1]?.chord;

  function label(note: PlayedNote): string {
    const over = chordOf(note);
    return over ? showOver(over, degreeOver(over, note.note)) : showNote(note.note);
  }
  const marks = $derived.by((): readonly DrawnMark[] => {
    const mark = (kind: 'sounding' | 'coming') => (note: PlayedNote) => {
      const { string, fret } = note;
      return { kind, string, fret, label: label(note) } satisfies DrawnMark;
    };
    const here = sounding.map(mark('sounding'));
    const elsewhere = (shown: readonly DrawnMark[]) => (note: PlayedNote) =>
      !shown.some((one) => samePlace(one, note));
    // What sounds again at the same place is already shown.
    const later = next.filter(elsewhere(here)).map(mark('coming'));
    const over = chord ?? notes[0]?.chord ?? null;
    const others = uniquePlaces(
      notes.filter((note) => note.chord === over).filter(elsewhere([...here, ...later])),
    ).map((note): DrawnMark => {
      const under = chordOf(note);
      const weight = under ? weightOver(under, degreeOver(under, note.note)) : 'chord';
      return { ...mark('coming')(note), kind: 'plain', weight, changed: false };
    });
    return [...others, ...later, ...here];
  });
  const spoken = $derived(
    sounding.length > 0
      ? `Sounding: ${sounding.map(({ string, fret }) => `string ${string}, fret ${fret}`).join('; ')}`
      : 'The neck',
  );
  /** The light on the sheet moves first, then the neck: no frame has to draw it all. */
  const drawn = late(() => ({ marks, spoken }));
</script>

<!-- Where the neck is wider than the screen it is scrolled with the keys as well. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="shrink-0 overflow-x-auto overflow-y-hidden will-change-transform contain-content print:hidden"
  style:height="{heightFor(GAP, stringCount(study.neck))}px"
  {@attach zoneInSight(() => ({ layout, zone, width }))}
  bind:clientWidth={width}
  role="group"
  aria-label="Neck"
  tabindex={layout.width > width ? 0 : undefined}
>
  <Neck
    class="min-w-[720px]"
    neck={study.neck}
    {layout}
    marks={drawn.current.marks}
    label={drawn.current.spoken}
    {zone}
    shaded
    leftHanded={study.instrument.leftHanded}
  />
</div>
