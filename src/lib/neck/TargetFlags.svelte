<!--
  The chosen targets: the next one is the largest thing on the neck, a ring with a pennant of its own
  beside it; now's has the pennant alone. A target can be dragged to another note, which pins it there.
-->
<script lang="ts">
  import type { Place } from '$core/neck/neck';
  import { FLAG, type NeckLayout, WIDEST } from './layout';

  export interface Flag extends Place {
    readonly time: 'now' | 'next';
    /** The degree it is over its chord. */
    readonly label: string;
    readonly pinned: boolean;
    /** Whether a note of now stands there, which then stays in sight. */
    readonly sounds: boolean;
    /** Whether an arrow of the change stands on its side toward the nut: then its flag is on the other. */
    readonly crowded: boolean;
  }

  interface Props {
    readonly flags: readonly Flag[];
    readonly layout: NeckLayout;
    /** Places a target may be dropped on. */
    readonly places: readonly Place[];
    readonly onpin: (time: Flag['time'], place: Place) => void;
  }

  let { flags, layout, places, onpin }: Props = $props();

  let drag = $state.raw<{
    readonly time: Flag['time'];
    readonly x: number;
    readonly y: number;
  } | null>(null);

  function pointOf(event: PointerEvent) {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement;
    const box = svg?.getBoundingClientRect();
    if (!box) return { x: 0, y: 0 };
    const scale = layout.width / box.width;
    return { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale };
  }

  function start(event: PointerEvent, time: Flag['time']) {
    (event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
    drag = { time, ...pointOf(event) };
    event.preventDefault();
  }

  const REACH = 26;

  function end(event: PointerEvent) {
    if (!drag) return;
    const { x, y } = pointOf(event);
    const off = (place: Place) =>
      Math.hypot(layout.finger(place.fret) - x, layout.string(place.string) - y);
    const nearest = places.reduce<Place | null>(
      (best, place) => (best === null || off(place) < off(best) ? place : best),
      null,
    );
    if (nearest && off(nearest) < REACH) onpin(drag.time, nearest);
    drag = null;
  }

  /** Half the ring's width, in units of a note. */
  const EDGE = 1.7;
  const RING = WIDEST / 2 - EDGE;
  const { note: NOTE, between: BETWEEN } = FLAG;

  /** How wide the flag beside a note may be without reaching the note of the next fret; 0 for none. */
  function pennantAt({ fret, crowded }: Flag): number {
    const lower = !crowded && fret > layout.frets.low;
    const beside = lower || fret === layout.frets.high ? fret - 1 : fret + 1;
    // Beyond the frets with notes there is none to reach.
    if (beside < layout.played.low || beside > layout.played.high) return FLAG.most;
    const between = Math.abs(layout.finger(fret) - layout.finger(beside)) / layout.noteScale;
    const room = between - NOTE - WIDEST / 2 - 3 * BETWEEN;
    return room < FLAG.least - 0.01 ? 0 : Math.min(FLAG.most, room);
  }
</script>

{#each flags as flag (flag.time)}
  {@const x = drag?.time === flag.time ? drag.x : layout.finger(flag.fret)}
  {@const y = drag?.time === flag.time ? drag.y : layout.string(flag.string)}
  {@const now = flag.time === 'now'}
  {@const wide = pennantAt(flag)}
  <!-- Toward the nut, whichever hand plays, where there is room. -->
  {@const nut = layout.wire(layout.frets.low) < layout.wire(layout.frets.high) ? -1 : 1}
  {@const way = flag.crowded ? -nut : nut}
  {@const pole = way * (WIDEST / 2 + BETWEEN)}
  <g
    class="cursor-grab touch-none {now ? 'text-now' : 'text-next'}"
    data-target={flag.time}
    data-place="{flag.string}-{flag.fret}"
    data-degree={flag.label}
    role="presentation"
    transform="translate({x} {y}) scale({layout.noteScale})"
    onpointerdown={(event) => start(event, flag.time)}
    onpointermove={(event) => {
      if (drag) drag = { time: drag.time, ...pointOf(event) };
    }}
    onpointerup={end}
    onpointercancel={() => (drag = null)}
  >
    {#if now}
      <!-- A target is a chord tone, which the scale that is shown may be without. -->
      <circle
        class={flag.sounds ? 'fill-transparent' : 'fill-paper stroke-current'}
        stroke-width="1.6"
        r={flag.sounds ? NOTE : 13}
      />
      {#if !flag.sounds}
        <text
          class="pointer-events-none fill-now-text text-[13px] font-semibold"
          text-anchor="middle"
          y="4.5">{flag.label}</text
        >
      {/if}
    {:else}
      <circle
        class="stroke-current {flag.sounds ? 'fill-transparent' : 'fill-paper'}"
        stroke-width={2 * EDGE}
        r={RING}
      />
      {#if !flag.sounds}
        <text
          class="pointer-events-none fill-next-text font-bold {flag.label.length > 2
            ? 'text-[14px]'
            : 'text-[17px]'}"
          text-anchor="middle"
          y={flag.label.length > 2 ? 5 : 6}>{flag.label}</text
        >
      {/if}
    {/if}
    {#if wide > 0}
      <!-- It is taken hold of beside its pole as well. -->
      <rect
        class="fill-transparent"
        x={Math.min(pole, pole + way * wide)}
        y="-13"
        width={wide}
        height="26"
      />
      <path
        class="stroke-current {now ? 'fill-current' : 'fill-paper'}"
        stroke-width="1.8"
        stroke-linejoin="round"
        d="M{pole} 12 V-12 L{pole + way * wide} -6.5 L{pole} -1"
        data-pennant
      />
    {/if}
    {#if flag.pinned}<circle class="fill-ink" cx={pole} cy="-12" r="3" />{/if}
  </g>
{/each}
