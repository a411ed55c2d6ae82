<!-- What stands on a neck: the discs and rings of its notes, and their labels. -->
<script lang="ts">
  import { discPaths, labelClass } from './discs';
  import { type DrawnMark, placeId } from './drawn';
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
</script>

<g class="pointer-events-none font-semibold" font-size={13 * layout.noteScale} text-anchor="middle">
  {#each paths as { id, class: look, width, dash, d } (id)}
    <path class={look} stroke-width={width} stroke-dasharray={dash} {d} />
  {/each}
  <!-- Hidden from ears: the button of a note says more than its label can. -->
  {#each labelled as mark (placeId(mark))}
    <text
      aria-hidden="true"
      class="{labelClass(mark)} {mark.label.length > 2 ? 'text-[0.81em]' : ''}"
      x={layout.finger(mark.fret)}
      y={layout.string(mark.string) + (mark.label.length > 2 ? 3.8 : 4.5) * layout.noteScale}
      data-kind={mark.kind}
      data-label={placeId(mark)}>{mark.label}</text
    >
  {/each}
</g>
