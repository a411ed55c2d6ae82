<!-- The lick book: the licks at left, the one that is open beside them. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import Search from '@lucide/svelte/icons/search';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { tick, untrack } from 'svelte';
  import type { Lick } from '$core/licks/lick';
  import Keys from '$lib/frame/Keys.svelte';
  import type { Actions } from '$lib/frame/shortcuts';
  import { createBlock } from '$lib/log/block.svelte';
  import SessionBar from '$lib/log/SessionBar.svelte';
  import { listAt } from '$lib/live/lists';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { askAnew, openPage, staying } from '$lib/ui/anew';
  import { showSymbol } from '$lib/ui/glyphs';
  import { inform, message, warn } from '$lib/ui/messages.svelte';
  import { once } from '$lib/ui/once';
  import { holdsWords } from '$lib/ui/search';
  import { createWindowed } from '$lib/ui/windowed.svelte';
  import { createLick, deleteLick, restoreLick } from './api';
  import LickEditor from './LickEditor.svelte';
  import type { LickTitle, StoredLick } from './messages';
  import { barsOf } from './words';

  interface Props {
    readonly licks: readonly LickTitle[];
    /** The one that is open; null where none is. */
    readonly open: StoredLick | null;
    readonly settings: StoredSettings;
  }

  let { licks, open, settings: stored }: Props = $props();

  const settings = untrack(() => createSettings(stored));

  const AWAY = 'The server does not answer. Nothing was changed.';
  let editor = $state<LickEditor>();
  let sought = $state('');
  let tag = $state('');
  /** The open one as it is written now, before the server lists it so. */
  const listed = $derived.by(() => {
    const written = editor?.inList();
    return written ? licks.map((lick) => (lick.id === written.id ? written : lick)) : licks;
  });
  const tags = $derived([...new Set(listed.flatMap((lick) => lick.tags))].sort());
  const found = $derived(
    listed.filter(
      ({ title, tags: own, source, chart }) =>
        (tag === '' || own.includes(tag)) &&
        holdsWords(`${title} ${own.join(' ')} ${source} ${chart}`, sought),
    ),
  );

  const BLANK: Lick = {
    title: 'A new lick',
    tags: [],
    source: 'mine',
    chart: '| Dm7 | G7 | Cmaj7 | % |',
    notes: [],
  };

  const amongLicks = () => staying(() => listAt(location.pathname));

  const make = once(async (lick: Lick) => {
    const stays = amongLicks();
    const id = await createLick(lick);
    if (id === null) {
      warn(AWAY);
      return;
    }
    if (!(await stays())) {
      inform('The new lick is in Licks.');
      return;
    }
    // It is written at once.
    await openPage(`/licks/${id}`, { invalidateAll: true });
    await tick();
    toGrid();
  });

  const toGrid = () => document.querySelector<HTMLElement>('[data-grid]')?.focus();

  async function remove(lick: LickTitle) {
    const stays = amongLicks();
    if (!(await deleteLick(lick.id))) {
      warn(AWAY);
      return;
    }
    const left = !(await stays()) || lick.id !== open?.id;
    const after = found[found.findIndex(({ id }) => id === lick.id) + 1] ?? found[0];
    const next = left ? null : `/licks/${after && after.id !== lick.id ? after.id : ''}`;
    if (next) await openPage(next, { invalidateAll: true });
    else await askAnew();
    message(`“${lick.title}” is deleted.`, {
      duration: 10_000,
      action: {
        label: 'Undo',
        onClick: () => void restoreLick(lick.id).then(askAnew),
      },
    });
  }

  /** The block of a session this was opened for; its time runs while the book is open. */
  const block = createBlock(() => true);

  let find = $state<HTMLInputElement>();
  let list = $state<HTMLElement>();

  const ROW = 46;
  const rows = createWindowed({
    count: () => found.length,
    estimate: ROW,
    list: () => list,
    own: true,
  });
  const shown = $derived(found.slice(rows.from, rows.to));

  async function walk(by: 1 | -1) {
    const row = document.activeElement?.closest<HTMLElement>('[data-at]');
    const here = row ? Number(row.dataset['at']) : found.findIndex(({ id }) => id === open?.id);
    (await rows.walk(here, by))?.querySelector('a')?.focus();
  }

  const actions: Actions = {
    walkBook: (key) => void walk(key === 'ArrowDown' ? 1 : -1),
    typeChords: () => void make(BLANK),
    find: () => find?.focus(),
    play: () => editor?.toggle(),
    listen: () => editor?.listen(),
    undo: () => editor?.undo(),
    redo: () => editor?.redo(),
  };
