<!-- The text editor with its verdict below: what cannot be read, where, and what is shown instead. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { onMount } from 'svelte';
  import { openPart } from '$lib/ui/opened';
  import type { Study } from '$lib/study/study.svelte';
  import type { Problem } from '$core/chart/syntax';

  interface Props {
    readonly text: string;
    readonly problems: readonly Problem[];
    /** What is shown in place of a text that cannot be read. */
    readonly shown: Study['shownInstead'];
    readonly onedit: (text: string) => void;
    readonly onundo: () => void;
    readonly onredo: () => void;
    readonly onclose: () => void;
  }

  let { text, problems, shown, onedit, onundo, onredo, onclose }: Props = $props();

  const MEANWHILE = {
    'last readable': 'The last readable version stays on the neck.',
    'in part': 'What can be read is shown.',
    nothing: 'Nothing of it can be shown yet.',
  } as const;

  onMount(() => openPart(onclose));
</script>

<section aria-label="Chart text" class="flex h-64 flex-col gap-1.5">
  <div class="flex items-center">
    <h2 class="mr-auto text-sm font-semibold">Chart text</h2>
    <button
      class="button-quiet"
      onclick={onclose}
      aria-label="Close the text"
      title="Close (Escape)"
    >
      <X size={16} aria-hidden="true" />
    </button>
  </div>
  <!-- The editor is large and not needed to read a chart: it comes when it is opened. -->
  {#await import('./TextEditor.svelte')}
    <p class="flex-1 text-ink-soft">Opening the editor…</p>
  {:then { default: TextEditor }}
    <TextEditor {text} {problems} {onedit} {onundo} {onredo} />
  {:catch}
    <textarea
      class="field flex-1 py-1.5"
      aria-label="Chart text"
      value={text}
      oninput={(event) => onedit(event.currentTarget.value)}></textarea>
  {/await}
  <div id="chart-problems" aria-live="polite" class="min-h-10 text-sm">
    {#if problems[0]}
      <p class="text-now-text" data-problem>
        Line {problems[0].line}, column {problems[0].column}: {problems[0].message}
      </p>
      <p class="text-ink-soft">
        {problems.length > 1 ? `${problems.length} places cannot be read. ` : ''}{MEANWHILE[
          shown ?? 'nothing'
        ]}
      </p>
    {:else}
      <p class="text-ink-soft">All of it can be read.</p>
    {/if}
  </div>
</section>
