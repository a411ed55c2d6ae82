<!-- What stands on a neck: the discs and rings of its notes, and their labels. -->
<script lang="ts">
  import { placeId } from '$core/neck/neck';
  import { discPaths, labelClass } from './discs';
  import type { DrawnMark } from './drawn';
  import type { NeckLayout } from './layout';

  interface Props {
    readonly marks: readonly DrawnMark[];
    readonly layout: NeckLayout;
    /** The size of what comes beside its usual one. */
    readonly grown?: number;
    /** The marks whose labels are written, where they follow the marks. */
    readonly labelled?: readonly DrawnMark[];
  }

  let { marks, layout, grown = 1, labelled = marks }: Props = $props();

  const paths = $derived(discPaths(marks, layout, grown));
  // Worked out here, not in the template: there each call of each label is followed by itself.
  const labels = $derived(
    labelled.map((mark) => {
      const { fret, string, kind, label } = mark;
      const long = label.length > 2;
      return {
        id: placeId(mark),
        kind,
        label,
        look: `${labelClass(mark)} ${long ? 'text-[0.81em]' : ''}`,
        x: layout.finger(fret),
        y: layout.string(string) + (long ? 3.8 : 4.5) * layout.noteScale,
      };
    }),
  );
</script>

<g
  class="pointer-events-none font-semibold"
  font-size={Math.max(10, 13 * layout.noteScale)}
  text-anchor="middle"
>
  {#each paths as { id, class: look, width, dash, d } (id)}
    <path class={look} stroke-width={width} stroke-dasharray={dash} {d} />
  {/each}
  <!-- Hidden from ears: the button of a note says more than its label can. -->
  {#each labels as { id, look, x, y, kind, label } (id)}
    <text aria-hidden="true" class={look} {x} {y} data-kind={kind} data-label={id}>{label}</text>
  {/each}
</g>
