<!-- The Book: every chart by its shape, what was worked on last first; and a line for a new one. -->
<script lang="ts">
  import FileInput from '@lucide/svelte/icons/file-input';
  import LayoutTemplate from '@lucide/svelte/icons/layout-template';
  import Plus from '@lucide/svelte/icons/plus';
  import Search from '@lucide/svelte/icons/search';
  import { askAnew, openPage, staying } from '$lib/ui/anew';
  import { inform, message, warn } from '$lib/ui/messages.svelte';
  import { once } from '$lib/ui/once';
  import { holdsWords } from '$lib/ui/search';
  import { page } from '$app/state';
  import {
    addDemoCharts,
    createChart,
    deleteChart,
    duplicateChart,
    renameChart,
    restoreChart,
  } from '$lib/study/api';
  import type { FormSketch } from '$core/harmony/sketch';
  import type { OpenedChart } from '$lib/formats/charts';
  import Keys from '$lib/frame/Keys.svelte';
  import type { Actions } from '$lib/frame/shortcuts';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { untrack } from 'svelte';
  import { createWindowed } from '$lib/ui/windowed.svelte';
  import { createForms } from './forms.svelte';
  import TypedChart from './TypedChart.svelte';
  import { NEW_CHART } from './newChart';
  import type { ChartSummary } from '$lib/study/messages';
  import ChartRow from './ChartRow.svelte';
  import FormDialog from './FormDialog.svelte';
  import ImportDialog from './ImportDialog.svelte';

  interface Props {
    readonly charts: readonly ChartSummary[];
    /** The forms of the first charts, by id, when they are read; others are asked for when they are seen. */
    readonly sketches: Promise<Readonly<Record<string, FormSketch | null>>>;
    readonly settings: StoredSettings;
    /** What to practise next, in a line, when it is worked out; null where nothing ever was practised. */
    readonly next: Promise<string | null> | null;
  }

  let { charts, sketches, settings: stored, next }: Props = $props();

  const settings = untrack(() => createSettings(stored));

  const forms = createForms(() => sketches);

  let sought = $state('');
  const found = $derived(
    charts.filter((chart) => holdsWords(`${chart.title} ${chart.key ?? ''}`, sought)),
  );

  /** A progression of our own to begin with. */
  const EXAMPLE = 'Am7 D9 | Gmaj7 E7 | Am7 | D9 Gmaj7';

  const AWAY = 'The server does not answer. Nothing was changed.';

  async function attempt(action: Promise<boolean>): Promise<boolean> {
    const done = await action;
    if (done) await askAnew();
    else warn(AWAY);
    return done;
  }

  let importing = $state(false);
  let choosing = $state(false);

  /** Makes a chart and opens it; false when the server is away. */
  const make = once(
    async (
      text: string,
      editing: 'text' | 'bars' | null,
      plan: string | null = null,
    ): Promise<boolean> => {
      const stays = staying();
      const id = await createChart(text, plan ?? undefined);
      if (id === null) warn(AWAY);
      else if (!(await stays())) inform('The new chart is in the Book.');
      else await openPage(`/plan/${id}${editing === null ? '' : `?edit=${editing}`}`);
      return id !== null;
    },
  );

  const duplicate = once((id: string) => attempt(duplicateChart(id)));
  const addDemo = once(() => attempt(addDemoCharts()));
  const newChart = () => make(NEW_CHART, 'bars');
  const open = ({ text, plan }: OpenedChart) => make(text, null, plan);

  let line = $state<TypedChart>();
  let list = $state<HTMLElement>();

  const ROW = 64;
  const rows = createWindowed({ count: () => found.length, estimate: ROW, list: () => list });
  const shown = $derived(found.slice(rows.from, rows.to));
  $effect(() => forms.want(shown));

  /** One chart on or back; from anywhere else into the list, and back out of it to the line. */
  async function walk(by: 1 | -1) {
    const row = document.activeElement?.closest<HTMLElement>('[data-at]:has([data-row]:focus)');
    const here = row ? Number(row.dataset['at']) : by > 0 ? -1 : found.length;
    if ((rows.aim ?? here) === 0 && by < 0) line?.focus();
    else (await rows.walk(here, by))?.querySelector<HTMLElement>('[data-row]')?.focus();
  }

  const actions: Actions = {
    walkBook: (key) => void walk(key === 'ArrowDown' ? 1 : -1),
    typeChords: () => line?.focus(),
    find: () => find?.focus(),
    toPlay: () => {
      const { activeElement } = document;
      const row = activeElement?.closest('tr') ?? list?.querySelector('tr:has([data-row])');
      row?.querySelector<HTMLAnchorElement>('[data-play]')?.click();
    },
  };
  let find = $state<HTMLInputElement>();

  async function remove(chart: ChartSummary) {
    if (!(await attempt(deleteChart(chart.id)))) return;
    message(`“${chart.title}” is deleted.`, {
      duration: 10_000,
      action: { label: 'Undo', onClick: () => void attempt(restoreChart(chart.id)) },
    });
  }
