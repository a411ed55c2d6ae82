<!-- Which pedal does what; learning one; and a simulated pedal to try it with. -->
<script lang="ts">
  import { PEDAL_ACTIONS, type PedalAction } from '$lib/settings/settings';
  import { getStudy } from '$lib/study/study.svelte';
  import { PEDAL_NAMES, type Pedals } from './pedals.svelte';

  interface Props {
    readonly pedals: Pedals;
  }

  let { pedals }: Props = $props();

  const { settings } = getStudy();
  const bound = (does: PedalAction) =>
    Object.entries(settings.current.pedals)
      .filter(([, action]) => action === does)
      .map(([sent]) => sent);

  function forget(does: PedalAction) {
    const left = Object.entries(settings.current.pedals).filter(([, action]) => action !== does);
    settings.change({ pedals: Object.fromEntries(left) });
  }
</script>

<table class="w-full text-sm">
  <tbody>
    {#each PEDAL_ACTIONS as does (does)}
      {@const sent = bound(does)}
      <tr>
        <th scope="row" class="pr-3 text-left font-normal">{PEDAL_NAMES[does]}</th>
        <td class="pr-3 text-ink-soft" data-bound={does}>{sent.join(', ') || 'none'}</td>
        <td class="text-right whitespace-nowrap">
          {#if sent.length > 0}
            <button class="button-quiet min-h-8 px-2" onclick={() => forget(does)}>Forget</button>
          {/if}
          <button
            class="button min-h-8 px-2 aria-pressed:bg-ink aria-pressed:text-paper"
            aria-pressed={pedals.learning === does}
            aria-label="Learn: {PEDAL_NAMES[does]}"
            onclick={() => pedals.learn(pedals.learning === does ? null : does)}
          >
            {pedals.learning === does ? 'Press it now' : 'Learn'}
          </button>
        </td>
      </tr>
    {/each}
  </tbody>
</table>
<div class="mt-2 flex flex-wrap items-center gap-2 text-sm">
  <span class="text-ink-soft">Simulated pedal</span>
  <button class="button min-h-8 px-2" onclick={() => pedals.press('simulated left')}>Left</button>
  <button class="button min-h-8 px-2" onclick={() => pedals.press('simulated right')}>Right</button>
  {#if pedals.inputs === null}
    <button class="button ml-auto min-h-8 px-2" onclick={() => void pedals.openMidi()}
      >Listen to MIDI pedals</button
    >
  {:else}
    <span class="ml-auto" role="status"
      >{pedals.inputs.length === 0 ? 'No MIDI input is there yet.' : pedals.inputs.join(', ')}</span
    >
  {/if}
</div>
{#if pedals.failure}<p class="text-sm text-now-text" role="alert">{pedals.failure}</p>{/if}
