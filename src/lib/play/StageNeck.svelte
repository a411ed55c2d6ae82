<!-- The neck on the stage: what comes grows toward the change, its target before its beat. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { rememberOf } from '$core/cache';
  import { spokenChord } from '$core/chords/spoken';
  import { markNeck } from '$core/neck/marks';
  import { type Place, samePlace, stringCount } from '$core/neck/neck';
  import { approachNotes } from '$core/targets/approach';
  import type { RouteStop } from '$core/targets/route';
  import { type DrawnMark, drawnChange } from '$lib/neck/drawn';
  import { labelMark } from '$lib/neck/labels';
  import { atWidth, grownTo, heightOf, layOut } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import HeardMark from '$lib/listening/HeardMark.svelte';
  import { createWires } from '$lib/neck/wires.svelte';
  import type { PlannedChord } from '$lib/study/choices';
  import { getStudy } from '$lib/study/study.svelte';
  import { afterPaint, late } from '$lib/ui/afterPaint.svelte';
  import { showOver } from '$lib/ui/glyphs';
  import { getStage } from './stage.svelte';

  const playedOver = ({ chord, material }: PlannedChord) => ({ chord, notes: material.notes });

  interface Props {
    /** Whether what comes is shown by now. */
    readonly ahead: boolean;
    /** Whether what to play is shown at all. */
    readonly shown: boolean;
    /** Whether other things need the room. */
    readonly small: boolean;
    /** The pitch that is heard now, its cents after the point; null where none is. */
    readonly heard?: number | null;
  }

  let { ahead, shown, small, heard = null }: Props = $props();

  const study = getStudy();
  const stage = getStage();
  let width = $state(1240);
  const wires = createWires(() => ({ neck: study.neck, focus: study.zone }));
  const leftHanded = $derived(study.instrument.leftHanded);
  /** Room for the rings of the outer strings once they have grown. */
  const GROWN = 7;
  /** Widths from which the page is as high as its window: there may be height to spare. */
  const WIDE = 960;
  const measures = $derived.by(() => {
    const { above, below, ...rest } = atWidth(width);
    return { ...rest, above: above + GROWN, below: below + GROWN };
  });
  const strings = $derived(stringCount(study.neck));
  const least = $derived(heightOf(measures, strings));
  const most = $derived(
    small || width < WIDE ? least : heightOf(grownTo(measures, strings, Infinity), strings),
  );
  let room = $state(0);
  /** Two lines of words: while it plays the neck does not grow for what comes and goes below it. */
  const STEADY = 56;
  let height = $state(0);
  $effect(() => {
    const wanted = Math.min(most, Math.max(least, room));
    const more = wanted - untrack(() => height);
    if (!stage.playing || more < 0 || more > STEADY) height = wanted;
  });
  const layout = $derived(
    layOut(study.neck, {
      ...grownTo(measures, strings, height),
      ...{ leftHanded, wires: wires.current },
    }),
  );
  /** What sounds is said in words first, and drawn with the frame after. */
  const drawn = late(() => stage.moment);
  const { now, next, target, nextTarget } = $derived(drawn.current);

  /** The marks of a chord and of what it changes to, or of nothing that comes. */
  const marksOf = $derived.by(() => {
    const { neck, zone, key } = study;
    const { labels } = study.view;
    return rememberOf((sounding: PlannedChord) => {
      const make = (there: PlannedChord | null): readonly DrawnMark[] => {
        const around = {
          now: sounding.chord,
          next: there?.chord ?? null,
          ...{ key, zone, collection: sounding.material.collection },
        };
        const changed = there && playedOver(there);
        return markNeck(neck, zone, playedOver(sounding), changed).map((mark) =>
          drawnChange(mark, labelMark(mark, labels, around)),
        );
      };
      const before = rememberOf((there: PlannedChord) => make(there));
      let alone: readonly DrawnMark[] | null = null;
      return (there: PlannedChord | null) => (there ? before(there) : (alone ??= make(null)));
    });
  });
  const marks = $derived(now && shown ? marksOf(now)(ahead ? next : null) : []);

  /** Notes that lead into a target of a chord, from below and from above. */
  const waysOf = $derived.by(() => {
    const { neck, zone } = study;
    return rememberOf((coming: PlannedChord) =>
      rememberOf((stop: RouteStop) => {
        const setting = { chord: coming.chord, scale: coming.material.notes, zone };
        return (['below', 'above'] as const).flatMap((from) =>
          approachNotes(neck, stop, setting, from).slice(-1),
        );
      }),
    );
  });
  const ways = $derived(shown && ahead && next && nextTarget ? waysOf(next)(nextTarget) : []);

  // What the change will show is worked out before it comes.
  $effect(() => {
    const { coming } = stage;
    if (!stage.playing || !shown || !coming?.now) return;
    const { now: sounding, next: after, nextTarget: stop } = coming;
    const always = study.view.play.ahead === 'always';
    const [mark, lead] = [marksOf, waysOf];
    let callOff = afterPaint(() => {
      if (!always) mark(sounding)(null);
      callOff = afterPaint(() => {
        if (after) mark(sounding)(after);
        if (after && stop) lead(after)(stop);
      });
    });
    return () => {
      callOff();
    };
  });

  /** Beats over which what comes grows. */
  const GROWING = 4;
  /** The size of what comes, by how near the change is. */
  const SIZES = [1, 1.06, 1.11, 1.17, 1.22] as const;
  /** The ring of the coming target at its largest, across, beside a note’s size, and its size by how near the change is. */
  const SWOLLEN = 37.5;
  const SWELLING = [0.69, 0.72, 0.81, 0.9, 1] as const;
  /** How near the change is, in whole beats: nothing is drawn anew between them. */
  const near = late(() =>
    stage.change && stage.playing ? Math.max(0, GROWING + 1 - stage.left) : 0,
  );

  const isMarked = (place: Place) => marks.some((mark) => samePlace(mark, place));
  const at = ({ string, fret }: Place) =>
    `translate(${layout.finger(fret)} ${layout.string(string)}) scale(${layout.noteScale})`;
  const label = $derived(
    `Neck, frets ${study.zone.low} to ${study.zone.high}${now ? `, ${spokenChord(now.chord)}` : ''}`,
  );
