<!--
  A neck with what stands on it: ink strings and frets, marks of every kind, joined shapes. Where
  marks can be picked it is one composite widget: Tab reaches it, arrow keys walk from note to note.
-->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { range } from '$core/lists';
  import type { Neck, Zone } from 'corvel-core';
  import { inZone, placeId, stringCount } from '$core/neck/neck';
  import type { DrawnMark } from './drawn';
  import { type NeckLayout, WIDEST } from './layout';
  import NeckBoard from './NeckBoard.svelte';
  import NeckMarks from './NeckMarks.svelte';
  import { nearestMark } from './roving';

  interface Props {
    readonly neck: Neck;
    readonly layout: NeckLayout;
    readonly marks: readonly DrawnMark[];
    /** The marks that can be pressed and heard, where these follow those that are seen. */
    readonly pressed?: readonly DrawnMark[];
    readonly label: string;
    /** Frets that stand out; null for none. */
    readonly zone?: Zone | null;
    /** Whether the zone is shaded. */
    readonly shaded?: boolean;
    readonly leftHanded?: boolean;
    /** What a mark says of itself; given, marks can be walked, read and picked. */
    readonly speak?: (mark: DrawnMark) => string;
    /** The mark under the pointer or the focus; null when there is none. */
    readonly onread?: (mark: DrawnMark | null) => void;
    /** A mark that is picked, by click or by Enter. */
    readonly onpick?: (mark: DrawnMark) => void;
    /** Drawn between the board and the marks. */
    readonly under?: Snippet;
    /** Drawn over the marks. */
    readonly over?: Snippet;
    readonly picture?: SVGSVGElement | undefined;
    readonly class?: string;
  }

  let {
    neck,
    layout,
    marks,
    pressed = marks,
    label,
    zone = null,
    shaded = false,
    leftHanded = false,
    speak,
    onread = () => undefined,
    onpick = () => undefined,
    under,
    over,
    picture = $bindable(),
    class: extra = '',
  }: Props = $props();

  let roving = $state('');
  const stop = $derived(
    marks.find((mark) => placeId(mark) === roving) ??
      marks.find(
        (mark) =>
          (zone === null || inZone(zone, mark.fret)) &&
          (mark.kind !== 'change' || mark.now !== null),
      ) ??
      marks[0],
  );
  const stopId = $derived(stop ? placeId(stop) : '');

  // Worked out here, not in the template: there each call of each button is followed by itself.
  const buttons = $derived(pressed.map((mark) => ({ id: placeId(mark), mark })));
  /** How far the zone is shaded beyond its outer strings. */
  const edge = $derived(Math.max(16, (WIDEST / 2) * layout.noteScale));
  const fingers = $derived(range(0, neck.frets + 1).map(layout.finger));
  const lines = $derived(range(0, stringCount(neck) + 1).map(layout.string));

  const ARROWS: Readonly<Record<string, readonly [across: number, along: number]>> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };

  function onkeydown(event: KeyboardEvent) {
    if (stop && (event.key === 'Enter' || event.key === ' ')) {
      event.preventDefault();
      event.stopPropagation();
      onpick(stop);
      return;
    }
    const arrow = ARROWS[event.key];
    if (!arrow || !stop || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    const [across, along] = arrow;
    const target = nearestMark(marks, stop, across, leftHanded ? -along : along);
    if (!target) return;
    roving = placeId(target);
    picture?.querySelector<SVGGElement>(`[data-mark="${roving}"]`)?.focus();
  }

  /** Reads out the mark an event is about; null when it is about none. */
  function read(event: Event): DrawnMark | null {
    const id = (event.target as Element).closest<SVGGElement>('[data-mark]')?.dataset['mark'];
    const mark = marks.find((one) => placeId(one) === id) ?? null;
    onread(mark);
    return mark;
  }
</script>

<svg
  bind:this={picture}
  data-neck={speak ? '' : undefined}
  viewBox="0 0 {layout.width} {layout.height}"
  class="block w-full select-none {extra}"
  role={speak ? 'group' : 'img'}
  aria-label={label}
>
  {#if zone && shaded}
    {@const ends = [layout.wire(Math.max(0, zone.low - 1)), layout.wire(zone.high)]}
    <rect
      class="fill-sheet"
      x={Math.min(...ends)}
      y={layout.top - edge}
      width={Math.max(...ends) - Math.min(...ends)}
      height={layout.bottom - layout.top + 2 * edge}
    />
  {/if}
  <NeckBoard {neck} {layout} {zone} />
  {@render under?.()}
  <NeckMarks {marks} {layout} />
  {#if speak}
    <!-- The notes are the buttons; listening here spares each of them its own listeners. -->
    <g
      role="presentation"
      {onkeydown}
      onpointerover={read}
      onpointerout={() => onread(null)}
      onfocusin={(event) => {
        const mark = read(event);
        if (mark) roving = placeId(mark);
      }}
      onfocusout={() => onread(null)}
      onclick={(event) => {
        const mark = read(event);
        if (mark) onpick(mark);
      }}
    >
      {#each buttons as { id, mark } (id)}
        <circle
          role="button"
          aria-label={speak(mark)}
          data-mark={id}
          data-now={mark.kind === 'change' ? mark.now : undefined}
          data-next={mark.kind === 'change' ? mark.next : undefined}
          data-motion={mark.kind === 'change' ? mark.mark.motion?.kind : undefined}
          tabindex={id === stopId ? 0 : -1}
          class="[pointer-events:all] fill-none outline-none focus-visible:stroke-ink"
          cx={fingers[mark.fret]}
          cy={lines[mark.string]}
          r={19 * Math.max(0.8, layout.noteScale)}
          stroke-width="2"
        />
      {/each}
    </g>
  {/if}
  {@render over?.()}
</svg>
