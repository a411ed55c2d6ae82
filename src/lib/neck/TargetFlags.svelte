<!--
  The chosen targets stand proudest: a pennant on now's, a hollow one on next's. A pennant can be
  dragged to another note, which pins it there.
-->
<script lang="ts">
  import type { Place } from '$core/neck/neck';
  import type { NeckLayout } from './layout';

  export interface Flag extends Place {
    readonly time: 'now' | 'next';
    /** The degree it is over its chord. */
    readonly label: string;
    readonly pinned: boolean;
  }

  interface Props {
    readonly flags: readonly Flag[];
    readonly layout: NeckLayout;
    /** Places a pennant may be dropped on. */
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
</script>

{#each flags as flag (flag.time)}
  {@const x = drag?.time === flag.time ? drag.x : layout.finger(flag.fret)}
  {@const y = drag?.time === flag.time ? drag.y : layout.string(flag.string)}
  {@const now = flag.time === 'now'}
  <g
    class="cursor-grab touch-none {now ? 'text-now' : 'text-next'}"
    data-target={flag.time}
    data-place="{flag.string}-{flag.fret}"
    role="presentation"
    transform="translate({x} {y})"
    onpointerdown={(event) => start(event, flag.time)}
    onpointermove={(event) => {
      if (drag) drag = { time: drag.time, ...pointOf(event) };
    }}
    onpointerup={end}
    onpointercancel={() => (drag = null)}
  >
    <circle class="pointer-events-none fill-none stroke-current" stroke-width="2" r="16.5" />
    <path
      class="stroke-current {now ? 'fill-current' : 'fill-paper'}"
      stroke-width="1.8"
      stroke-linejoin="round"
      d="M11 -12 V-27 L27 -21.5 L11 -16"
    />
    <text class="pointer-events-none fill-current text-[12px] font-bold" x="15" y="-29"
      >{flag.label}</text
    >
    {#if flag.pinned}<circle class="fill-ink" cx="11" cy="-27" r="3" />{/if}
  </g>
{/each}