</script>

<div
  class="stage-neck overflow-x-auto overflow-y-hidden will-change-transform contain-content max-lg:shrink-0 lg:flex-1"
  style:min-height={width < WIDE ? undefined : `${least}px`}
  style:max-height={width < WIDE ? undefined : `${most}px`}
  bind:clientWidth={width}
  bind:clientHeight={room}
  data-near={near.current}
>
  <div class="relative min-w-3xl max-sm:min-w-[34rem]">
    <Neck
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
              stroke-width="0.7"
              d="M11.5 -7 V-23 L26 -17.7 L13 -12.3 Z"
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
                r={4.3 * layout.noteScale}
                cx={layout.finger(way.fret)}
                cy={layout.string(way.string)}
                data-way-in={`${way.string}-${way.fret}`}
              />
            {/if}
          {/if}
        {/each}
        <HeardMark neck={study.neck} zone={study.zone} {layout} pitch={heard} />
        {#if shown && ahead && next && nextTarget && !isMarked(nextTarget)}
          <g transform={at(nextTarget)}>
            <circle class="fill-sheet" r="13" />
            <text class="fill-next-text text-[12px] font-semibold" text-anchor="middle" y="4.2"
              >{showOver(next.chord, nextTarget.degree)}</text
            >
          </g>
        {/if}
      {/snippet}
    </Neck>
    {#if shown && ahead && nextTarget}
      <span
        aria-hidden="true"
        class="swelling pointer-events-none absolute aspect-square -translate-1/2 rounded-full border-[0.27rem] border-next will-change-transform"
        style:left="{(100 * layout.finger(nextTarget.fret)) / layout.width}%"
        style:top="{(100 * layout.string(nextTarget.string)) / layout.height}%"
        style:width="{(100 * SWOLLEN * layout.noteScale) / layout.width}%"
        class:still={near.current < 2}
        style:transform="scale({SWELLING[near.current] ?? 1})"
        data-stage-target="next"
      ></span>
    {/if}
  </div>
</div>

<style>
  /* A layer of its own, moved and not drawn: in the picture each of its frames would draw the neck. */
  @media (prefers-reduced-motion: no-preference) {
    /* With the change it stands elsewhere at once: there is enough to draw then. */
    .swelling:not(.still) {
      transition: transform 150ms linear;
    }
  }
</style>
