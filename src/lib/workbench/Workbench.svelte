<!--
  The chart as it is written, edited bar by bar: with the keys alone, or by pointing and dragging.
  What is typed here is the chart's text; the text and this are one document.
-->
<script lang="ts">
  import ClipboardCopy from '@lucide/svelte/icons/clipboard-copy';
  import CopyPlus from '@lucide/svelte/icons/copy-plus';
  import Heading from '@lucide/svelte/icons/heading';
  import Minus from '@lucide/svelte/icons/minus';
  import Plus from '@lucide/svelte/icons/plus';
  import Repeat from '@lucide/svelte/icons/repeat';
  import SquareSplitHorizontal from '@lucide/svelte/icons/square-split-horizontal';
  import StretchHorizontal from '@lucide/svelte/icons/stretch-horizontal';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { onMount, tick, untrack } from 'svelte';
  import {
    type DndEvent,
    dndzone,
    SHADOW_ITEM_MARKER_PROPERTY_NAME,
    TRIGGERS,
  } from 'svelte-dnd-action';
  import { message, warn } from '$lib/ui/messages.svelte';
  import { isLayerOpen, openPart } from '$lib/ui/opened';
  import { range } from '$core/lists';
  import ChordField from './ChordField.svelte';
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

  type Command = () => unknown;
  const COMMANDS: Readonly<Record<string, Command>> = {
    Enter: () => workbench.startTyping(),
    F2: () => workbench.startTyping(),
    Insert: () => workbench.addBar(),
    '+': () => workbench.addBar(),
    Delete: () => workbench.remove(),
    Backspace: () => workbench.remove(),
    s: () => workbench.split(),
    '>': () => workbench.stretch(1),
    '<': () => workbench.stretch(-1),
    r: () => workbench.toggleRepeat(),
    '1': () => workbench.toggleEnding(1),
    '2': () => workbench.toggleEnding(2),
    '3': () => workbench.toggleEnding(3),
    m: () => workbench.toggleSection(),
    Home: () => workbench.go(0),
    End: () => workbench.go(workbench.bars.length - 1),
  };

  /** The bar drawn nearest above or below the cursor's. */
  function verticalNeighbour(down: boolean): number {
    const { bar } = workbench.cursor;
    const boxes = [...(host?.querySelectorAll<HTMLElement>('[data-bar]') ?? [])].map((cell) => ({
      bar: Number(cell.dataset['bar']),
      box: cell.getBoundingClientRect(),
    }));
    const here = boxes.find((one) => one.bar === bar)?.box;
    if (!here) return bar;
    const beyond = boxes.filter(({ box }) =>
      down ? box.top > here.top + 4 : box.top < here.top - 4,
    );
    const distance = ({ box }: (typeof boxes)[number]) =>
      Math.abs(box.top - here.top) * 10 + Math.abs(box.left - here.left);
    return beyond.sort((one, other) => distance(one) - distance(other))[0]?.bar ?? bar;
  }

  function withControl(event: KeyboardEvent): Command | null {
    const key = event.key.toLowerCase();
    if (key === 'a') return workbench.selectAll;
    if (key === 'd') return workbench.duplicate;
    return null;
  }

  function commandOf(event: KeyboardEvent): Command | null {
    const { key, shiftKey } = event;
    if (event.ctrlKey || event.metaKey) return withControl(event);
    if (event.altKey) {
      if (key === 'ArrowRight') return () => workbench.nudge(1);
      if (key === 'ArrowLeft') return () => workbench.nudge(-1);
      return null;
    }
    if (key === 'ArrowRight') return () => workbench.step(1, shiftKey);
    if (key === 'ArrowLeft') return () => workbench.step(-1, shiftKey);
    if (key === 'ArrowDown' || key === 'ArrowUp') {
      return () => workbench.go(verticalNeighbour(key === 'ArrowDown'), 0, shiftKey);
    }
    // The first letter of a chord, a numeral, N.C. or % begins to type over the slot.
    if (/^[A-HNIV%]$/iu.test(key)) return () => workbench.startTyping(key);
    return COMMANDS[key] ?? null;
  }

  function onkeydown(event: KeyboardEvent) {
    const at = event.target as Element;
    if (at.closest('input')) return;
    // A button of the toolbar is pressed with the keys that press buttons.
    if (event.key === 'Enter' && at.closest('[role="toolbar"]')) return;
    const command = commandOf(event);
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

  async function copy() {
    try {
      await navigator.clipboard.writeText(workbench.copied());
      message('The bars are copied as text.');
    } catch {
      warn('The browser did not let Corvel copy. Ctrl C does it too.');
    }
  }

  const withoutShadows = (items: readonly Item[]) =>
    items.filter((item) => !(SHADOW_ITEM_MARKER_PROPERTY_NAME in item));

  function consider(section: number, { items }: DndEvent<Item>) {
    const now = dragged ?? new Map<number, readonly Item[]>();
    dragged = new Map([...now, [section, items]]);
  }

  function finalize(section: number, { items, info }: DndEvent<Item>) {
    consider(section, { items, info });
    if (info.trigger === TRIGGERS.DROPPED_INTO_ANOTHER) return;
    const moved = items.findIndex(({ id }) => id === info.id);
    const span = workbench.spans[section];
    const bar = items[moved]?.bar;
    dragged = null;
    if (bar === undefined || !span) return;
    const { from, to } = workbench.selection;
    const picked = from <= bar && bar <= to ? { from, to } : { from: bar, to: bar };
    const before = withoutShadows(items)
      .slice(0, moved)
      .findLast((item) => item.bar < picked.from || item.bar > picked.to);
    workbench.carry(picked, before ? { after: before.bar } : { before: span.from }, copying);
    void afterwards();
  }

  const TOOLS = [
    { name: 'Add a bar', keys: '+', icon: Plus, run: () => workbench.addBar() },
    { name: 'Delete', keys: 'Delete', icon: Trash, run: () => workbench.remove() },
    { name: 'Split', keys: 'S', icon: SquareSplitHorizontal, run: () => workbench.split() },
    { name: 'Longer', keys: '>', icon: StretchHorizontal, run: () => workbench.stretch(1) },
    { name: 'Shorter', keys: '<', icon: Minus, run: () => workbench.stretch(-1) },
    { name: 'Repeat', keys: 'R', icon: Repeat, run: () => workbench.toggleRepeat() },
    { name: 'Section', keys: 'M', icon: Heading, run: () => workbench.toggleSection() },
    { name: 'Duplicate', keys: 'Ctrl D', icon: CopyPlus, run: () => workbench.duplicate() },
    { name: 'Copy', keys: 'Ctrl C', icon: ClipboardCopy, run: () => void copy() },
  ] as const;

  const closes = $derived(workbench.bars[workbench.selection.to]?.closesRepeat ?? null);
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
  <div role="toolbar" aria-label="Edit the bars" class="flex flex-wrap items-center gap-x-0.5">
    {#each TOOLS as { name, keys, icon: Icon, run } (name)}
      <button
        class="button-quiet text-sm"
        title="{name} ({keys})"
        onclick={() => {
          run();
          void afterwards();
        }}
      >
        <Icon size={15} aria-hidden="true" />{name}
      </button>
    {/each}
    <span class="flex items-center gap-1 px-1 text-sm text-ink-soft">
      Ending
      {#each [1, 2, 3] as pass (pass)}
        <button
          class="button-quiet"
          title="Key {pass}"
          aria-label="Ending {pass}"
          onclick={() => {
            workbench.toggleEnding(pass);
            void afterwards();
          }}>{pass}.</button
        >
      {/each}
    </span>
    {#if closes !== null}
      <label class="text-sm text-ink-soft">
        repeat played
        <input
          type="number"
          min="1"
          max="64"
          class="field w-16"
          value={closes}
          onchange={(event) => {
            const times = Math.round(event.currentTarget.valueAsNumber || 2);
            workbench.setTimes(workbench.selection.to, Math.max(1, Math.min(64, times)));
          }}
        />
        times
      </label>
    {/if}
    <button class="button ml-auto" onclick={onclose} title="Done (Escape)">Done</button>
  </div>
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
