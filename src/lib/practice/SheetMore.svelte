<!-- What is seldom changed about the sheet: kept ones, the idea of a line, a pattern of it, degrees. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { warn } from '$lib/ui/messages.svelte';
  import KeptSheets from './KeptSheets.svelte';
  import LineIdea from './LineIdea.svelte';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
    /** The chord that a pattern is made over, by its number in the chart. */
    readonly chord: number;
    /** Whether what the exercise is made of stands in sight on a phone. */
    readonly setting: boolean;
  }

  let { practice, chord, setting }: Props = $props();

  const study = getStudy();

  function turn() {
    const refusal = practice.turnIntoPattern(chord);
    if (refusal !== null) warn(refusal);
  }
</script>

<div id="sheet-more" class="grid shrink-0 gap-1 pb-1 print:hidden {setting ? '' : 'max-sm:hidden'}">
  <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
    <KeptSheets {practice} />
    <LineIdea {practice} />
    {#if practice.settings.kind !== 'own' && !practice.opened}
      <button class="button-quiet text-sm" data-as-pattern onclick={turn}>
        Turn into a pattern
      </button>
    {/if}
    <label class="flex min-h-8 items-center gap-1.5 text-sm">
      <input
        type="checkbox"
        name="degrees"
        checked={study.view.degrees}
        onchange={(event) => study.look({ degrees: event.currentTarget.checked })}
      />
      Degrees under the notes
    </label>
  </div>
</div>
