<!--
  The strip: the form as it is played, bars in proportion to time, now and next marked. Below the
  chords lie what is played over them and a lane of guide tones.
-->
<script lang="ts">
  import { untrack } from 'svelte';
  import { group } from '$core/lists';
  import type { Problem } from '$core/chart/syntax';
  import type { Chart } from 'corvel-core';
  import type { PlayedBar } from '$core/chart/form';
  import type { KeyArea, Reading } from '$core/harmony/reading';
  import type { Loop } from '$lib/study/playing';
  import { afterPaint, late } from '$lib/ui/afterPaint.svelte';
  import type { Landing } from '$core/listening/landings';
  import type { Lane } from '$core/crossings/lanes';
  import { sharedShare } from '$core/lenses/ranking';
  import type { ModeNaming } from '$lib/settings/settings';
  import type { PlannedChord } from '$lib/study/choices';
  import Contour from './Contour.svelte';
  import { CONTOUR_HEIGHT, contourStops } from './contour';
  import { createLoopDrag } from './loopDrag.svelte';
  import { columnsFor, headingOf, isRoomy, linesOf } from './strip';
  import StripChord from './StripChord.svelte';
  import { counted } from '$core/words';
  import type { Beats } from '$core/time/units';

  interface Props {
    readonly chart: Chart;
    readonly reading: Reading;
    readonly now: number | null;
    readonly next: number | null;
    /** Numerals large and symbols small, or the other way round. */
    readonly names: 'symbols' | 'numerals';
    readonly planned: readonly PlannedChord[];
    /** The lane drawn under the bars; null for none. */
    readonly lane: Lane | null;
    readonly naming: ModeNaming;
    /** Whether every line is opened to its lanes, or only the one of now. */
    readonly opened: boolean;
    /** Whether the lines keep their lanes shut, where other things need the room. */
    readonly shut?: boolean;
    readonly ongo: (index: number) => void;
    readonly onedit: (index: number) => void;
    /** Bars of which something cannot be read, and what. */
    readonly unreadable: ReadonlyMap<number, Problem>;
    /** The bars that go round, from 0 up to, not including, `to`; null for the whole form. */
    readonly loop?: Loop | null;
    /** Told the bars that were dragged over. */
    readonly onloop?: ((loop: Loop) => void) | undefined;
    /** What landed of the targets of chords, as it was heard. */
    readonly landings?: readonly Landing[];
    /** Where the music is: a bar as played, from 0, and the share of it that is over. */
    readonly hand?: { readonly bar: number; readonly share: number } | null;
  }

  let {
    chart,
    reading,
    now,
    next,
    names,
    planned,
    lane,
    naming,
    opened,
    shut = false,
    ongo,
    onedit,
    unreadable,
    loop = null,
    onloop,
    hand = null,
    landings = [],
  }: Props = $props();

  const byBar = $derived(group(chart.chords, (played) => played.bar));
  const cadences = $derived(reading.cadences);
  const contour = $derived(lane ? contourStops(chart, lane) : null);

  /** How much of a chord's material the chord before had too, 0–1; null for the very first. */
  function sharedWithBefore(index: number): number | null {
    const here = planned[index]?.material;
    const before = planned[index - 1]?.material;
    return here && before ? sharedShare(here, before) : null;
  }
  let width = $state(1248);
  /** Heights of a line, of what it has more where it is open, and between two; text grows with the reader's letters. */
  const LINE = '2.025rem + 1px';
  const OPENED = '1.3rem + 19px';
  const GAP = '0.125rem';
  const EDGE = '1px';
  /** On a tablet that stands upright a long form has more lines. */
  const TALL = {
    low: 'sm:max-lg:portrait:[--more:7]',
    high: 'sm:max-lg:portrait:[--more:3]',
  } as const;
  /** On narrow screens a form of several rows has its height before its width is known: nothing under it moves. */
  const reserved = $derived.by(() => {
    if (chart.bars.length < 16) return '';
    const low = 'max-lg:h-(--share)';
    return chart.bars.length < 32 ? low : `${low} ${high ? TALL.high : TALL.low}`;
  });
  const columns = $derived(columnsFor(chart, width));
  const roomy = $derived(isRoomy(chart, width, columns));
  const lines = $derived(linesOf(chart, columns));
  /** The bars of each line, each with its place in the form. */
  const rows = $derived([
    ...group(
      chart.bars.map((bar, index) => ({ bar, index })),
      ({ index }) => lines[index] ?? 0,
    ),
  ]);
  const lineSounding = $derived(lines[(now === null ? 1 : (chart.chords[now]?.bar ?? 1)) - 1] ?? 0);
  /** The line that is open; a step into another shows where it is before that one opens. */
  const lineNow = late(() => lineSounding);
  const isOpen = (index: number) => !shut && (opened || lines[index] === lineNow.current);
  /** Pixels a chord's name has beside its marks. */
  const roomFor = (beats: Beats, bar: PlayedBar): number =>
    ((width / columns) * beats) / bar.beats - 44;

  type Time = 'now' | 'next' | null;
  const timesOf = (): Time[] =>
    chart.chords.map(({ index }) => (index === now ? 'now' : index === next ? 'next' : null));
  /** When each chord sounds. A step touches the chords it is about, and no other. */
  let times = $state(untrack(timesOf));
  $effect.pre(() => {
    const wanted = timesOf();
    untrack(() => {
      if (times.length !== wanted.length) times = wanted;
      else wanted.forEach((time, index) => (times[index] = time));
    });
  });

  const landed = $derived(new Map(landings.map((landing) => [landing.index, landing])));
  const laned = $derived(reading.areas.length > 1);
  // The strip's share of the screen is so many whole lines: what scrolls is cut between two.
  const row = $derived(laned ? `${LINE} + 1px` : LINE);
  const high = $derived(!shut && (opened || contour !== null));
  const first = $derived(shut ? row : `${row} + ${OPENED} + ${contour ? CONTOUR_HEIGHT : 0}px`);
  const areaAt = (bar: number): KeyArea | undefined =>
    reading.areas.find(({ from, to }) => from <= bar && bar <= to);

  /** Time of a bar that no chord takes. */
  function silence(bar: PlayedBar): Beats {
    const sounding = (byBar.get(bar.number) ?? []).reduce((sum, { beats }) => sum + beats, 0);
    return bar.beats - sounding;
  }

  let scroller = $state<HTMLDivElement>();
  let list = $state<HTMLDivElement>();

  // The strip is one stop of Tab: where the focus is in it, it goes along with now.
  $effect(() => {
    const { activeElement } = document;
    if (now === null || !list?.contains(activeElement)) return;
    const chord = list.querySelector<HTMLElement>(`[data-chord="${now}"]`);
    if (chord !== activeElement) chord?.focus({ preventScroll: true });
  });

  let height = $state(0);
  const sounds = $derived(now !== null);

  // The line of now is kept in sight with the one after it. Where lines stand is asked for once the
  // frame is painted: before, the page would lay itself out twice.
  $effect(() => {
    void [columns, laned, width, contour === null, opened, height];
    const index = lineNow.current;
    if (!sounds) return;
    return afterPaint(() => {
      const line = list?.children[index];
      if (!scroller || !(line instanceof HTMLElement)) return;
      const top = line.offsetTop;
      const room = Math.min(height, 2 * line.offsetHeight);
      const { scrollTop } = scroller;
      if (top >= scrollTop && top + room <= scrollTop + height) return;
      scroller.scrollTo({ top });
    });
  });

  let listHeight = $state(0);
  /** Where the bars stand, for the hand to be moved over them without laying out or drawing any. */
  let cells = $state.raw<readonly DOMRect[]>([]);
  const moving = $derived(hand !== null);
  $effect(() => {
    void [rows, width, listHeight, lineNow.current];
    if (!moving) return;
    return afterPaint(() => {
      const origin = list?.getBoundingClientRect();
      if (!list || !origin) return;
      cells = [...list.querySelectorAll('[data-bar]')].map((cell) => {
        const { left, top, width, height } = cell.getBoundingClientRect();
        return new DOMRect(left - origin.left, top - origin.top, width, height);
      });
    });
  });
  const handAt = $derived(hand && (cells[hand.bar] ?? null));

  const drag = createLoopDrag(
    () => list,
    () => onloop,
  );
  const shownLoop = $derived(drag.over ?? loop);