</script>

<Keys {actions} {settings} />
{#if block}<div class="px-3 pt-2"><SessionBar place={block} keyed={false} /></div>{/if}

<main
  class="relative flex min-h-0 flex-col md:h-[calc(100dvh-2.75rem)] md:flex-row pointer-coarse:md:h-[calc(100dvh-3.25rem)]"
>
  {#if open}
    <!-- By Tab alone the tablature is not behind the whole list. -->
    <button
      class="button absolute top-2 left-2 z-30 not-focus:sr-only print:hidden"
      onclick={toGrid}>Go to the tablature</button
    >
  {/if}
  <aside
    class="flex shrink-0 flex-col gap-2 border-line p-3 max-md:border-b md:w-64 md:border-r xl:w-72 print:hidden"
    aria-label="Licks"
  >
    <div class="flex items-center gap-2">
      <h1 class="heading mr-auto text-2xl">Licks</h1>
      <button class="button-strong" onclick={() => make(BLANK)} title="A new lick (N)">
        <Plus size={16} aria-hidden="true" />New
      </button>
    </div>
    <label class="relative">
      <span class="sr-only">Search licks</span>
      <Search
        size={16}
        class="pointer-events-none absolute top-1/2 left-2.5 -translate-y-1/2 text-ink-soft"
        aria-hidden="true"
      />
      <input
        type="search"
        class="field w-full pl-8"
        placeholder="Title, tag or chord"
        bind:this={find}
        bind:value={sought}
      />
    </label>
    <label class="flex items-center gap-1.5 text-sm">
      <span class="text-ink-soft">Tag</span>
      <select class="field min-w-0 flex-1" name="tag" bind:value={tag}>
        <option value="">all</option>
        {#each tags as one (one)}<option value={one}>{one}</option>{/each}
      </select>
    </label>
    <ul
      class="min-h-0 flex-1 overflow-y-auto max-md:max-h-48 [scrollbar-width:thin]"
      bind:this={list}
    >
      {#if rows.before > 0}<li aria-hidden="true" style:height="{rows.before}px"></li>{/if}
      {#each shown as lick, index (lick.id)}
        {@const here = lick.id === open?.id}
        <li
          class="group flex items-stretch"
          data-at={rows.from + index}
          aria-setsize={found.length}
          aria-posinset={rows.from + index + 1}
          {@attach rows.row}
        >
          <a
            href="/licks/{lick.id}"
            class="min-w-0 flex-1 border-l-2 px-2 py-1 pointer-coarse:py-2 {here
              ? 'border-now bg-sheet'
              : 'border-transparent hover:bg-sheet'}"
            aria-current={here ? 'page' : undefined}
            data-lick={lick.title}
          >
            <span class="block text-sm">{lick.title || 'Untitled lick'}</span>
            <span class="block truncate text-xs text-ink-soft"
              >{showSymbol(barsOf(lick.chart))}</span
            >
          </a>
          <button
            class="px-1.5 text-ink-soft opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-ink pointer-coarse:opacity-100"
            aria-label="Delete {lick.title}"
            onclick={() => remove(lick)}><Trash size={14} aria-hidden="true" /></button
          >
        </li>
      {:else}
        <li class="py-4 text-sm" role="status">
          {licks.length === 0 ? 'No licks yet.' : 'No lick matches.'}
          {#if licks.length > 0}
            <button
              class="underline"
              onclick={() => {
                sought = '';
                tag = '';
              }}>Show all</button
            >
          {/if}
        </li>
      {/each}
      {#if rows.after > 0}<li aria-hidden="true" style:height="{rows.after}px"></li>{/if}
    </ul>
    <p class="text-xs text-ink-soft">{found.length} of {licks.length}</p>
  </aside>

  {#if open}
    {#key open.id}
      <LickEditor bind:this={editor} lick={open} {settings} onnew={(lick) => make(lick)} />
    {/key}
  {:else}
    <section class="flex flex-1 flex-col items-start gap-4 p-8">
      <h2 class="heading text-xl">No lick is open</h2>
      <p class="max-w-prose">
        Choose one on the left, or write your own: digits are frets, arrow keys move over strings
        and beats, and each note shows its degree.
      </p>
      <button class="button-strong" onclick={() => make(BLANK)}>Write a lick</button>
    </section>
  {/if}
</main>
