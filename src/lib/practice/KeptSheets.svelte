<!-- The sheets kept with the chart, and keeping the one shown. -->
<script lang="ts">
  import { warn } from '$lib/ui/messages.svelte';
  import { dropSheet } from '$lib/study/edits';
  import { getStudy } from '$lib/study/study.svelte';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const study = getStudy();
  let name = $state('');

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
        class="px-1.5 text-ink-soft hover:text-ink"
        aria-label="Drop {sheet.name}"
        onclick={() => study.edit(dropSheet(sheet.id))}>×</button
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
