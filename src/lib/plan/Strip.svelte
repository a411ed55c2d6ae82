<!-- The strip: the form as it is played, bars in proportion to time, now and next marked. -->
<script lang="ts">
  import { group } from 'd3-array';
  import type { Chart, PlayedBar } from '$core/chart/form';
  import type { Reading } from '$core/harmony/reading';
  import { showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly chart: Chart;
    readonly reading: Reading;
    readonly now: number | null;
    readonly next: number | null;
    readonly ongo: (index: number) => void;
    /** Takes more height, where there is some. */
    readonly tall?: boolean;
  }

  let { chart, reading, now, next, ongo, tall = false }: Props = $props();

  const byBar = $derived(group(chart.chords, (played) => played.bar));
  const rows = $derived(chart.bars.length > 4 ? 8 : 4);

  /** A bar's heading where a section or another time through it begins. */
  function heading(bar: PlayedBar, index: number): string | null {
    const before = chart.bars[index - 1];
    if (before?.section === bar.section && before.pass === bar.pass) return null;
    const section = chart.source.sections[bar.section];
    const times = chart.bars.some((other) => other.section === bar.section && other.pass > 1);
    if (!section?.name && !times) return null;
    return [section?.name, times ? `time ${bar.pass}` : null].filter(Boolean).join(', ');
  }

  /** Shares of a bar that no chord takes, before each chord and at the end. */
  function silence(bar: PlayedBar): number {
    const sounding = (byBar.get(bar.number) ?? []).reduce((sum, { beats }) => sum + beats, 0);
    return bar.beats - sounding;
  }

  let scroller = $state<HTMLDivElement>();
  $effect(() => {
    if (now === null) return;
    const cell = scroller?.querySelector<HTMLElement>(`[data-chord="${now}"]`)?.closest('li');
    if (!scroller || !cell) return;
    const top = cell.offsetTop - scroller.offsetTop;
    if (
      top < scroller.scrollTop ||
      top + cell.offsetHeight > scroller.scrollTop + scroller.clientHeight
    ) {
      scroller.scrollTo({ top: top - 8 });
    }
  });
</script>

<div
  bind:this={scroller}
  class="@container overflow-y-auto {tall ? 'max-h-96' : 'max-h-64'}"
  role="group"
  aria-label="The form, {chart.bars.length} bars"
>
  <ol class="grid grid-cols-2 gap-y-1 @lg:grid-cols-4 {rows === 8 ? '@4xl:grid-cols-8' : ''}">
    {#each chart.bars as bar, index (bar.number)}
      {@const title = heading(bar, index)}
      {@const newSection = chart.bars[index - 1]?.section !== bar.section}
      <li
        class="relative flex min-w-0 border-l pt-4 {title
          ? 'border-ink border-l-2'
          : 'border-line-strong'} {newSection ? 'col-start-1' : ''}"
      >
        <span class="absolute top-0 left-1.5 max-w-full truncate text-xs leading-4 text-ink-soft">
          {bar.number}{#if title}<span class="ml-1.5 font-semibold text-ink">{title}</span>{/if}
        </span>
        {#each byBar.get(bar.number) ?? [] as { index: chord, chord: { symbol }, beats } (chord)}
          {@const numeral = reading.chords[chord]?.numeral}
          <button
            data-chord={chord}
            data-time={chord === now ? 'now' : chord === next ? 'next' : undefined}
            aria-current={chord === now ? 'true' : undefined}
            class="flex min-w-0 flex-col items-start overflow-hidden rounded-sm border-2 px-1.5 text-left {chord ===
            now
              ? 'border-now bg-now text-on-now'
              : chord === next
                ? 'border-next'
                : 'border-transparent hover:border-line'}"
            style:flex="{beats} 1 0"
            onclick={() => ongo(chord)}
          >
            <span class="sr-only">Bar {bar.number}:</span>
            <span class="heading text-lg/[1.4rem] whitespace-nowrap">{showSymbol(symbol)}</span>
            <span
              class="text-xs/[1.05rem] whitespace-nowrap {chord === now
                ? ''
                : 'text-ink-soft'} {reading.chords[chord]?.diatonic === false ? 'italic' : ''}"
              >{numeral ? showSymbol(numeral) : ' '}</span
            >
            {#if chord === now || chord === next}
              <span class="sr-only">{chord === now ? 'now' : 'next'}</span>
            {/if}
          </button>
        {/each}
        {#if silence(bar) > 0}
          <span class="px-1.5 text-ink-soft" style:flex="{silence(bar)} 1 0">N.C.</span>
        {/if}
      </li>
    {/each}
  </ol>
</div>
