<!-- The commands of the bench as buttons, with the keys that do the same. -->
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
  import { CHART_LIMITS } from '$core/chart/syntax';
  import { message, warn } from '$lib/ui/messages.svelte';
  import type { Workbench } from './workbench.svelte';

  interface Props {
    readonly workbench: Workbench;
    /** Called after a command, to hand the focus back. */
    readonly onrun: () => void;
    readonly onclose: () => void;
  }

  let { workbench, onrun, onclose }: Props = $props();

  async function copy() {
    try {
      await navigator.clipboard.writeText(workbench.copied());
      message('The bars are copied as text.');
    } catch {
      warn('The browser did not let Corvel copy. Ctrl C does it too.');
    }
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
  const ENDINGS = [1, 2, 3] as const;

  const closes = $derived(workbench.bars[workbench.selection.to]?.closesRepeat ?? null);

  function run(command: () => unknown) {
    command();
    onrun();
  }
</script>

<div role="toolbar" aria-label="Edit the bars" class="flex flex-wrap items-center gap-x-0.5">
  {#each TOOLS as { name, keys, icon: Icon, run: command } (name)}
    <button class="button-quiet text-sm" title="{name} ({keys})" onclick={() => run(command)}>
      <Icon size={15} aria-hidden="true" />{name}
    </button>
  {/each}
  <span class="flex items-center gap-1 px-1 text-sm text-ink-soft">
    Ending
    {#each ENDINGS as pass (pass)}
      <button
        class="button-quiet"
        title="Key {pass}"
        aria-label="Ending {pass}"
        onclick={() => run(() => workbench.toggleEnding(pass))}>{pass}.</button
      >
    {/each}
  </span>
  {#if closes !== null}
    <label class="text-sm text-ink-soft">
      repeat played
      <input
        type="number"
        min="1"
        max={CHART_LIMITS.repeats}
        class="field w-16"
        value={closes}
        onchange={(event) => {
          const times = Math.round(event.currentTarget.valueAsNumber || 2);
          workbench.setTimes(
            workbench.selection.to,
            Math.max(1, Math.min(CHART_LIMITS.repeats, times)),
          );
        }}
      />
      times
    </label>
  {/if}
  <button class="button ml-auto" onclick={onclose} title="Done (Escape)">Done</button>
</div>
