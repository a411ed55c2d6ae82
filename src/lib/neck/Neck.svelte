<!--
  The neck: ink strings and frets, the marks of now and next, the zone's bracket.
  One composite widget: Tab reaches it, arrow keys walk from note to note.
-->
<script lang="ts">
  import type { Layer } from '$core/neck/layers';
  import type { Mark } from '$core/neck/marks';
  import { fitZone, inZone, type Neck, type Place, type Zone } from '$core/neck/neck';
  import JoinedPlaces from './JoinedPlaces.svelte';
  import { LARGE, layOut } from './layout';
  import MoveArrows from './MoveArrows.svelte';
  import NeckBoard from './NeckBoard.svelte';
  import NoteMark from './NoteMark.svelte';
  import { nearestMark } from './roving';
  import { type Around, speakMark } from './speech';
  import TargetFlags, { type Flag } from './TargetFlags.svelte';
  import ZoneBracket from './ZoneBracket.svelte';

  interface Props {
    readonly neck: Neck;
    readonly marks: readonly Mark[];
    readonly around: Around | null;
    readonly zone: Zone;
    /** Shapes whose voices are joined under the marks. */
    readonly layers?: readonly Layer[];
    /** What a note is labelled with. */
    readonly labelOf: (mark: Mark) => string;
    readonly leftHanded?: boolean;
    readonly flags?: readonly Flag[];
    readonly onpin?: (time: Flag['time'], place: Place) => void;
    /** A mark that is picked, by click or by Enter. */
    readonly onpick?: (mark: Mark) => void;
    readonly onzone: (zone: Zone) => void;
    readonly onzoneend: () => void;
    /** The mark under the pointer or the focus; null when there is none. */
    readonly onread: (mark: Mark | null) => void;
  }

  let {
    neck,
    marks,
    around,
    zone,
    layers = [],
    labelOf,
    leftHanded = false,
    flags = [],
    onpin = () => undefined,
    onpick = () => undefined,
    onzone,
    onzoneend,
    onread,
  }: Props = $props();

  const layout = $derived(layOut(neck, { ...LARGE, leftHanded }));

  const idOf = (mark: Mark) => `${mark.string}-${mark.fret}`;
  let roving = $state('');
  const stop = $derived(
    marks.find((mark) => idOf(mark) === roving) ??
      marks.find((mark) => inZone(zone, mark.fret) && mark.now !== null) ??
      marks[0],
  );
  let picture = $state<SVGSVGElement>();
  let scroller = $state<HTMLDivElement>();

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
    roving = idOf(target);
    picture?.querySelector<SVGGElement>(`[data-mark="${roving}"]`)?.focus();
  }

  /** Reads out the mark an event is about; null when it is about none. */
  function read(event: Event): Mark | null {
    const id = (event.target as Element).closest<SVGGElement>('[data-mark]')?.dataset['mark'];
    const mark = marks.find((one) => idOf(one) === id) ?? null;
    onread(mark);
    return mark;
  }

  // On a narrow screen the neck scrolls: keep the zone in sight.
  $effect(() => {
    if (!scroller || !picture) return;
    const scale = picture.clientWidth / layout.width;
    const left = Math.min(layout.wire(zone.low), layout.wire(zone.high)) * scale;
    scroller.scrollTo({ left: left - 60 });
  });
</script>

<div bind:this={scroller} class="overflow-x-auto overflow-y-hidden">
  <svg
    bind:this={picture}
    viewBox="0 0 {layout.width} {layout.height}"
    class="block w-full min-w-3xl select-none"
    role="group"
    aria-label="Neck, frets {zone.low} to {zone.high}. Arrow keys walk from note to note."
  >
    <rect
      class="fill-sheet"
      x={Math.min(layout.wire(Math.max(0, zone.low - 1)), layout.wire(zone.high))}
      y={layout.top - 16}
      width={Math.abs(layout.wire(zone.high) - layout.wire(Math.max(0, zone.low - 1)))}
      height={layout.bottom - layout.top + 32}
    />
    <NeckBoard {neck} {layout} {zone} />
    {#each layers as layer (layer.kind)}
      <JoinedPlaces {layer} {layout} />
    {/each}
    <MoveArrows {marks} {layout} />
    <ZoneBracket
      {zone}
      {layout}
      onmove={(low, high) => onzone(fitZone(neck, low, high))}
      onend={onzoneend}
      frets={neck.frets}
    />
    <!-- The notes are the buttons; listening here spares each of them its own listeners. -->
    <g
      role="presentation"
      {onkeydown}
      onpointerover={read}
      onpointerout={() => onread(null)}
      onfocusin={(event) => {
        const mark = read(event);
        if (mark) roving = idOf(mark);
      }}
      onfocusout={() => onread(null)}
      onclick={(event) => {
        const mark = read(event);
        if (mark) onpick(mark);
      }}
    >
      {#each marks as mark (idOf(mark))}
        <NoteMark
          {mark}
          id={idOf(mark)}
          x={layout.finger(mark.fret)}
          y={layout.string(mark.string)}
          label={labelOf(mark)}
          speech={around ? speakMark(mark, around) : ''}
          tabbable={mark === stop}
        />
      {/each}
    </g>
    <TargetFlags {flags} {layout} places={marks} {onpin} />
  </svg>
</div>
