<!-- The half-step moves of the change as arrows along the strings. -->
<script lang="ts">
  import type { Mark } from '$core/neck/marks';
  import { placeId } from '$core/neck/neck';
  import type { NeckLayout } from './layout';

  interface Props {
    readonly marks: readonly Mark[];
    readonly layout: NeckLayout;
  }

  let { marks, layout }: Props = $props();

  /** Half a note and a little, in units of a note. */
  const CLEAR = 20;
  const HEAD = 5;

  const arrows = $derived.by((): readonly string[] => {
    const reached = new Set(marks.map(placeId));
    return marks.flatMap(({ string, fret, motion }): readonly string[] => {
      if (motion?.kind !== 'moves' || Math.abs(motion.halfSteps) !== 1) return [];
      const goal = fret + motion.halfSteps;
      if (!reached.has(placeId({ string, fret: goal }))) return [];
      const from = layout.finger(fret);
      const beside = layout.finger(goal);
      const way = Math.sign(beside - from);
      const clear = CLEAR * layout.noteScale;
      const to = beside - way * clear;
      // Close frets leave no room between the notes: then the arrow is only its head.
      const start =
        Math.abs(beside - from) > 2 * clear + HEAD ? from + way * clear : to - way * HEAD;
      const y = layout.string(string);
      const wing = to - way * HEAD;
      return [`M${start} ${y}H${to}M${wing} ${y - HEAD}L${to} ${y}L${wing} ${y + HEAD}`];
    });
  });
</script>

<!-- One path, so that a change draws it anew and makes nothing. -->
<path
  aria-hidden="true"
  class="fill-none stroke-ink"
  stroke-width="2.2"
  stroke-linecap="round"
  stroke-linejoin="round"
  d={arrows.join('')}
  data-arrows={arrows.length}
/>
