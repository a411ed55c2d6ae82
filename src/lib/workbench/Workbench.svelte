<!--
  The chart as it is written, edited bar by bar: with the keys alone, or by pointing and dragging.
  What is typed here is the chart's text; the text and this are one document.
-->
<script lang="ts">
  import { onMount, tick, untrack } from 'svelte';
  import {
    type DndEvent,
    dndzone,
    SHADOW_ITEM_MARKER_PROPERTY_NAME,
    TRIGGERS,
  } from 'svelte-dnd-action';
  import { isLayerOpen, openPart } from '$lib/ui/opened';
  import { range } from '$core/lists';
  import BenchTools from './BenchTools.svelte';
  import { dropOf, nearestAcross } from './bars';
  import ChordField from './ChordField.svelte';
  import { commandOf } from './keys';
  import SectionHeading from './SectionHeading.svelte';
  import { createWorkbench } from './workbench.svelte';
  import type { ChartEditing } from '$lib/study/document.svelte';
  import WrittenBar from './WrittenBar.svelte';

  interface Props {
    readonly document: ChartEditing;
    /** The bar the cursor begins at, and the place in it; null for the first. */
    readonly begin: { readonly bar: number; readonly slot: number } | null;
    readonly onclose: () => void;
  }

  let { document: chart, begin, onclose }: Props = $props();

  const workbench = untrack(() => createWorkbench(chart));
  untrack(() => begin && workbench.go(begin.bar, begin.slot));

  onMount(() => {
    const close = openPart(onclose);
    focusCursor();
    return close;
  });

  interface Item {
    readonly id: string;
    readonly bar: number;
  }

  let host = $state<HTMLDivElement>();
  let frame = $state<HTMLDivElement>();
  /** Bars by section while one is being dragged; null at rest. */
  let dragged = $state.raw<ReadonlyMap<number, readonly Item[]> | null>(null);
  let copying = false;
  let place = $state.raw({ left: 0, top: 0 });

  const itemsOf = (from: number, to: number): Item[] =>
    range(from, to + 1).map((bar) => ({ id: `bar-${bar}`, bar }));
  const shown = (index: number, from: number, to: number): readonly Item[] =>
    dragged?.get(index) ?? itemsOf(from, to);

  function focusCursor() {
    const { bar, slot } = workbench.cursor;
    const cell = host?.querySelector<HTMLElement>(`[data-slot="${bar}-${slot}"]`);
    cell?.focus({ preventScroll: true });
    cell?.scrollIntoView({ block: 'nearest' });
  }

  const afterwards = async () => {
    await tick();
    if (!workbench.typing) focusCursor();
  };

  // The field stands over the slot being typed, or behind the one before it.
  $effect(() => {
    const { typing } = workbench;
    if (!typing || !host || !frame) return;
    const over = typing.puts === 'over';
    const bar = typing.puts === 'bar' ? typing.bar - 1 : typing.bar;
    const slot = over ? typing.slot : Math.max(0, typing.slot - 1);
    const cell =
      host.querySelector<HTMLElement>(`[data-slot="${bar}-${slot}"]`) ??
      host.querySelector<HTMLElement>(`[data-slot^="${bar}-"]`);
    if (!cell) return;
    cell.scrollIntoView({ block: 'nearest' });
    const box = cell.getBoundingClientRect();
    const around = frame.getBoundingClientRect();
    const left = (over ? box.left : box.right) - around.left;
    place = { left: Math.max(0, Math.min(left, around.width - 170)), top: box.top - around.top };
  });

  /** The bar drawn nearest above or below the cursor's. */
  function verticalNeighbour(down: boolean): number {
    const boxes = [...(host?.querySelectorAll<HTMLElement>('[data-bar]') ?? [])].map((cell) => {
      const { left, top } = cell.getBoundingClientRect();
      return { bar: Number(cell.dataset['bar']), left, top };
    });
    return nearestAcross(boxes, workbench.cursor.bar, down);
  }

  function onkeydown(event: KeyboardEvent) {
    const at = event.target as Element;
    if (at.closest('input')) return;
    // A button of the toolbar is pressed with the keys that press buttons.
    if (event.key === 'Enter' && at.closest('[role="toolbar"]')) return;
    const command = commandOf(workbench, event, verticalNeighbour);
    if (!command) return;
    event.preventDefault();
    event.stopPropagation();
    command();
    void afterwards();
  }

  function oncopy(event: ClipboardEvent) {
    if ((event.target as Element).closest('input')) return;
    event.clipboardData?.setData('text/plain', workbench.copied());
    event.preventDefault();
    if (event.type === 'cut') {
      workbench.remove();
      void afterwards();
    }
  }

  function onpaste(event: ClipboardEvent) {
    if ((event.target as Element).closest('input')) return;
    event.preventDefault();
    workbench.paste(event.clipboardData?.getData('text/plain') ?? '');
    void afterwards();
  }

  function consider(section: number, { items }: DndEvent<Item>) {
    const now = dragged ?? new Map<number, readonly Item[]>();
    dragged = new Map([...now, [section, items]]);
  }

  function finalize(section: number, { items, info }: DndEvent<Item>) {
    consider(section, { items, info });
    if (info.trigger === TRIGGERS.DROPPED_INTO_ANOTHER) return;
    const span = workbench.spans[section];
    // A shadow stands where a bar was dragged over another section.
    const standing = items.filter(
      (item) => item.id === info.id || !(SHADOW_ITEM_MARKER_PROPERTY_NAME in item),
    );
    const drop = span && dropOf(standing, info.id, span.from, workbench.selection);
    dragged = null;
    if (!drop) return;
    workbench.carry(drop.picked, drop.spot, copying);
    void afterwards();
  }
