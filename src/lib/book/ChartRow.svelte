<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import { DropdownMenu } from 'bits-ui';
  import { formatDistanceToNowStrict } from 'date-fns/formatDistanceToNowStrict';
  import { tick } from 'svelte';
  import type { ChartSummary } from '$lib/study/messages';
  import type { FormSketch } from '$core/harmony/sketch';
  import FormShape from './FormShape.svelte';
  import { showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly chart: ChartSummary;
    /** Its place in the list, and what wants to know how high it is. */
    readonly at: number;
    readonly measure: (row: HTMLElement) => void;
    /** Its form, once it is known. */
    readonly sketch: FormSketch | null;
    readonly onrename: (title: string) => Promise<boolean>;
    readonly onduplicate: () => void;
    readonly ondelete: () => void;
  }

  let { chart, at, measure, sketch, onrename, onduplicate, ondelete }: Props = $props();

  let renaming = $state(false);
  let field = $state<HTMLInputElement>();

  async function startRenaming() {
    renaming = true;
    await tick();
    field?.select();
  }

  async function finishRenaming() {
    const title = field?.value.trim() ?? '';
    if (renaming && title !== '' && title !== chart.title && !(await onrename(title))) return;
    renaming = false;
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'Enter') void finishRenaming();
    if (event.key === 'Escape') renaming = false;
  }

  const ITEM =
    'flex h-9 cursor-pointer items-center rounded px-3 outline-none data-highlighted:bg-line';
</script>

<tr
  class="group border-b border-line hover:bg-sheet"
  data-at={at}
  aria-rowindex={at + 2}
  {@attach measure}
>
  <td class="h-16 w-1/3 max-w-0 sm:min-w-40 py-1.5 pr-3 max-md:w-full">
    {#if renaming}
      <input
        bind:this={field}
        class="field w-full"
        aria-label="New title"
        value={chart.title}
        maxlength="200"
        {onkeydown}
        onblur={finishRenaming}
      />
    {:else}
      <a
        href="/plan/{chart.id}"
        class="heading block text-lg/6 hover:underline md:truncate"
        data-row>{chart.title}</a
      >
      <p class="truncate text-sm text-ink-soft" data-first>
        {sketch?.first.map(showSymbol).join('  ') ?? '\u00a0'}
      </p>
      {#if sketch}<div class="md:hidden"><FormShape {sketch} /></div>{/if}
      {#if chart.damaged}
        <span class="text-sm text-now-text" data-damaged>
          damaged: what could be saved is shown, with � for what was lost
        </span>
      {/if}
    {/if}
  </td>
  <td class="w-80 py-2 pr-4 max-md:hidden">
    {#if sketch}<FormShape {sketch} />{/if}
  </td>
  <td class="py-2 pr-3 whitespace-nowrap">{chart.key ? showSymbol(chart.key) : '–'}</td>
  <td class="py-2 pr-3 text-right max-sm:hidden">{chart.tempo ?? '–'}</td>
  <td class="py-2 pr-3 text-right max-[24rem]:hidden">{chart.bars ?? '–'}</td>
  <td class="py-2 pr-3 text-right whitespace-nowrap text-ink-soft max-sm:hidden">
    {chart.openedAt ? `${formatDistanceToNowStrict(new Date(chart.openedAt))} ago` : 'not yet'}
  </td>
  <td class="py-2 text-right whitespace-nowrap">
    <a
      class="button-quiet inline-flex"
      href="/plan/{chart.id}/play"
      data-play
      aria-label="Play {chart.title}"
      title="Play it with the band (Shift P)"><Play size={16} aria-hidden="true" /></a
    >
    <DropdownMenu.Root>
      <DropdownMenu.Trigger class="button-quiet" aria-label="Actions for {chart.title}">
        <Ellipsis size={16} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          class="z-40 min-w-40 rounded border border-line bg-sheet p-1 shadow-sheet"
        >
          <DropdownMenu.Item class={ITEM} onSelect={startRenaming}>Rename</DropdownMenu.Item>
          <DropdownMenu.Item class={ITEM} onSelect={onduplicate}>Duplicate</DropdownMenu.Item>
          <DropdownMenu.Item class={ITEM} onSelect={ondelete}>Delete</DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  </td>
</tr>
