<!-- What to play over the chord sounding now: how much of it to say, and for how much of the chart. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { setIntent, switchAfter, thenPlay } from '$lib/study/edits';
  import { INTENTS } from '$core/lenses/lens';
  import { type Lens } from '$core/lenses/table';
  import type { Option } from 'corvel-core';
  import X from '@lucide/svelte/icons/x';
  import Choice from '$lib/ui/Choice.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { halfBarsOf, INTENT_NAMES, scopeName, SCOPES, type Scope } from '$lib/study/choices';
  import { showMaterial } from '$lib/frame/material';
  import ChordSpelling from './ChordSpelling.svelte';
  import OptionsPanel from './OptionsPanel.svelte';

  interface Props {
    readonly held: Option | null;
    readonly onhold: (option: Option | null) => void;
  }

  let { held, onhold }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  /** The lens whose answers are shown; the best of all when null. */
  let lens = $state<Lens | null>(null);
  let scope = $state<Scope>('equal');
  const now = $derived(model.now);
  const reading = $derived(now ? study.reading?.chords[now.index] : undefined);
  const halfBars = $derived(study.chart && now ? halfBarsOf(study.chart, now) : 1);
</script>

{#if now}
  <div class="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 text-sm">
    <h2>
      <span class="text-ink-soft">Over</span>
      <span class="heading text-lg/7">{showSymbol(now.chord.symbol)}</span>
      {#if reading?.numeral}<span class="text-ink-soft">{showSymbol(reading.numeral)}</span>{/if}
      <span class="text-ink-soft" data-material-name="now"
        >{showMaterial(now.material, study.settings.current.modeNames)}</span
      >
      {#if now.then}<span class="text-ink-soft"
          >then {showMaterial(now.then.material, study.settings.current.modeNames)}</span
        >{/if}
    </h2>
    {#if reading}
      <ChordSpelling chord={now.chord} {reading} cadences={model.cadencesNow} />
    {/if}
    <div class="ml-auto flex items-center gap-1.5">
      <Choice
        label="Intent"
        bare
        value={now.intent}
        options={INTENTS.map((intent) => [intent, ...INTENT_NAMES[intent]] as const)}
        onchange={(intent) =>
          study.chart && study.edit(setIntent(study.chart, model.nowIndex, intent, 'chord'))}
      />
      <label class="text-sm">
        <span class="sr-only">Choose for</span>
        <select
          class="field min-h-8 px-1"
          data-explain="How far a choice reaches: this chord, every {showSymbol(
            now.chord.symbol,
          )}, its section, or the whole chart."
          bind:value={scope}
        >
          {#each SCOPES as one (one)}<option value={one}
              >{scopeName(one, showSymbol(now.chord.symbol))}</option
            >{/each}
        </select>
      </label>
    </div>
  </div>
  {#if now.then && halfBars > 1}
    <p class="flex items-center gap-2 text-sm">
      <label class="flex items-center gap-2">
        {showSymbol(now.then.material.name)} from half bar
        <input
          type="range"
          min="1"
          max={halfBars - 1}
          value={now.then.after}
          oninput={(event) =>
            study.edit(switchAfter(model.nowIndex, event.currentTarget.valueAsNumber))}
        />
        {now.then.after + 1} of {halfBars}
      </label>
      <button
        class="button-quiet min-h-8"
        aria-label="Only one scale"
        title="Use the first scale over the whole chord"
        onclick={() => study.edit(thenPlay(now, null, 1))}
      >
        <X size={14} aria-hidden="true" />
      </button>
    </p>
  {/if}
  <div class="min-h-32 flex-1 overflow-y-auto pr-1 [scrollbar-width:thin]">
    <OptionsPanel naming={study.settings.current.modeNames} bind:lens {scope} {held} {onhold} />
  </div>
{/if}
