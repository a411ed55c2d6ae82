<!-- Two versions of one chart: the player chooses, and nothing is thrown away. -->
<script lang="ts">
  import { message, warn } from '$lib/ui/messages.svelte';
  import { once } from '$lib/ui/once';
  import type { ChartEditing } from '$lib/study/document.svelte';
  import { planDifferences } from '$lib/study/differences';
  import { showSymbol } from '$lib/ui/glyphs';
  import Dialog from '$lib/ui/Dialog.svelte';

  interface Props {
    readonly document: ChartEditing;
  }

  let { document }: Props = $props();

  const sameText = $derived(document.theirs?.text === document.text);
  const differences = $derived(
    document.theirs ? planDifferences(document.plan, document.theirs.plan) : [],
  );

  const keepBoth = once(async () => {
    const id = await document.keepBoth();
    if (id === null) warn('The server does not answer. Both versions are still here.');
    else message('Your version is now a chart of its own in the Book.');
  });
</script>

<Dialog open={document.theirs !== null} title="Changed in two places" dismissible={false}>
  <p class="mb-3">
    This chart was saved elsewhere, in another tab or on another device, since you began editing
    here. Which version should it hold?
  </p>
  {#if differences.length > 0}
    <h3 class="font-semibold">What differs in the plan, yours and the other</h3>
    <ul class="mb-3 max-h-40 list-disc overflow-auto pl-5 text-sm" data-differences>
      {#each differences as difference, index (index)}<li>{showSymbol(difference)}</li>{/each}
    </ul>
  {/if}
  {#if document.theirs && !sameText}
    <div class="mb-4 grid gap-3 text-sm sm:grid-cols-2">
      {#each [['Yours', document.text], ['The other', document.theirs.text]] as const as [name, text] (name)}
        <div>
          <h3 class="font-semibold">{name}</h3>
          <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
          <pre
            tabindex="0"
            role="region"
            aria-label="{name} version"
            class="max-h-48 overflow-auto rounded-sm border border-line p-2 font-sans whitespace-pre-wrap">{text}</pre>
        </div>
      {/each}
    </div>
  {/if}
  <div class="flex flex-wrap gap-2">
    <button class="button-strong" onclick={keepBoth}>Keep both as two charts</button>
    <button class="button" onclick={() => document.keepMine()}>Keep yours</button>
    <button class="button" onclick={() => document.takeTheirs()}>Take the other</button>
  </div>
</Dialog>