</script>

<div
  bind:this={scroller}
  bind:clientWidth={width}
  bind:clientHeight={height}
  style:--first="calc({first} + {EDGE})"
  style:--row="calc({opened && !shut ? first : row} + {GAP})"
  class="relative max-h-(--share) [--share:calc(var(--first)+var(--more)*var(--row))] {high
    ? '[--more:1]'
    : '[--more:3] max-sm:[--more:1]'} {reserved} shrink-0 pb-px will-change-transform contain-content overflow-x-hidden overflow-y-auto [scrollbar-width:thin]"
  role="group"
  aria-label="The form, {counted(chart.bars.length, 'bar')}"
>
  <div
    bind:this={list}
    bind:clientHeight={listHeight}
    class="relative flex flex-col gap-y-0.5 {onloop ? 'touch-pan-y' : ''}"
    role="presentation"
    data-loop={shownLoop ? `${shownLoop.from + 1}-${shownLoop.to}` : undefined}
    onpointerdown={drag.start}
    onpointermove={drag.move}
    onpointerup={drag.end}
    onpointercancel={drag.cancel}
  >
    <!-- Lines are held apart, so that a step draws the one it is about. -->
    {#each rows as [line, bars] (line)}
      <ol
        class="grid contain-content"
        style:grid-template-columns="repeat({columns}, minmax(0, 1fr))"
      >
        {#each bars as { bar, index } (bar.number)}
          {@const area = laned ? areaAt(bar.number) : undefined}
          {@const { section, key, whole } = headingOf(chart, index, area, width / columns)}
          {@const open = isOpen(index)}
          {@const inLoop = shownLoop !== null && index >= shownLoop.from && index < shownLoop.to}
          {@const outside = shownLoop !== null && !inLoop}
          <li
            data-bar={index}
            class="flex min-w-0 flex-col border-l {outside || inLoop || area
              ? 'relative'
              : ''} {section ? 'border-ink border-l-2' : 'border-line-strong'} {laned
              ? 'pb-0.5'
              : 'pb-px'}"
          >
            <span
              class="h-3.5 pl-1.5 text-[11px] leading-[11px] text-ink-soft {section || key
                ? 'truncate'
                : ''}"
              title={whole || undefined}
            >
              {bar.number}{#if section}<span class="ml-1.5 font-semibold text-ink">{section}</span
                >{/if}
              {#if key}<span class="ml-1 {area?.heard ? 'italic' : ''}">{key}</span>{/if}
            </span>
            <div class="flex min-w-0">
              {#each byBar.get(bar.number) ?? [] as played (played.index)}
                {@const read = reading.chords[played.index]}
                {@const time = times[played.index] ?? null}
                <StripChord
                  {played}
                  {read}
                  cadence={cadences[read?.cadence ?? -1]}
                  plan={open ? planned[played.index] : undefined}
                  shared={open ? sharedWithBefore(played.index) : null}
                  {time}
                  stops={time === 'now' || (now === null && played.index === 0)}
                  {open}
                  {roomy}
                  {names}
                  {naming}
                  room={roomFor(played.beats, bar)}
                  landing={landed.get(played.index)}
                  {ongo}
                  {onedit}
                />
              {/each}
              {#if silence(bar) > 0}
                {@const problem = unreadable.get(bar.number)}
                <span
                  class="min-w-0 px-1.5 {problem
                    ? 'text-xs font-semibold wrap-break-word text-now-text'
                    : 'text-ink-soft'}"
                  style:flex="{silence(bar)} 1 0"
                  title={problem?.message}
                  data-problem={problem ? bar.number : undefined}
                  >{problem ? `${problem.token || 'this bar'}?` : 'N.C.'}</span
                >
              {/if}
            </div>
            {#if contour && open}
              <Contour
                stops={(byBar.get(bar.number) ?? []).flatMap(
                  ({ index }) => contour.get(index) ?? [],
                )}
                {now}
                {next}
              />
            {/if}
            {#if outside}
              <!-- Paled by a veil: bars that are seen through would each be drawn apart. -->
              <span aria-hidden="true" class="pointer-events-none absolute inset-0 bg-paper/50"
              ></span>
            {/if}
            {#if shownLoop && inLoop}
              <span
                aria-hidden="true"
                class="pointer-events-none absolute inset-x-0 top-0 h-2.5 border-ink {index ===
                shownLoop.from
                  ? 'border-l-4'
                  : ''} {index === shownLoop.to - 1 ? 'border-r-4' : ''} border-t-2"
              ></span>
            {/if}
            {#if area}
              <span
                aria-hidden="true"
                class="absolute right-0 bottom-0 left-0 border-t-2 {area.heard
                  ? 'border-dashed border-line-strong'
                  : 'border-ink'}"
              ></span>
            {/if}
          </li>
        {/each}
      </ol>
    {/each}
    {#if hand && handAt}
      <span
        aria-hidden="true"
        class="pointer-events-none absolute top-0 left-0 border-l-2 border-now will-change-transform"
        style:height="{handAt.height}px"
        style:transform="translate({handAt.x + hand.share * handAt.width}px, {handAt.y}px)"
        data-hand={hand.bar + 1}
      ></span>
    {/if}
  </div>
</div>