</script>

<Keys {actions} {settings} />

<main class="mx-auto flex max-w-5xl flex-col gap-3 p-4 sm:px-8 sm:py-5">
  <div class="flex flex-wrap items-end gap-3">
    <h1 class="heading mr-auto text-3xl">Book</h1>
    <label class="relative">
      <span class="sr-only">Search charts</span>
      <Search
        size={16}
        class="pointer-events-none absolute top-1/2 left-2.5 -translate-y-1/2 text-ink-soft"
        aria-hidden="true"
      />
      <input
        type="search"
        class="field w-56 max-w-full pl-8"
        placeholder="Title or key"
        bind:this={find}
        bind:value={sought}
        onkeydown={(event) => {
          if (event.key === 'ArrowDown') {
            event.preventDefault();
            void walk(1);
          }
        }}
      />
    </label>
    <button class="button" onclick={() => (importing = true)}>
      <FileInput size={16} aria-hidden="true" />Import
    </button>
    <button class="button" onclick={() => (choosing = true)}>
      <LayoutTemplate size={16} aria-hidden="true" />Start from a template
    </button>
    <button class="button-strong" onclick={newChart}>
      <Plus size={16} aria-hidden="true" />New chart
    </button>
  </div>
  {#if next}
    <!-- As high before the line comes as after: what stands below is pressed meanwhile. -->
    <p class="text-sm max-sm:min-h-10" data-next-line>
      <a class="underline" href="/log">Next in your practice</a>{#await next then line}
        {#if line}: {line}.{/if}
      {/await}
    </p>
  {/if}

  <TypedChart bind:this={line} titles={charts.map(({ title }) => title)} onchart={open} />

  {#if charts.length === 0}
    <section class="flex flex-col items-start gap-4 border-t border-line py-10">
      <h2 class="heading text-xl">No charts yet</h2>
      {#if page.url.searchParams.get('from') === 'plan'}
        <p class="max-w-prose" role="status">Plan needs a chart: create one here first.</p>
      {/if}
      <p class="max-w-prose">
        A chart is a chord progression with bar lines between the bars. Type one above, start with
        this example, add six demo charts, or import your own.
      </p>
      <div class="flex flex-wrap gap-2">
        <button class="button-strong heading" onclick={() => make(EXAMPLE, null)} data-example
          >{EXAMPLE}</button
        >
        <button class="button" onclick={() => addDemo()}>Add six demo charts</button>
        <button class="button" onclick={() => (importing = true)}>Import</button>
      </div>
    </section>
  {:else if found.length === 0}
    <p role="status" class="border-t border-line py-8">
      No chart matches “{sought}”.
      <button class="underline" onclick={() => (sought = '')}>Show all</button>
    </p>
  {:else}
    <table class="w-full border-collapse" aria-rowcount={found.length + 1}>
      <thead class="text-left text-sm text-ink-soft">
        <tr class="border-b border-line-strong">
          <th scope="col" class="py-1.5 pr-3 font-normal">Title</th>
          <th scope="col" class="py-1.5 pr-3 font-normal max-md:hidden">Form</th>
          <th scope="col" class="py-1.5 pr-3 font-normal">Key</th>
          <th scope="col" class="py-1.5 pr-3 text-right font-normal max-sm:hidden">Tempo</th>
          <th scope="col" class="py-1.5 pr-3 text-right font-normal max-[24rem]:hidden">Bars</th>
          <th scope="col" class="py-1.5 pr-3 text-right font-normal whitespace-nowrap max-sm:hidden"
            >Last opened</th
          >
          <th scope="col"><span class="sr-only">Actions</span></th>
        </tr>
      </thead>
      <tbody bind:this={list}>
        {#if rows.before > 0}<tr aria-hidden="true" style:height="{rows.before}px"></tr>{/if}
        {#each shown as chart, index (chart.id)}
          <ChartRow
            {chart}
            at={rows.from + index}
            measure={rows.row}
            sketch={forms.of(chart.id)}
            onrename={(title) => attempt(renameChart(chart.id, title))}
            onduplicate={() => duplicate(chart.id)}
            ondelete={() => remove(chart)}
          />
        {/each}
        {#if rows.after > 0}<tr aria-hidden="true" style:height="{rows.after}px"></tr>{/if}
      </tbody>
    </table>
  {/if}
</main>

<ImportDialog bind:open={importing} onchart={open} />
<FormDialog bind:open={choosing} onchart={(text) => make(text, 'bars')} />
