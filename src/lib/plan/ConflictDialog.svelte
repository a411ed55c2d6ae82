<!-- Two versions of one chart: the player chooses, and nothing is thrown away. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { ChartEditing } from '$lib/charts/document.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';

  interface Props {
    readonly document: ChartEditing;
  }

  let { document }: Props = $props();

  async function keepBoth() {
    const id = await document.keepBoth();
    if (id === null) toast.error('The server does not answer. Both versions are still here.');
    else toast('Your version is now a chart of its own in the Book.');
  }
</script>

<Dialog open={document.theirs !== null} title="Changed in two places" dismissible={false}>
  <p class="mb-3">
    This chart was saved elsewhere, in another tab or on another device, since you began editing
    here. Which version should it hold?
  </p>
  {#if document.theirs}
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
