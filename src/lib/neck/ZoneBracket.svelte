<!-- The zone's bracket over the strings: drag it, drag an end, or step it with the arrow keys; a press alone lifts it. -->
<script lang="ts">
  import type { Zone } from 'corvel-core';
  import { type NeckLayout, WIDEST } from './layout';

  interface Props {
    readonly zone: Zone;
    readonly layout: NeckLayout;
    readonly frets: number;
    readonly onmove: (low: number, high: number) => void;
    readonly onend: () => void;
    /** It was pressed and not dragged. */
    readonly onpress: () => void;
    /** What a press and a drag do, in words. */
    readonly title: string;
  }

  let { zone, layout, frets, onmove, onend, onpress, title }: Props = $props();

  type Grip = 'low' | 'high' | 'both';

  const low = $derived(layout.wire(Math.max(0, zone.low - 1)));
  const high = $derived(layout.wire(zone.high));
  /** Over the notes of the highest string. */
  const y = $derived(Math.max(8, layout.top - (WIDEST / 2) * layout.noteScale - 8));

  /** The neck as it stood when the drag began: it makes room for the zone while it moves. */
  let drag = $state.raw<{ grip: Grip; from: number; zone: Zone; layout: NeckLayout } | null>(null);
  let moved = false;

  function fretUnder(event: PointerEvent): number {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement;
    const box = svg?.getBoundingClientRect();
    if (!box) return zone.low;
    const { fretAt, width } = drag?.layout ?? layout;
    return fretAt(((event.clientX - box.left) / box.width) * width);
  }

  const start = (grip: Grip) => (event: PointerEvent) => {
    (event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
    drag = { grip, from: fretUnder(event), zone, layout };
    moved = false;
  };

  function move(event: PointerEvent) {
    if (!drag) return;
    const by = fretUnder(event) - drag.from;
    moved ||= by !== 0;
    const { low: first, high: last } = drag.zone;
    if (drag.grip === 'low') onmove(Math.min(first + by, last - 1), last);
    else if (drag.grip === 'high') onmove(first, Math.max(last + by, first + 1));
    else {
      const kept = Math.max(-first, Math.min(by, frets - last));
      onmove(first + kept, last + kept);
    }
  }

  function end({ type }: PointerEvent) {
    const pressed = drag?.grip === 'both' && !moved && type === 'pointerup';
    if (pressed) onpress();
    else if (drag) onend();
    drag = null;
  }

  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (by === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    const { low: first, high: last } = zone;
    if (event.shiftKey) onmove(first, Math.max(last + by, first + 1));
    else if (first + by >= 0 && last + by <= frets) onmove(first + by, last + by);
    onend();
  }
</script>

<g>
  <path class="fill-none stroke-ink" stroke-width="2" d="M{low} {y + 9} V{y} H{high} V{y + 9}" />
  <rect
    class="zone cursor-grab touch-none fill-transparent outline-none focus-visible:stroke-ink"
    stroke-width="2"
    x={Math.min(low, high)}
    y={y - 10}
    width={Math.abs(high - low)}
    height="22"
    role="slider"
    tabindex="0"
    aria-label="Zone"
    aria-valuemin="0"
    aria-valuemax={frets}
    aria-valuenow={zone.low}
    aria-valuetext="frets {zone.low} to {zone.high}"
    onpointerdown={start('both')}
    onpointermove={move}
    onpointerup={end}
    onpointercancel={end}
    {onkeydown}
  >
    <title>{title}</title>
  </rect>
  {#each [['low', low], ['high', high]] as const as [grip, x] (grip)}
    <rect
      class="cursor-ew-resize touch-none fill-transparent"
      x={x - 9}
      y={y - 10}
      width="18"
      height="24"
      role="presentation"
      onpointerdown={start(grip)}
      onpointermove={move}
      onpointerup={end}
      onpointercancel={end}
    />
  {/each}
</g>
