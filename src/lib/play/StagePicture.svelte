<!-- One picture of the stage’s neck, on a layer of its own over the board. -->
<script lang="ts">
  import { type Place, placeId, samePlace } from '$core/neck/neck';
  import type { NeckLayout } from '$lib/neck/layout';
  import NeckLayer from '$lib/neck/NeckLayer.svelte';
  import NeckMarks from '$lib/neck/NeckMarks.svelte';
  import { inSecondFrame, late } from '$lib/ui/afterPaint.svelte';
  import { showOver } from '$lib/ui/glyphs';
  import type { Picture } from './pictures';

  interface Props {
    readonly picture: Picture;
    readonly layout: NeckLayout;
    /** Whether it is seen, or only drawn for when it will be. */
    readonly seen: boolean;
    /** The size of what comes beside its usual one. */
    readonly grown: number;
  }

  let { picture, layout, seen, grown }: Props = $props();

  /** The lowest string of the half that comes later. */
  const HALF = 3;
  // Unseen, it is drawn in steps, and what was just left is not drawn again with the change.
  const begun = late(() => picture.marks);
  const finished = late(() => begun.current);
  /** The labels of half the strings, then the others: all at once they take long. In the marks’ order. */
  const labelled = $derived([
    ...begun.current.filter(({ string }) => string > HALF),
    ...finished.current.filter(({ string }) => string <= HALF),
  ]);
  const resting = late(() => grown, inSecondFrame);
  const { marks, now, target, next, nextTarget, ways } = $derived(picture);

  const isMarked = (place: Place) => marks.some((mark) => samePlace(mark, place));
  const sounds = (place: Place) =>
    marks.some((mark) => samePlace(mark, place) && !(mark.kind === 'change' && mark.now === null));
  const at = ({ string, fret }: Place) =>
    `translate(${layout.finger(fret)} ${layout.string(string)}) scale(${layout.noteScale})`;
</script>

<!-- A target is a chord tone, which the scale that is shown may be without. -->
{#snippet alone(place: Place, label: string, ring: string, ink: string)}
  <g transform={at(place)} data-target-alone={placeId(place)}>
    <circle class="fill-sheet {ring}" stroke-width="1.6" r="13" />
    <text class="text-[12px] font-semibold {ink}" text-anchor="middle" y="4.2">{label}</text>
  </g>
{/snippet}

<NeckLayer {layout} {seen}>
  {#if nextTarget}
    {#each ways as way (placeId(way))}
      <line
        class="stroke-next"
        stroke-width="1.5"
        stroke-dasharray="2 3"
        x1={layout.finger(way.fret)}
        y1={layout.string(way.string)}
        x2={layout.finger(nextTarget.fret)}
        y2={layout.string(nextTarget.string)}
      />
    {/each}
  {/if}
  <NeckMarks
    {marks}
    {layout}
    grown={seen ? grown : resting.current}
    labelled={seen ? marks : labelled}
  />
  {#if now && target && !sounds(target)}
    {@render alone(target, showOver(now.chord, target.degree), 'stroke-now', 'fill-now-text')}
  {/if}
  {#if target}
    <g
      transform={at(target)}
      data-stage-target={seen ? 'now' : undefined}
      data-place={placeId(target)}
    >
      <path
        class="fill-now stroke-paper"
        stroke-width="0.7"
        d="M11.5 -7 V-23 L26 -17.7 L13 -12.3 Z"
      />
    </g>
  {/if}
  {#if next && nextTarget}
    {#each ways as way (placeId(way))}
      <!-- Where a note stands already its own mark is enough. -->
      {#if !isMarked(way)}
        <circle
          class="fill-sheet stroke-next"
          stroke-width="2"
          r={4.3 * layout.noteScale}
          cx={layout.finger(way.fret)}
          cy={layout.string(way.string)}
          data-way-in={placeId(way)}
        />
      {/if}
    {/each}
    {#if !isMarked(nextTarget)}
      {@render alone(
        nextTarget,
        showOver(next.chord, nextTarget.degree),
        'stroke-none',
        'fill-next-text',
      )}
    {/if}
  {/if}
</NeckLayer>
