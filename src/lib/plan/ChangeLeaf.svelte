<!-- The change from now to next as a ladder, each step of it in words beside it. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { showMaterial } from '$lib/frame/material';
  import { changeSteps } from '$core/targets/changes';
  import { showSymbol } from '$lib/ui/glyphs';
  import Ladder from './Ladder.svelte';

  const study = getStudy();
  const model = getPlanModel();

  const next = $derived(model.next);
  const ofChords = $derived(study.view.crossing === 'chords' && model.preview === null);
  const naming = $derived(study.settings.current.modeNames);
</script>

{#if model.now && next && model.crossing}
  <div class="grid gap-x-8 gap-y-2 sm:grid-cols-[minmax(0,27rem)_minmax(0,1fr)]">
    <div>
      <Ladder crossing={model.crossing} now={model.now.chord} next={next.chord} />
      {#if !ofChords}
        <p class="flex max-w-md justify-between gap-2 text-xs text-ink-soft">
          <span class="truncate"
            >{showMaterial(model.preview?.material ?? model.now.material, naming)}</span
          >
          <span class="truncate">{showMaterial(next.material, naming)}</span>
        </p>
      {/if}
    </div>
    <div class="text-sm">
      <Choice
        label="Compare by"
        value={study.view.crossing}
        options={[
          ['chords', 'Chord tones'],
          ['choices', 'Scales'],
        ]}
        onchange={(crossing) => study.look({ crossing })}
      />
      <ul class="mt-2 grid gap-x-6 md:grid-cols-2" data-steps>
        {#each changeSteps(model.crossing) as step (step)}<li>{showSymbol(step)}</li>{/each}
      </ul>
      {#each model.remarksNow.slice(0, 2) as { text } (text)}
        <p class="mt-2 text-ink-soft">{showSymbol(text)}</p>
      {/each}
      <TheoryLink part="the-change" of="the change" />
    </div>
  </div>
{:else}
  <p class="text-sm text-ink-soft">Only one chord: nothing changes.</p>
{/if}
