<!-- One line that takes chords, typed or pasted, and opens them as a chart. -->
<script lang="ts">
  import { readChartFile } from '$lib/workers/opening';
  import type { OpenedChart } from '$lib/formats/charts';

  import { namedByChords, nameOf, typedLine } from './typed';
  import { counted } from '$core/words';

  interface Props {
    /** Titles of the charts there are: one that is typed again is noticed. */
    readonly titles: readonly string[];
    /** Makes the chart; false when the server is away. */
    readonly onchart: (chart: OpenedChart) => Promise<boolean>;
  }

  let { titles, onchart }: Props = $props();

  let typed = $state('');
  let said = $state('');
  let readAsIs = $state.raw<OpenedChart | null>(null);
  let field = $state<HTMLTextAreaElement>();
  /** Whether chords without bar lines share one bar. */
  let oneBar = $state(false);
  const line = $derived(typedLine(typed, oneBar));

  /** Says, while it is typed, how it is read. */
  async function verdict() {
    const text = typed;
    readAsIs = null;
    said = '';
    if (text.trim() === '' || text.trimStart().startsWith('{') || text.trimStart().startsWith('<'))
      return;
    const { readChart } = await import('$core/chart/form');
    if (text !== typed) return;
    const read = readChart(line.text);
    if (!read.ok) said = read.problems[0]?.message ?? '';
    else {
      const { bars, chords } = read.chart;
      const title = nameOf(read.chart);
      const again = titles.includes(title) ? ` “${title}” is in the Book already.` : '';
      said = `${counted(bars.length, 'bar')}, ${counted(chords.length, 'chord')}. Enter opens it.${again}`;
    }
  }

  async function open() {
    if (typed.trim() === '') {
      field?.focus();
      return;
    }
    const result = await readChartFile(new TextEncoder().encode(line.text));
    if (!result.ok) said = result.message;
    else if (result.chart.remarks.length > 0 && !readAsIs) {
      said = result.chart.remarks.join(' ');
      readAsIs = result.chart;
    } else if (await onchart({ ...result.chart, text: namedByChords(result.chart.text) }))
      typed = '';
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return;
    event.preventDefault();
    void open();
  }

  /** Puts the caret in the line. */
  export const focus = () => field?.focus();
</script>

<form
  class="grid gap-1"
  onsubmit={(event) => {
    event.preventDefault();
    void open();
  }}
>
  <div class="flex items-start gap-2">
    <label class="min-w-0 flex-1">
      <span class="sr-only">Chords</span>
      <textarea
        bind:this={field}
        bind:value={typed}
        name="chords"
        rows="1"
        class="field heading field-sizing-content max-h-48 w-full resize-none py-1.5 text-lg/6"
        placeholder="Chords: Gm7 C7 | Fmaj7"
        aria-describedby="typed-verdict"
        spellcheck="false"
        autocapitalize="off"
        oninput={() => void verdict()}
        {onkeydown}></textarea>
    </label>
    <button class="button-strong min-h-10 shrink-0"
      >{readAsIs ? 'Open as it is' : 'Create chart'}</button
    >
  </div>
  <div class="flex flex-wrap items-baseline gap-x-3 text-sm text-ink-soft">
    <p id="typed-verdict" role="status" class="min-h-5">{said}</p>
    {#if line.loose}
      <button
        type="button"
        class="underline"
        onclick={() => {
          oneBar = !oneBar;
          void verdict();
          field?.focus();
        }}>{oneBar ? 'A bar for each chord' : 'All in one bar'}</button
      >
    {/if}
  </div>
</form>