</script>

<svelte:window
  onmouseupcapture={(event) => (copying = event.altKey || event.ctrlKey)}
  onkeydown={(event) => {
    // Typed with the focus nowhere: it is still the bars that are edited.
    if (event.target === document.body && !isLayerOpen()) onkeydown(event);
  }}
/>

<!-- Keys act here on the bar under the cursor, whichever part of the bench has the focus. -->
<!-- Before the bars hear of a key: what moves them by dragging takes Enter for itself. -->
<div
  class="flex min-w-0 flex-col gap-2"
  onkeydowncapture={onkeydown}
  {oncopy}
  oncut={oncopy}
  {onpaste}
>
  <BenchTools {workbench} onrun={() => void afterwards()} {onclose} />
  <div class="relative" bind:this={frame}>
    <div
      bind:this={host}
      class="@container max-h-52 overflow-x-hidden overflow-y-auto [scrollbar-width:thin]"
      data-workbench
    >
      {#each workbench.spans as span, section (section)}
        <SectionHeading {span} {workbench} />
        <ul
          aria-label="Bars of {span.section?.name ?? 'the chart'}"
          class="grid grid-cols-2 gap-y-1 @lg:grid-cols-4 @4xl:grid-cols-8"
          use:dndzone={{
            items: [...shown(section, span.from, span.to)],
            type: 'bar',
            flipDurationMs: 0,
            morphDisabled: true,
            dropTargetStyle: {},
            autoAriaDisabled: true,
            zoneTabIndex: -1,
            zoneItemTabIndex: -1,
            dragDisabled: workbench.typing !== null,
          }}
          onconsider={(event: CustomEvent<DndEvent<Item>>) => consider(section, event.detail)}
          onfinalize={(event: CustomEvent<DndEvent<Item>>) => finalize(section, event.detail)}
        >
          {#each shown(section, span.from, span.to) as item (item.id)}
            {@const bar = workbench.bars[item.bar]}
            {@const selected =
              workbench.selection.from <= item.bar && item.bar <= workbench.selection.to}
            <li
              data-bar={item.bar}
              class="relative flex min-w-0 border-l border-line-strong pt-4 {selected
                ? 'bg-line/60'
                : ''}"
            >
              {#if bar}
                <WrittenBar
                  {bar}
                  index={item.bar}
                  {selected}
                  slot={workbench.cursor.bar === item.bar ? workbench.cursor.slot : null}
                  onpick={(slot, extend) => {
                    if (!extend && selected && workbench.selection.from !== workbench.selection.to)
                      return;
                    workbench.go(item.bar, slot, extend);
                    void afterwards();
                  }}
                  ontype={(slot) => {
                    workbench.go(item.bar, slot);
                    workbench.startTyping();
                  }}
                />
              {/if}
            </li>
          {/each}
        </ul>
      {/each}
    </div>
    {#if workbench.typing}
      {@const { bar, slot, puts, text, begun } = workbench.typing}
      {#key `${bar} ${slot} ${puts}`}
        <ChordField {workbench} {place} initial={text} {begun} onend={() => void afterwards()} />
      {/key}
    {/if}
  </div>
  <p id="workbench-refusal" role="status" class="text-sm text-now-text empty:hidden">
    {workbench.refusal}
  </p>
  {#if workbench.refusal === ''}
    <p class="text-sm text-ink-soft">
      Type a chord over the cursor; Space goes on in the bar, | in the next. Arrow keys move the
      cursor, Shift selects, Alt moves the bars. Drag to move, with Ctrl or Alt held to copy.
    </p>
  {/if}
</div>
