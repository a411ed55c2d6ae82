<!-- The half-step moves of the change as arrows along the strings. -->
<script lang="ts">
  import type { Mark } from '$core/neck/marks';
  import type { NeckLayout } from './layout';

  interface Props {
    readonly marks: readonly Mark[];
    readonly layout: NeckLayout;
  }

  let { marks, layout }: Props = $props();

  const CLEAR = 15;
  const HEAD = 5;

  interface Arrow {
    readonly id: string;
    readonly x: number;
    readonly y: number;
    readonly to: number;
  }

  const arrows = $derived.by((): readonly Arrow[] => {
    const reached = new Set(marks.map(({ string, fret }) => `${string}-${fret}`));
    return marks.flatMap(({ string, fret, motion }): readonly Arrow[] => {
      if (motion?.kind !== 'moves' || Math.abs(motion.halfSteps) !== 1) return [];
      const goal = fret + motion.halfSteps;
      if (!reached.has(`${string}-${goal}`)) return [];
      const from = layout.finger(fret);
      const to = layout.finger(goal);
      const way = Math.sign(to - from);
      // Close frets leave no room between the notes: then the arrow is only its head.
      const start =
        Math.abs(to - from) > 2 * CLEAR + HEAD ? from + way * CLEAR : to - way * (CLEAR + HEAD);
      return [
        { id: `${string}-${fret}`, x: start, y: layout.string(string), to: to - way * CLEAR },
      ];
    });
  });
</script>

<g aria-hidden="true" data-arrows={arrows.length}>
  {#each arrows as { id, x, y, to } (id)}
    {@const way = Math.sign(to - x)}
    <path
      class="fill-none stroke-ink"
      stroke-width="2.2"
      stroke-linecap="round"
      stroke-linejoin="round"
      d="M{x} {y} H{to} M{to - way * HEAD} {y - HEAD} L{to} {y} L{to - way * HEAD} {y + HEAD}"
    />
  {/each}
</g>
