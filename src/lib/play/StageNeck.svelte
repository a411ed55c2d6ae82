<!-- The neck on the stage: what comes grows toward the change, its target before its beat. -->
<script lang="ts">
  import { spokenChord } from '$core/chords/spoken';
  import { markNeck } from '$core/neck/marks';
  import { type Place, samePlace } from '$core/neck/neck';
  import { approachNotes } from '$core/targets/approach';
  import { type DrawnMark, drawnChange } from '$lib/neck/drawn';
  import { labelMark } from '$lib/neck/labels';
  import { atWidth, layOut } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import HeardMark from '$lib/listening/HeardMark.svelte';
  import { createWires } from '$lib/neck/wires.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { late } from '$lib/ui/afterPaint.svelte';
  import { showOver } from '$lib/ui/glyphs';
  import { getStage } from './stage.svelte';

  interface Props {
    /** Whether what comes is shown by now. */
    readonly ahead: boolean;
    /** Whether what to play is shown at all. */
    readonly shown: boolean;
    /** The pitch that is heard now, its cents after the point; null where none is. */
    readonly heard?: number | null;
  }

  let { ahead, shown, heard = null }: Props = $props();

  const study = getStudy();
  const stage = getStage();
  let width = $state(1240);
  const wires = createWires(() => ({ neck: study.neck, focus: study.zone }));
  const leftHanded = $derived(study.instrument.leftHanded);
  /** Room for the rings of the outer strings once they have grown. */
  const GROWN = 7;
  const layout = $derived.by(() => {
    const { above, below, ...measures } = atWidth(width);
    const room = { above: above + GROWN, below: below + GROWN };
    return layOut(study.neck, { ...measures, ...room, leftHanded, wires: wires.current });
  });
  /** What sounds is said in words first, and drawn with the frame after. */
  const drawn = late(() => {
    const { now, next, target, nextTarget } = stage;
    return { now, next, target, nextTarget };
  });
  const { now, next, target, nextTarget } = $derived(drawn.current);

  const marks = $derived.by((): readonly DrawnMark[] => {
    if (!now || !shown) return [];
    const sounding = { chord: now.chord, notes: now.material.notes };
    const coming = ahead && next ? { chord: next.chord, notes: next.material.notes } : null;
    const around = {
      now: now.chord,
      next: coming?.chord ?? null,
      key: study.key,
      collection: now.material.collection,
      zone: study.zone,
    };
    return markNeck(study.neck, study.zone, sounding, coming).map((mark) =>
      drawnChange(mark, labelMark(mark, study.view.labels, around)),
    );
  });

  /** Beats over which what comes grows. */
  const GROWING = 4;
  /** The size of what comes, by how near the change is. */
  const SIZES = [1, 1.06, 1.11, 1.17, 1.22] as const;
  /** How near the change is, in whole beats: nothing is drawn anew between them. */
  const near = late(() =>
    stage.change && stage.playing ? Math.max(0, GROWING + 1 - stage.left) : 0,
  );

  /** Notes that lead into the target, from below and from above. */
  const ways = $derived.by(() => {
    if (!shown || !ahead || !next || !nextTarget) return [];
    const setting = { chord: next.chord, scale: next.material.notes, zone: study.zone };
    return (['below', 'above'] as const).flatMap((from) =>
      approachNotes(study.neck, nextTarget, setting, from).slice(-1),
    );
  });
  const isMarked = (place: Place) => marks.some((mark) => samePlace(mark, place));
  const at = ({ string, fret }: Place) =>
    `translate(${layout.finger(fret)} ${layout.string(string)})`;
  const label = $derived(
    `Neck, frets ${study.zone.low} to ${study.zone.high}${now ? `, ${spokenChord(now.chord)}` : ''}`,
  );
</script>

<div
  class="stage-neck shrink-0 overflow-x-auto overflow-y-hidden will-change-transform contain-content"
  bind:clientWidth={width}
  data-near={near.current}
>
  <Neck
    class="min-w-3xl max-sm:min-w-[34rem]"
    neck={study.neck}
    {layout}
    {marks}
    {label}
    zone={study.zone}
    shaded
    {leftHanded}
    grown={SIZES[near.current] ?? 1}
  >
    {#snippet over()}
      {#if shown && target}
        <g transform={at(target)} data-stage-target="now">
          <path
            class="fill-now stroke-paper"
            stroke-width="1"
            d="M16 -10 V-32 L36 -24.5 L18 -17 Z"
          />
        </g>
      {/if}
      {#each ways as way (`${way.string}-${way.fret}`)}
        {#if nextTarget}
          <line
            class="stroke-next"
            stroke-width="1.5"
            stroke-dasharray="2 3"
            x1={layout.finger(way.fret)}
            y1={layout.string(way.string)}
            x2={layout.finger(nextTarget.fret)}
            y2={layout.string(nextTarget.string)}
          />
          <!-- Where a note stands already its own mark is enough. -->
          {#if !isMarked(way)}
            <circle
              class="fill-sheet stroke-next"
              stroke-width="2"
              r="6"
              cx={layout.finger(way.fret)}
              cy={layout.string(way.string)}
              data-way-in={`${way.string}-${way.fret}`}
            />
          {/if}
        {/if}
      {/each}
      <HeardMark neck={study.neck} zone={study.zone} {layout} pitch={heard} />
      {#if shown && ahead && next && nextTarget}
        <g transform={at(nextTarget)} data-stage-target="next">
          <circle
            class="swelling stroke-next {isMarked(nextTarget) ? 'fill-none' : 'fill-sheet'}"
            stroke-width="3"
            r="18"
          />
          {#if !isMarked(nextTarget)}
            <text class="fill-next-text text-[13px] font-semibold" text-anchor="middle" y="4.5"
              >{showOver(next.chord, nextTarget.degree)}</text
            >
          {/if}
        </g>
      {/if}
    {/snippet}
  </Neck>
</div>

<style>
  [data-near='1'] .swelling {
    transform: scale(1.05);
  }

  [data-near='2'] .swelling {
    transform: scale(1.18);
  }

  [data-near='3'] .swelling {
    transform: scale(1.3);
  }

  [data-near='4'] .swelling {
    transform: scale(1.45);
  }

  /* Only the target swells smoothly: a neck full of moving rings would be drawn at every frame. */
  @media (prefers-reduced-motion: no-preference) {
    .swelling {
      transition: transform 150ms linear;
    }
  }
</style>
