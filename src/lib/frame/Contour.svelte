<!-- One bar of the lane: each chord's note at its pitch, and the way to the next. -->
<script lang="ts">
  import { showDegree, showNote } from '$lib/ui/glyphs';
  import { CONTOUR_HEIGHT, type ContourStop, moveWeight } from './contour';

  interface Props {
    readonly stops: readonly ContourStop[];
    readonly now: number | null;
    readonly next: number | null;
  }

  let { stops, now, next }: Props = $props();

  const hue = (index: number) =>
    index === now ? 'stroke-now' : index === next ? 'stroke-next' : 'stroke-ink-soft';
  const words = (index: number) =>
    index === now ? 'text-now-text' : index === next ? 'text-next-text' : 'text-ink-soft';
  /** Share of a bar the slanted way to the next note takes. */
  const SLANT = 0.16;
  const level = ({ from, to }: ContourStop) => Math.max(from, to - SLANT);
</script>

<div class="relative w-full" style:height="{CONTOUR_HEIGHT}px" aria-hidden="true">
  <svg
    class="absolute inset-0 h-full w-full overflow-visible"
    viewBox="0 0 1 {CONTOUR_HEIGHT}"
    preserveAspectRatio="none"
  >
    {#each stops as stop (stop.index)}
      <line
        class={hue(stop.index)}
        vector-effect="non-scaling-stroke"
        stroke-width="2"
        x1={stop.from}
        x2={level(stop)}
        y1={stop.y}
        y2={stop.y}
      />
      {#if stop.onward}
        <line
          class={Math.abs(stop.onward.halfSteps) === 1 ? 'stroke-ink' : 'stroke-line-strong'}
          vector-effect="non-scaling-stroke"
          stroke-width={stop.onward.halfSteps === 0 ? 2 : moveWeight(stop.onward.halfSteps)}
          stroke-dasharray={Math.abs(stop.onward.halfSteps) > 2 ? '2 3' : undefined}
          x1={level(stop)}
          x2={stop.to}
          y1={stop.y}
          y2={stop.onward.y}
        />
      {/if}
    {/each}
  </svg>
  {#each stops as stop (stop.index)}
    <span
      data-lane={stop.index}
      class="absolute text-[10.5px] leading-3 whitespace-nowrap {words(stop.index)}"
      style:left="calc({stop.from * 100}% + 3px)"
      style:top="{stop.y - 13}px"
    >
      <span class="font-semibold">{showNote(stop.note)}</span>
      {showDegree(stop.degree)}
    </span>
  {/each}
</div>
