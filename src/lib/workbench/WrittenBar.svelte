<!-- A bar as it is written: its repeat signs, its ending, its chords. -->
<script lang="ts">
  import type { SheetBar } from '$core/chart/leadSheet';
  import RepeatSign from './RepeatSign.svelte';
  import { showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly bar: SheetBar;
    readonly index: number;
    readonly selected: boolean;
    /** The slot under the cursor; null when the cursor is elsewhere. */
    readonly slot: number | null;
    readonly onpick: (slot: number, extend: boolean) => void;
    readonly ontype: (slot: number) => void;
  }

  let { bar, index, selected, slot, onpick, ontype }: Props = $props();

  const slots = $derived(bar.same > 0 ? [{ text: '%'.repeat(bar.same), shares: 1 }] : bar.slots);
</script>

<span class="pointer-events-none absolute top-0 left-1.5 text-xs leading-4 text-ink-soft">
  {index + 1}
</span>
{#if bar.endings.length > 0}
  <span
    class="pointer-events-none absolute top-0 right-0 left-6 border-t border-l border-ink pl-1 text-xs leading-4 font-semibold"
  >
    {bar.endings.join(', ')}.
  </span>
{/if}
{#if bar.opensRepeat}
  <RepeatSign side="start" />
{/if}
{#each slots as { text, shares }, position (position)}
  <span
    role="button"
    aria-pressed={selected}
    data-slot="{index}-{position}"
    tabindex={slot === position ? 0 : -1}
    class="flex min-w-0 cursor-pointer items-center rounded-sm border-2 px-1.5 py-1 outline-none {slot ===
    position
      ? 'border-ink'
      : 'border-transparent hover:border-line'}"
    style:flex="{shares} 1 auto"
    onpointerdown={(event) => onpick(position, event.shiftKey)}
    ondblclick={() => ontype(position)}
  >
    <span class="sr-only">
      Bar {index + 1}{slots.length > 1 ? `, chord ${position + 1}` : ''}:
    </span>
    <span class="heading text-lg/[1.4rem] whitespace-nowrap">{showSymbol(text)}</span>
  </span>
{/each}
{#if bar.closesRepeat !== null}
  <RepeatSign side="end" />
  {#if bar.closesRepeat !== 2}
    <span class="self-center pr-1 text-xs">×{bar.closesRepeat}</span>
  {/if}
{/if}
