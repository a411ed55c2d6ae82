<!-- What is heard now, how the last target went, and what to listen for after a pass. -->
<script lang="ts">
  import { type Ear, SIMULATED } from '$lib/listening/ear.svelte';
  import HeardNow from '$lib/listening/HeardNow.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import KeepTake from './KeepTake.svelte';
  import type { Landed } from './landed.svelte';
  import { getStage } from '$lib/stage/stage.svelte';

  interface Props {
    readonly ear: Ear;
    readonly landed: Landed;
    /** Loops round the target to listen for. */
    readonly onloop: () => void;
    /** Plays the way into it. */
    readonly onshow: () => void;
    readonly onkept: () => void;
  }

  let { ear, landed, onloop, onshow, onkept }: Props = $props();

  const stage = getStage();
</script>

{#if ear.state === 'hearing' || landed.done}
  <p class="flex flex-wrap items-baseline gap-x-2" data-heard-says>
    {#if ear.state === 'hearing'}
      <HeardNow {ear} chord={stage.standing.moment.now?.chord ?? null} />
      {#if landed.latest}<span data-landing-latest>{showSymbol(landed.latest.sentence)}</span>{/if}
    {/if}
  </p>
{/if}
{#if landed.done}
  <p role="status" data-landings-say>
    {ear.device === SIMULATED ? 'The simulated guitarist: ' : ''}{showSymbol(landed.done.sentence)}
    {#if landed.around()}
      <button class="underline" onclick={onshow} title="Corvel plays the way into it, then you (D)"
        >Show me</button
      >
      <button class="underline" onclick={onloop} title="Loop round it (J)">Loop round it</button>
    {/if}
    <KeepTake {ear} pass={landed.done} {onkept} />
  </p>
{/if}
{#if ear.problem}<p class="font-semibold text-now-text" role="status">{ear.problem}</p>{/if}
