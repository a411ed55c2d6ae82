<!-- The neck on the stage: what comes grows toward the change, its target before its beat. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { speakChord } from '$lib/ui/glyphs';
  import { stringCount } from '$core/neck/neck';
  import {
    FITTED,
    fretsBeside,
    heightFor,
    layOut,
    LOWEST_GAP,
    measuresIn,
    TIGHT_GAP,
    USUAL_GAP,
    WIDEST_GAP,
  } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import NeckLayer from '$lib/neck/NeckLayer.svelte';
  import HeardMark from '$lib/listening/HeardMark.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { late } from '$lib/ui/afterPaint.svelte';
  import { doubleBuffer } from '$lib/ui/doubleBuffer.svelte';
  import { nearness, showsAhead } from '$lib/stage/moment';
  import { BLANK, picturesOf, samePicture } from './pictures';
  import { getStage } from '$lib/stage/stage.svelte';
  import StagePicture from './StagePicture.svelte';
  import { BEAT } from 'corvel-core';

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
  /** The size of what comes, by how near the change is. */
  const SIZES = [1, 1.015, 1.03, 1.045, 1.06] as const;
  /** The ring of the coming target at its largest, across, beside a note’s size, and its size by how near the change is. */
  const SWOLLEN = 37.5;
  const SWELLING = [0.75, 0.82, 0.9, 1.02, 1.06] as const;

  let width = $state(1240);
  const leftHanded = $derived(study.instrument.leftHanded);
  const strings = $derived(stringCount(study.neck));
  /** With only the zone in sight strings may stand far apart and are read from afar. */
  const GAPS = { least: 30, small: 50, tall: 56, usual: WIDEST_GAP } as const;
  const least = $derived(heightFor(GAPS.least, strings));
  const most = $derived(heightFor(GAPS[small ? 'small' : 'usual'], strings));
  let room = $state(0);
  /** Two lines of words: while it plays the neck does not grow for what comes and goes below it. */
  const STEADY = 56;
  let height = $state(0);
  $effect(() => {
    // No lower than the least the style gives it.
    const wanted = Math.min(most, room === 0 ? least : room);
    const more = wanted - untrack(() => height);
    if (!stage.playing || more < 0 || more > STEADY) height = wanted;
  });
  const layout = $derived.by(() => {
    // A fret or two beside the zone are drawn too; the rest of the neck nobody plays here.
    const frets = fretsBeside(study.neck, study.zone, width < FITTED ? 1 : 2);
    const measures = measuresIn(
      { width, height: width < FITTED && room === 0 ? null : height },
      strings,
      false,
    );
    return layOut(study.neck, { ...measures, leftHanded, frets, played: study.zone });
  });
  /** What sounds is said in words first, and drawn with the frame after. */
  const drawn = late(() => ({
    moment: stage.standing.moment,
    ahead,
    near: stage.standing.change && stage.playing ? nearness(stage.standing.left) : 0,
  }));
  const near = $derived(drawn.current.near);
  /** How near the next change is when what comes begins to sound. */
  const nearThen = $derived(nearness(stage.standing.coming?.beats ?? Infinity));
  const picture = $derived(picturesOf(study));
  const buffer = doubleBuffer({
    wanted: () => (shown ? picture(drawn.current.moment, drawn.current.ahead) : BLANK),
    coming: () => {
      const { moment, coming } = stage.standing;
      const setting = study.view.play.ahead;
      if (!stage.playing || !shown || !coming) return null;
      const make = picture;
      if (!ahead && showsAhead(setting, BEAT)) return () => make(moment, true);
      return () => make(coming, showsAhead(setting, coming.beats));
    },
    same: samePicture,
  });
  const { next, nextTarget } = $derived(buffer.pictures[buffer.seen] ?? BLANK);

  /** From two beats before the change. */
  const FLIES = 3;
  const sounding = $derived(drawn.current.moment.now);
  const label = $derived(
    `Neck, frets ${study.zone.low} to ${study.zone.high}${sounding ? `, ${speakChord(sounding.chord)}` : ''}`,
  );
</script>

<div
  class="stage-neck flex-1 overflow-x-auto overflow-y-hidden will-change-transform contain-content max-lg:max-h-(--most) max-lg:min-h-(--usual) max-sm:min-h-(--tight) sm:max-lg:portrait:min-h-(--tall) short:min-h-(--low)!"
  style:--tight="{heightFor(TIGHT_GAP, strings)}px"
  style:--usual="{heightFor(USUAL_GAP, strings)}px"
  style:--low="{heightFor(LOWEST_GAP, strings)}px"
  style:--tall="{heightFor(GAPS.tall, strings)}px"
  style:--most="{heightFor(GAPS.usual, strings)}px"
  style:min-height={width < FITTED ? undefined : `${least}px`}
  style:max-height={width < FITTED ? undefined : `${most}px`}
  bind:clientWidth={width}
  bind:clientHeight={room}
  data-near={near}
>
  <div class="relative">
    <Neck neck={study.neck} {layout} marks={[]} {label} zone={study.zone} shaded {leftHanded} />
    {#each buffer.pictures as picture, place (place)}
      {#if picture}
        {@const seen = place === buffer.seen}
        <StagePicture {picture} {layout} {seen} grown={SIZES[seen ? near : nearThen] ?? 1} />
      {/if}
    {/each}
    {#if heard !== null}
      <NeckLayer {layout}>
        <HeardMark neck={study.neck} zone={study.zone} {layout} pitch={heard} />
      </NeckLayer>
    {/if}
    {#if next && nextTarget}
      <span
        aria-hidden="true"
        class="swelling pointer-events-none absolute aspect-square -translate-1/2 rounded-full border-[0.27rem] border-next will-change-transform"
        style:left="{(100 * layout.finger(nextTarget.fret)) / layout.width}%"
        style:top="{(100 * layout.string(nextTarget.string)) / layout.height}%"
        style:width="{(100 * SWOLLEN * layout.noteScale) / layout.width}%"
        class:still={near < 2}
        style:transform="scale({SWELLING[near] ?? 1})"
        data-stage-target="next"
        data-flies={near >= FLIES ? '' : undefined}
      >
        {#if near >= FLIES}
          <!-- Its pennant flies from two beats before it comes. -->
          <svg
            class="absolute bottom-[62%] left-[62%] h-[90%] w-[72%] overflow-visible"
            viewBox="0 0 16 20"
          >
            <path
              class="fill-next stroke-paper"
              stroke-width="1"
              d="M1 20 V1 L16 6.5 L3 12 V20 Z"
            />
          </svg>
        {/if}
      </span>
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
