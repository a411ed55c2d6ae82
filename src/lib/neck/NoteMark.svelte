<!--
  One note. Now is a filled disc, next a ring; a note of both is a disc inside a ring.
  Chord tones are solid, colour tones pale and thin; definers stand a little prouder. What is of
  neither chord's choice, shown by a layer, is ink on paper.
-->
<script lang="ts">
  import type { Mark } from '$core/neck/marks';

  interface Props {
    readonly mark: Mark;
    readonly id: string;
    readonly x: number;
    readonly y: number;
    readonly label: string;
    readonly speech: string;
    readonly tabbable: boolean;
  }

  let { mark, id, x, y, label, speech, tabbable }: Props = $props();

  const RADIUS = { definer: 12.5, chord: 11.5, colour: 9.5 } as const;
  const inner = $derived(mark.now ? RADIUS[mark.now.weight] : 0);
  const ring = $derived(mark.next ? (mark.now ? inner + 3 : RADIUS[mark.next.weight] - 1) : 0);
</script>

<!-- The label stands beside the button, whose spoken name says more than it can. -->
<g transform="translate({x} {y})">
  <g
    role="button"
    aria-label={speech}
    data-mark={id}
    data-now={mark.now?.weight}
    data-next={mark.next?.weight}
    data-fate={mark.fate?.kind}
    tabindex={tabbable ? 0 : -1}
    class="outline-none focus-visible:[&>.halo]:stroke-ink"
  >
    <circle class="halo fill-transparent stroke-transparent" r="19" stroke-width="2" />
    {#if mark.next}
      <circle
        class="fill-paper stroke-next"
        r={ring}
        stroke-width={mark.next.weight === 'colour' ? 1.4 : 2.8}
      />
    {/if}
    {#if !mark.now && !mark.next}
      <circle class="fill-paper stroke-line-strong" r="8.5" stroke-width="1.2" />
    {/if}
    {#if mark.now}
      <circle
        class={mark.now.weight === 'colour' ? 'fill-now-tint stroke-now' : 'fill-now stroke-now'}
        r={inner}
        stroke-width="1"
      />
    {/if}
  </g>
  <text
    aria-hidden="true"
    class="pointer-events-none text-[13px] font-semibold {mark.now
      ? mark.now.weight === 'colour'
        ? 'fill-ink'
        : 'fill-on-now'
      : mark.next
        ? 'fill-next-text'
        : 'fill-ink-soft'}"
    text-anchor="middle"
    y="4.5">{label}</text
  >
</g>
