<!-- The chord sounding now: how much of it to say, what to play, and for how much of the chart. -->
<script lang="ts">
  import { INTENTS, type Lens } from '$core/lenses/lens';
  import type { Option } from '$core/lenses/options';
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { INTENT_NAMES, SCOPES, type Scope } from './choices';
  import ChordHead from './ChordHead.svelte';
  import ChordSpelling from './ChordSpelling.svelte';
  import OptionsPanel from './OptionsPanel.svelte';
  import type { PlanSession } from './session.svelte';

  interface Props {
    readonly session: PlanSession;
    readonly settings: SettingsStore;
    spelled: boolean;
    lens: Lens | null;
    readonly held: Option | null;
    readonly onhold: (option: Option | null) => void;
  }

  let {
    session,
    settings,
    spelled = $bindable(),
    lens = $bindable(),
    held,
    onhold,
  }: Props = $props();

  let scope = $state<Scope>('equal');
  const SCOPE_NAMES: Readonly<Record<Scope, string>> = {
    chord: 'here',
    equal: 'same chords',
    section: 'section',
    chart: 'chart',
  };
  const now = $derived(session.now);
  const reading = $derived(now ? session.reading?.chords[now.index] : undefined);
  const halfBars = $derived.by(() => {
    const beats = session.chart?.source.time.beats ?? 4;
    return now ? Math.max(1, Math.floor((now.beats * 2) / beats)) : 1;
  });
</script>

{#if now}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <ChordHead time="now" planned={now} {reading} naming={settings.current.modeNames}>
      {#snippet details()}
        {#if reading}
          <ChordSpelling
            bind:open={spelled}
            chord={now.chord}
            {reading}
            cadences={session.cadencesNow}
          />
        {/if}
      {/snippet}
    </ChordHead>
    <div class="ml-auto flex items-center gap-1.5">
      <Choice
        label="Intent"
        bare
        value={now.intent}
        options={INTENTS.map((intent) => [intent, INTENT_NAMES[intent][0]])}
        onchange={(intent) => session.setIntent(intent, 'chord')}
      />
      <label class="text-sm">
        <span class="sr-only">Choose</span>
        <select class="field min-h-8 px-1" title="How far a choice reaches" bind:value={scope}>
          {#each SCOPES as one (one)}<option value={one}>{SCOPE_NAMES[one]}</option>{/each}
        </select>
      </label>
    </div>
  </div>
  {#if now.then && halfBars > 1}
    <label class="flex items-center gap-2 text-sm">
      {showSymbol(now.then.material.name)} from half bar
      <input
        type="range"
        min="1"
        max={halfBars - 1}
        value={now.then.after}
        oninput={(event) => session.switchAfter(event.currentTarget.valueAsNumber)}
      />
      {now.then.after + 1} of {halfBars}
    </label>
  {/if}
  <div class="min-h-32 flex-1 overflow-y-auto pr-1 [scrollbar-width:thin]">
    <OptionsPanel {session} naming={settings.current.modeNames} bind:lens {scope} {held} {onhold} />
  </div>
{/if}
