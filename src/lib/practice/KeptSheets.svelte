<!-- The sheets kept with the chart, and keeping the one shown. -->
<script lang="ts">
  import { message, warn } from '$lib/ui/messages.svelte';
  import { dropSheet, keepSheet } from '$lib/study/edits';
  import { getStudy } from '$lib/study/study.svelte';
  import type { PracticeSheet } from '$lib/study/plan';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const study = getStudy();
  let name = $state('');

  function drop(sheet: PracticeSheet) {
    study.edit(dropSheet(sheet.id));
    message(`“${sheet.name}” is dropped.`, {
      duration: 10_000,
      action: { label: 'Take it back', onClick: () => study.edit(keepSheet(sheet)) },
    });
  }

  function keep(event: SubmitEvent) {
    event.preventDefault();
    const refusal = practice.keep(name);
    if (refusal !== null) warn(refusal);
    else name = '';
  }
</script>

<div
  class="flex flex-wrap items-center gap-2 text-sm print:hidden"
  role="group"
  aria-label="Kept sheets"
>
  {#each study.plan.sheets as sheet (sheet.id)}
    <span
      class="flex items-center rounded border {sheet.id === practice.kept
        ? 'border-ink'
        : 'border-line'}"
    >
      <button class="px-2 py-1" data-sheet={sheet.name} onclick={() => practice.take(sheet)}
        >{sheet.name}</button
      >
      <button
        class="min-w-7 px-1.5 py-1 text-ink-soft hover:text-ink"
        aria-label="Delete {sheet.name}"
        onclick={() => drop(sheet)}>×</button
      >
    </span>
  {/each}
  <form class="flex gap-1" onsubmit={keep}>
    <label>
      <span class="sr-only">Name of the sheet</span>
      <input
        class="field w-44"
        name="sheet"
        placeholder="Keep it as…"
        maxlength="80"
        bind:value={name}
      />
    </label>
    <button class="button">Keep</button>
  </form>
</div>
