<!-- A chart from a file, or pasted: whatever format it is in; a file of several is chosen from. -->
<script lang="ts">
  import { summariseChart, UNTITLED } from '$core/chart/summary';
  import { FILE_LIMIT } from '$lib/formats/files';
  import { type ChartOpened, OPENED_TYPES, type OpenedChart } from '$lib/formats/charts';
  import { readChartFile } from '$lib/workers/opening';
  import Dialog from '$lib/ui/Dialog.svelte';

  interface Props {
    open: boolean;
    /** Makes the chart; false when the server is away. */
    readonly onchart: (chart: OpenedChart) => Promise<boolean>;
  }

  let { open = $bindable(), onchart }: Props = $props();

  let pasted = $state('');
  let refusal = $state('');
  let opened = $state.raw<OpenedChart | null>(null);
  /** The charts of a file that holds several, to choose from. */
  let choices = $state.raw<readonly OpenedChart[]>([]);
  /** Whether they are parts of one score, which differ by their melody. */
  const parts = $derived(choices.every(({ label }) => label !== undefined));

  async function take(result: ChartOpened) {
    refusal = result.ok ? '' : result.message;
    if (!result.ok) return;
    if (result.choices) {
      choices = result.choices;
      return;
    }
    await choose(result.chart);
  }

  async function choose(chart: OpenedChart) {
    choices = [];
    if (chart.remarks.length > 0) opened = chart;
    else await finish(chart);
  }

  async function finish(chart: OpenedChart) {
    if (await onchart(chart)) {
      pasted = '';
      opened = null;
      open = false;
    } else refusal = 'The server does not answer. Nothing was lost; try again.';
  }

  async function readFile(file: File | undefined) {
    if (!file) return;
    if (file.size > FILE_LIMIT) refusal = 'This file is too large for a chart.';
    else await take(await readChartFile(new Uint8Array(await file.arrayBuffer())));
  }
</script>

<Dialog bind:open title="Import a chart">
  {#if choices.length > 0}
    <p class="mb-2">
      {parts
        ? 'Which part of the score is the melody?'
        : 'This file holds several tunes: choose one.'}
    </p>
    <ul class="mb-4 max-h-96 overflow-y-auto p-1" data-choices>
      {#each choices as choice, index (index)}
        <li>
          <button
            class="w-full rounded px-2 py-2 text-left hover:bg-line"
            onclick={() => void choose(choice)}
            >{choice.label || summariseChart(choice.text).title || UNTITLED}</button
          >
        </li>
      {/each}
    </ul>
    <button class="button" onclick={() => (choices = [])}>Back</button>
  {:else if opened}
    <p class="mb-2">The chart can be created, but not everything can be imported:</p>
    <ul class="mb-4 list-disc pl-5 text-sm" data-remarks>
      {#each opened.remarks as remark (remark)}<li>{remark}</li>{/each}
    </ul>
    <div class="flex gap-2">
      <button class="button-strong" onclick={() => opened && finish(opened)}
        >Create the chart</button
      >
      <button class="button" onclick={() => (opened = null)}>Back</button>
    </div>
  {:else}
    <label class="mb-1 block" for="import-file"
      >From a file: chart text, MusicXML, ABC, ChordPro, a song sheet, or MIDI</label
    >
    <input
      id="import-file"
      type="file"
      accept={OPENED_TYPES}
      class="mb-4 block w-full text-sm"
      onchange={(event) => void readFile(event.currentTarget.files?.[0])}
    />
    <label class="mb-1 block" for="import-text">Or paste it here</label>
    <textarea
      id="import-text"
      class="field min-h-40 w-full py-1.5"
      placeholder="| Am7 | D9 | Gmaj7 | % |"
      bind:value={pasted}></textarea>
    <p role="alert" class="min-h-6 text-sm text-now-text">{refusal}</p>
    <button
      class="button-strong"
      disabled={pasted.trim() === ''}
      onclick={async () => take(await readChartFile(new TextEncoder().encode(pasted)))}
    >
      Create a chart from it
    </button>
  {/if}
</Dialog>
