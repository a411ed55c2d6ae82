<!--
  A form drawn small, as one line: a stroke for each bar, taller the more chords it holds; sections
  and cadences above the strokes, key areas under them, as on the strip.
-->
<script lang="ts">
  import type { FormSketch } from '$core/harmony/sketch';
  import { showSymbol } from '$lib/ui/glyphs';
  import { counted } from '$core/words';

  interface Props {
    readonly sketch: FormSketch;
  }

  let { sketch }: Props = $props();

  const WIDTH = 320;
  const HEIGHT = 40;
  const BASE = 32;
  const STROKE = { least: 9, more: 4, most: 17 } as const;
  /** Room for each bar; a short form is not drawn out over the whole width. */
  const bar = $derived(Math.min(16, WIDTH / Math.max(1, sketch.bars.length)));
  const x = (number: number) => (number - 1) * bar + 1;
  const tall = (chords: number) =>
    chords === 0 ? 2 : Math.min(STROKE.most, STROKE.least + STROKE.more * (chords - 1));
  /** Names stand where they have room. */
  const roomy = ({ from, to }: { from: number; to: number }) => (to - from + 1) * bar >= 14;
  const words = $derived(
    [
      counted(sketch.bars.length, 'bar'),
      ...sketch.areas.map(({ key, from, to }) => `${showSymbol(key)} in bars ${from} to ${to}`),
    ].join(', '),
  );
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT}" class="block w-full" role="img" aria-label={words} data-form>
  {#each sketch.bars as chords, index (index)}
    <line
      class="stroke-ink-soft"
      stroke-width={Math.min(2, bar * 0.5)}
      x1={x(index + 1) + 1}
      x2={x(index + 1) + 1}
      y1={BASE}
      y2={BASE - tall(chords)}
    />
  {/each}
  {#each sketch.sections as section (section.from)}
    <line
      class="stroke-ink"
      stroke-width="2"
      x1={x(section.from) + 1}
      x2={x(section.from) + 1}
      y1={BASE + 1}
      y2="4"
    />
    {#if section.name && roomy(section)}
      <text class="fill-ink text-[10px] font-semibold" x={x(section.from) + 4} y="10"
        >{section.name.slice(
          0,
          Math.max(1, Math.floor(((section.to - section.from + 1) * bar) / 7)),
        )}</text
      >
    {/if}
  {/each}
  {#each sketch.cadences as { from, to }, index (index)}
    <path
      class="fill-none stroke-ink"
      stroke-width="1"
      d="M{x(from) + 1} 15 V13 H{x(to) + bar - 2} V15"
    />
  {/each}
  {#each sketch.areas as { from, to, heard } (from)}
    <line
      class={heard ? 'stroke-line-strong' : 'stroke-ink'}
      stroke-width="2"
      stroke-dasharray={heard ? '3 2' : undefined}
      x1={x(from)}
      x2={x(to) + bar - 1}
      y1={BASE + 4}
      y2={BASE + 4}
    />
  {/each}
</svg>
