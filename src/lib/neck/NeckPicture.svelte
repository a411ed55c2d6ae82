<!-- A stretch of neck with a shape: small in grids and plain in print. -->
<script lang="ts">
  import type { Neck as CoreNeck, Zone } from 'corvel-core';
  import type { DrawnMark } from './drawn';
  import { layOut, SMALL, windowAround } from './layout';
  import Neck from './Neck.svelte';

  interface Props {
    readonly neck: CoreNeck;
    readonly marks: readonly DrawnMark[];
    readonly shape: Zone;
    readonly leftHanded: boolean;
    readonly label: string;
    /** The frets drawn; round the shape when left out. */
    readonly frets?: Zone;
    /** Whether the notes are joined by a line, as the voices of a chord are. */
    readonly joined?: boolean;
  }

  let { neck, marks, shape, leftHanded, label, frets, joined = false }: Props = $props();

  const layout = $derived(
    layOut(neck, { ...SMALL, leftHanded, frets: frets ?? windowAround(neck, shape) }),
  );
</script>

<div data-neck-picture={label}>
  <Neck {neck} {layout} {marks} {label} zone={layout.frets}>
    {#snippet under()}
      {#if joined}
        <polyline
          class="fill-none stroke-line-strong"
          stroke-width="3"
          points={marks
            .filter(({ kind }) => kind !== 'ground')
            .map(({ fret, string }) => `${layout.finger(fret)},${layout.string(string)}`)
            .join(' ')}
        />
      {/if}
    {/snippet}
  </Neck>
</div>
