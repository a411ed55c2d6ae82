<!-- The chord sounding now: how much of it to say, what to play, and for how much of the chart. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { setIntent, switchAfter, thenPlay } from '$lib/study/edits';
  import { INTENTS } from '$core/lenses/lens';
  import { type Lens } from '$core/lenses/table';
  import type { Option } from '$core/lenses/options';
  import Choice from '$lib/ui/Choice.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { INTENT_NAMES, SCOPE_NAMES, SCOPES, type Scope } from '$lib/study/choices';
  import ChordHead from './ChordHead.svelte';
  import ChordSpelling from './ChordSpelling.svelte';
  import OptionsPanel from './OptionsPanel.svelte';

  interface Props {
    spelled: boolean;
    lens: Lens | null;
    readonly held: Option | null;
    readonly onhold: (option: Option | null) => void;
  }

  let { spelled = $bindable(), lens = $bindable(), held, onhold }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  let scope = $state<Scope>('equal');
  const now = $derived(model.now);
  const reading = $derived(now ? study.reading?.chords[now.index] : undefined);
  const halfBars = $derived.by(() => {
    const beats = study.chart?.source.time.beats ?? 4;
    return now ? Math.max(1, Math.floor((now.beats * 2) / beats)) : 1;
  });
  /** What may be played over the rest of a chord: the best, each sound once, and what is chosen. */
  const SECONDS = 16;
  const seconds = $derived(
    model.options.filter(({ material: { name } }, place, all) => {
      const first = all.findIndex((one) => one.material.name === name) === place;
      return first && (place < SECONDS || name === now?.then?.material.name);
    }),
  );
</script>

{#if now}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <ChordHead time="now" planned={now} {reading} naming={study.settings.current.modeNames}>
      {#snippet details()}
        {#if reading}
          <ChordSpelling
            bind:open={spelled}
            chord={now.chord}
            {reading}
            cadences={model.cadencesNow}
          />
        {/if}
      {/snippet}
    </ChordHead>
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
        <span class="sr-only">Choose</span>
        <select
          class="field min-h-8 px-1"
          data-explain="How far a choice reaches: this chord, every such chord, its section, or the whole chart."
          bind:value={scope}
        >
          {#each SCOPES as one (one)}<option value={one}>{SCOPE_NAMES[one]}</option>{/each}
        </select>
      </label>
    </div>
  </div>
  {#if halfBars > 1}
    <label class="flex items-center gap-2 text-sm">
      Then
      <select
        class="field min-h-8 min-w-0 flex-1 px-1"
        name="then"
        data-explain="Another sound over the rest of the chord."
        value={now.then?.material.name ?? ''}
        onchange={(event) => {
          const { value } = event.currentTarget;
          const option = seconds.find(({ material }) => material.name === value) ?? null;
          study.edit(thenPlay(now, option, now.then?.after ?? Math.floor(halfBars / 2)));
        }}
      >
        <option value="">the same</option>
        {#if now.then && !seconds.some(({ material }) => material.name === now.then?.material.name)}
          <option value={now.then.material.name}>{showSymbol(now.then.material.name)}</option>
        {/if}
        {#each seconds as { material } (material.name)}
          <option value={material.name}>{showSymbol(material.name)}</option>
        {/each}
      </select>
    </label>
  {/if}
  {#if now.then && halfBars > 1}
    <label class="flex items-center gap-2 text-sm">
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
  {/if}
  <div class="min-h-32 flex-1 overflow-y-auto pr-1 [scrollbar-width:thin]">
    <OptionsPanel naming={study.settings.current.modeNames} bind:lens {scope} {held} {onhold} />
  </div>
{/if}
