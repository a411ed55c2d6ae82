<!--
  One note. Now is a filled disc, next a ring; a note of both is a disc inside a ring. Chord tones
  are solid, colour tones pale and thin, guide tones stand a little prouder. What is of neither
  chord's choice, and every note of a plain shape, is ink on paper.
-->
<script lang="ts">
  import type { Weight } from '$core/chords/over';
  import { type DrawnMark, RADIUS } from './drawn';

  interface Props {
    readonly mark: DrawnMark;
    /** Size of the drawing beside the large neck. */
    readonly scale: number;
  }

  let { mark, scale }: Props = $props();

  const pale = (weight: Weight | 'blue') => weight === 'colour' || weight === 'blue';

  interface Disc {
    readonly r: number;
    readonly class: string;
    readonly width: number;
    readonly dashed?: boolean;
  }

  const SOUNDING = 13;
  const COMING = 11;

  /** The discs of the mark from the lowest up, and the class of its label. */
  const drawn = $derived.by((): { readonly discs: readonly Disc[]; readonly text: string } => {
    switch (mark.kind) {
      case 'change': {
        const { now, next } = mark;
        const inner = now ? RADIUS[now] : 0;
        const discs: Disc[] = [];
        if (next) {
          const r = now ? inner + 3 : RADIUS[next] - 1;
          const width = next === 'colour' ? 1.4 : 2.8;
          discs.push({ r, width, class: 'fill-paper stroke-next' });
        }
        if (!now && !next) {
          discs.push({ r: 8.5, width: 1.2, class: 'fill-paper stroke-line-strong' });
        }
        if (now) {
          const fill = now === 'colour' ? 'fill-now-tint stroke-now' : 'fill-now stroke-now';
          discs.push({ r: inner, width: 1, class: fill });
        }
        const text = now ? (now === 'colour' ? 'fill-ink' : 'fill-on-now') : 'fill-next-text';
        return { discs, text: now || next ? text : 'fill-ink-soft' };
      }
      case 'sounding':
        return {
          discs: [{ r: SOUNDING, width: 0, class: 'fill-now' }],
          text: 'fill-on-now',
        };
      case 'coming':
        return {
          discs: [{ r: COMING, width: 2.8, class: 'fill-paper stroke-next' }],
          text: 'fill-next-text',
        };
      case 'heard':
        return {
          discs: [{ r: COMING + 5, width: 2, class: 'fill-none stroke-ink', dashed: true }],
          text: 'fill-ink',
        };
      case 'asked':
        return {
          discs: [{ r: COMING, width: 2, class: 'fill-sheet stroke-ink' }],
          text: 'fill-ink',
        };
      case 'ground': {
        const disc =
          mark.weight === 'colour'
            ? { r: 5, width: 0, class: 'fill-line-strong' }
            : { r: 7, width: 2, class: 'fill-paper stroke-ink-soft' };
        return { discs: [disc], text: '' };
      }
      case 'plain': {
        const { weight, changed } = mark;
        const fill = pale(weight) ? 'fill-sheet stroke-ink' : 'fill-ink stroke-ink';
        const moved: readonly Disc[] = changed
          ? [{ r: RADIUS[weight] + 4, width: 3.5, class: 'fill-none stroke-next' }]
          : [];
        return {
          discs: [
            ...moved,
            { r: RADIUS[weight], width: 1.7, class: fill, dashed: weight === 'blue' },
          ],
          text: pale(weight) ? 'fill-ink' : 'fill-paper',
        };
      }
    }
  });
</script>

<g transform="scale({scale})" class="pointer-events-none">
  {#each drawn.discs as disc, index (index)}
    <circle
      class={disc.class}
      r={disc.r}
      stroke-width={disc.width}
      stroke-dasharray={disc.dashed ? '3 3' : undefined}
    />
  {/each}
  <text
    aria-hidden="true"
    class="font-semibold {mark.label.length > 2 ? 'text-[10.5px]' : 'text-[13px]'} {drawn.text}"
    text-anchor="middle"
    y={mark.label.length > 2 ? 3.8 : 4.5}>{mark.label}</text
  >
</g>
