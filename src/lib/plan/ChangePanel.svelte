<!-- The change from now to next as a ladder, and what is notable about it. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import ChordHead from './ChordHead.svelte';
  import { showMaterial } from '$lib/frame/material';
  import Ladder from './Ladder.svelte';

  const study = getStudy();
  const model = getPlanModel();

  const next = $derived(model.next);
  const naming = $derived(study.settings.current.modeNames);
</script>

{#if model.now && next && model.crossing}
  <div class="flex flex-wrap items-center gap-x-3">
    <ChordHead time="next" planned={next} reading={study.reading?.chords[next.index]} {naming} />
    <div class="ml-auto">
      <Choice
        label="The ladder crosses"
        bare
        value={study.view.crossing}
        options={[
          ['choices', 'Choices'],
          ['chords', 'Chords'],
        ]}
        onchange={() =>
          study.look({ crossing: study.view.crossing === 'chords' ? 'choices' : 'chords' })}
      />
    </div>
  </div>
  <Ladder crossing={model.crossing} now={model.now.chord} next={next.chord} />
  {#if study.view.crossing === 'choices' || model.preview}
    <p class="flex max-w-md justify-between gap-2 text-xs text-ink-soft max-xl:hidden">
      <span class="truncate"
        >{showMaterial(model.preview?.material ?? model.now.material, naming)}</span
      >
      <span class="truncate">{showMaterial(next.material, naming)}</span>
    </p>
  {/if}
{:else}
  <p class="text-sm text-ink-soft">Nothing changes: the chart holds one chord.</p>
{/if}
