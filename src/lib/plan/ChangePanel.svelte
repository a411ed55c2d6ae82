<!-- The change from now to next as a ladder, and what is notable about it. -->
<script lang="ts">
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import ChordHead from './ChordHead.svelte';
  import { showMaterial } from './material';
  import Ladder from './Ladder.svelte';
  import type { PlanSession } from './session.svelte';

  interface Props {
    readonly session: PlanSession;
    readonly settings: SettingsStore;
  }

  let { session, settings }: Props = $props();

  const next = $derived(session.next);
  const naming = $derived(settings.current.modeNames);
</script>

{#if session.now && next && session.crossing}
  <div class="flex flex-wrap items-center gap-x-3">
    <ChordHead time="next" planned={next} reading={session.reading?.chords[next.index]} {naming} />
    <div class="ml-auto">
      <Choice
        label="The ladder crosses"
        bare
        value={session.plan.crossing}
        options={[
          ['choices', 'Choices'],
          ['chords', 'Chords'],
        ]}
        onchange={session.toggleCrossing}
      />
    </div>
  </div>
  <Ladder crossing={session.crossing} now={session.now.chord} next={next.chord} />
  {#if session.plan.crossing === 'choices' || session.preview}
    <p class="flex max-w-md justify-between gap-2 text-xs text-ink-soft max-xl:hidden">
      <span class="truncate"
        >{showMaterial(session.preview?.material ?? session.now.material, naming)}</span
      >
      <span class="truncate">{showMaterial(next.material, naming)}</span>
    </p>
  {/if}
{:else}
  <p class="text-sm text-ink-soft">Nothing changes: the chart holds one chord.</p>
{/if}
