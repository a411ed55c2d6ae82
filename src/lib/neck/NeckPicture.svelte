<!-- A neck to look at: a stretch of it with a shape, small in grids and plain in print. -->
<script lang="ts">
  import type { Neck, Zone } from '$core/neck/neck';
  import { layOut, SMALL, windowAround } from './layout';
  import NeckBoard from './NeckBoard.svelte';
  import type { Dot } from './dots';

  interface Props {
    readonly neck: Neck;
    readonly dots: readonly Dot[];
    readonly shape: Zone;
    readonly leftHanded: boolean;
    readonly label: string;
    /** The frets drawn; round the shape when left out. */
    readonly frets?: Zone;
    /** Whether the notes are joined by a line, as the voices of a chord are. */
    readonly joined?: boolean;
  }

  let { neck, dots, shape, leftHanded, label, frets, joined = false }: Props = $props();

  const layout = $derived(
    layOut(neck, { ...SMALL, leftHanded, frets: frets ?? windowAround(neck, shape) }),
  );
  const RADIUS = { definer: 8.5, chord: 8, colour: 7, blue: 7 } as const;
</script>

<svg
  viewBox="0 0 {layout.width} {layout.height}"
  class="block w-full"
  role="img"
  aria-label={label}
  data-neck-picture={label}
>
  <NeckBoard {neck} {layout} zone={layout.frets} />
  {#if joined}
    <polyline
      class="fill-none stroke-line-strong"
      stroke-width="3"
      points={dots
        .map(({ fret, string }) => `${layout.finger(fret)},${layout.string(string)}`)
        .join(' ')}
    />
  {/if}
  {#each dots as { string, fret, text, weight, changed } (`${string}-${fret}`)}
    {@const x = layout.finger(fret)}
    {@const y = layout.string(string)}
    {#if changed}<circle
        class="fill-none stroke-next"
        stroke-width="2.5"
        cx={x}
        cy={y}
        r="11"
      />{/if}
    <circle
      class={weight === 'colour' || weight === 'blue'
        ? 'fill-sheet stroke-ink'
        : 'fill-ink stroke-ink'}
      stroke-width="1.2"
      stroke-dasharray={weight === 'blue' ? '2 2' : undefined}
      cx={x}
      cy={y}
      r={RADIUS[weight]}
    />
    <text
      class="text-[10px] font-semibold {weight === 'colour' || weight === 'blue'
        ? 'fill-ink'
        : 'fill-paper'}"
      text-anchor="middle"
      {x}
      y={y + 3.5}>{text}</text
    >
  {/each}
</svg>
