<!-- The Book: every chart, last opened first. -->
<script lang="ts">
  import FileInput from '@lucide/svelte/icons/file-input';
  import LayoutTemplate from '@lucide/svelte/icons/layout-template';
  import Plus from '@lucide/svelte/icons/plus';
  import Search from '@lucide/svelte/icons/search';
  import { message, warn } from '$lib/ui/messages.svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import {
    addDemoCharts,
    createChart,
    deleteChart,
    duplicateChart,
    renameChart,
    restoreChart,
  } from '$lib/study/api';
  import { NEW_CHART } from './newChart';
  import type { ChartSummary } from '$lib/server/charts';
  import ChartRow from './ChartRow.svelte';
  import FormDialog from './FormDialog.svelte';
  import ImportDialog from './ImportDialog.svelte';

  interface Props {
    readonly charts: readonly ChartSummary[];
  }

  let { charts }: Props = $props();

  let sought = $state('');
  const folded = (text: string) => text.toLocaleLowerCase().normalize('NFKD');
  const found = $derived(
    charts.filter((chart) => {
      const haystack = folded(`${chart.title} ${chart.key ?? ''}`);
      return folded(sought)
        .split(/\s+/u)
        .every((word) => haystack.includes(word));
    }),
  );

  const AWAY = 'The server does not answer. Nothing was changed.';

  async function attempt(action: Promise<boolean>): Promise<boolean> {
    const done = await action;
    if (done) await invalidateAll();
    else warn(AWAY);
    return done;
  }

  let importing = $state(false);
  let choosing = $state(false);

  /** Makes a chart and opens it; false when the server is away. */
  async function make(
    text: string,
    editing: 'text' | 'bars' | null,
    plan: string | null = null,
  ): Promise<boolean> {
    const id = await createChart(text, plan ?? undefined);
    if (id === null) warn(AWAY);
    else await goto(`/plan/${id}${editing === null ? '' : `?edit=${editing}`}`);
    return id !== null;
  }

  const newChart = () => make(NEW_CHART, 'bars');

  async function remove(chart: ChartSummary) {
    if (!(await attempt(deleteChart(chart.id)))) return;
    message(`“${chart.title}” is deleted.`, {
      duration: 10_000,
      action: { label: 'Undo', onClick: () => void attempt(restoreChart(chart.id)) },
    });
  }
</script>

<main class="mx-auto flex max-w-5xl flex-col gap-4 p-4 sm:p-8">
  <div class="flex flex-wrap items-end gap-3">
    <h1 class="heading mr-auto text-3xl">Book</h1>
    <label class="relative">
      <span class="sr-only">Search charts</span>
      <Search
        size={16}
        class="pointer-events-none absolute top-1/2 left-2.5 -translate-y-1/2 text-ink-soft"
        aria-hidden="true"
      />
      <input type="search" class="field w-56 pl-8" placeholder="Title or key" bind:value={sought} />
    </label>
    <button class="button" onclick={() => (importing = true)}>
      <FileInput size={16} aria-hidden="true" />Import
    </button>
    <button class="button" onclick={() => (choosing = true)}>
      <LayoutTemplate size={16} aria-hidden="true" />From a form
    </button>
    <button class="button-strong" onclick={newChart}>
      <Plus size={16} aria-hidden="true" />New chart
    </button>
  </div>

  {#if charts.length === 0}
    <section class="flex flex-col items-start gap-4 border-t border-line py-10">
      <h2 class="heading text-xl">No charts yet</h2>
      <p class="max-w-prose">
        A chart is a chord progression typed between bar lines, like
        <span class="font-serif whitespace-nowrap">| Am7 | D9 | Gmaj7 | % |</span>. Type your own,
        or look around with six ready-made ones.
      </p>
      <div class="flex flex-wrap gap-2">
        <button class="button-strong" onclick={newChart}>Type a chart</button>
        <button class="button" onclick={() => attempt(addDemoCharts())}>Add six demo charts</button>
      </div>
    </section>
  {:else if found.length === 0}
    <p role="status" class="border-t border-line py-8">
      No chart matches “{sought}”.
      <button class="underline" onclick={() => (sought = '')}>Show all</button>
    </p>
  {:else}
    <table class="w-full border-collapse">
      <thead class="text-left text-sm text-ink-soft">
        <tr class="border-b border-line-strong">
          <th scope="col" class="py-1.5 pr-3 font-normal">Title</th>
          <th scope="col" class="py-1.5 pr-3 font-normal">Key</th>
          <th scope="col" class="py-1.5 pr-3 text-right font-normal max-sm:hidden">Tempo</th>
          <th scope="col" class="py-1.5 pr-3 text-right font-normal">Bars</th>
          <th scope="col" class="py-1.5 pr-3 text-right font-normal max-sm:hidden">Last opened</th>
          <th scope="col"><span class="sr-only">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        {#each found as chart (chart.id)}
          <ChartRow
            {chart}
            onrename={(title) => attempt(renameChart(chart.id, title))}
            onduplicate={() => attempt(duplicateChart(chart.id))}
            ondelete={() => remove(chart)}
          />
        {/each}
      </tbody>
    </table>
  {/if}
</main>

<ImportDialog bind:open={importing} onchart={({ text, plan }) => make(text, null, plan)} />
<FormDialog bind:open={choosing} onchart={(text) => make(text, 'bars')} />
