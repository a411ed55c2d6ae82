<!-- What is heard now, how the last target went, and what to listen for after a pass. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { type Ear, SIMULATED } from '$lib/listening/ear.svelte';
  import HeardNow from '$lib/listening/HeardNow.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { message, warn } from '$lib/ui/messages.svelte';
  import type { Landed } from './landed.svelte';
  import { getStage } from './stage.svelte';

  interface Props {
    readonly ear: Ear;
    readonly landed: Landed;
    /** Loops round the target to listen for. */
    readonly onloop: () => void;
  }

  let { ear, landed, onloop }: Props = $props();

  const study = getStudy();
  const stage = getStage();

  async function keep() {
    const { keepTake } = await import('./take');
    const kept = await keepTake(study, stage, landed);
    if ('refused' in kept) warn(kept.refused);
    else
      message('The take is kept as a lick.', {
        duration: 10_000,
        action: { label: 'Open it', onClick: () => void goto(`/licks/${kept.id}`) },
      });
  }
</script>

{#if ear.state === 'hearing' || landed.done}
  <p class="flex flex-wrap items-baseline gap-x-2" data-heard-says>
    {#if ear.state === 'hearing'}
      <HeardNow {ear} chord={stage.now?.chord ?? null} />
      {#if landed.latest}<span data-landing-latest>{showSymbol(landed.latest.sentence)}</span>{/if}
    {/if}
  </p>
{/if}
{#if landed.done}
  <p role="status" data-landings-say>
    {ear.device === SIMULATED ? 'The simulated guitarist: ' : ''}{showSymbol(landed.done.sentence)}
    {#if ear.state === 'hearing'}
      <button class="underline" onclick={() => void keep()}>Keep this take</button>
    {/if}
    {#if landed.around()}
      <button class="underline" onclick={onloop} title="Loop round it (J)">Loop round it</button>
    {/if}
  </p>
{/if}
{#if ear.problem}<p class="font-semibold text-now-text" role="status">{ear.problem}</p>{/if}
