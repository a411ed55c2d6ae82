<!--
  What the stage says while it plays and after: where it is, what is heard, what landed. Each has lines
  kept free for it, so that nothing moves under the player's hand while the words change.
-->
<script lang="ts">
  import { pageTransport } from '$lib/audio/transport.svelte';
  import { type Ear, SIMULATED } from '$lib/listening/ear.svelte';
  import HeardNow from '$lib/listening/HeardNow.svelte';
  import { care } from '$lib/log/care.svelte';
  import CareNotice from '$lib/log/CareNotice.svelte';
  import type { Keeper } from '$lib/log/keeper.svelte';
  import KeptStint from '$lib/log/KeptStint.svelte';
  import { getStage } from '$lib/stage/stage.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { clockName } from '$lib/ui/amounts';
  import { showSymbol } from '$lib/ui/glyphs';
  import KeepTake from './KeepTake.svelte';
  import type { Landed } from './landed.svelte';

  interface Props {
    readonly ear: Ear;
    readonly landed: Landed;
    readonly keeper: Keeper;
    /** Whose turn it is, where phrases are traded; null where they are not. */
    readonly turn: { readonly says: string; readonly mine: boolean } | null;
    /** Loops round the target to listen for. */
    readonly onloop: () => void;
    /** Plays the way into it. */
    readonly onshow: () => void;
    readonly onkept: () => void;
  }

  let { ear, landed, keeper, turn, onloop, onshow, onkept }: Props = $props();

  const study = getStudy();
  const stage = getStage();
  const transport = pageTransport();
  const { standing } = stage;

  const hearing = $derived(ear.state === 'hearing');
  const latest = $derived(landed.latest ? showSymbol(landed.latest.sentence) : '');
  /** The lines a player who is listened to needs besides. */
  const tall = $derived(hearing || landed.done !== null);
  /** The lines of the last pass give way to what hurts and to what is broken. */
  const pass = $derived(ear.problem || care.restDue ? null : landed.done);
</script>

<div
  class="min-w-0 flex-1 text-sm/5 max-xl:order-first max-xl:basis-full {tall
    ? 'max-sm:min-h-25 sm:min-h-15 xl:min-h-20'
    : 'min-h-10 xl:min-h-15 short:order-none short:basis-0'}"
  data-stage-says
>
  <div class="flex gap-x-4 max-sm:flex-col xl:flex-col">
    <div
      class="flex shrink-0 items-baseline gap-x-4 max-sm:shrink max-sm:flex-wrap sm:whitespace-nowrap"
    >
      {#if transport.fetching !== null}
        <p role="status" class="flex items-center gap-2">
          Fetching the band’s sounds
          <progress max="1" value={transport.fetching}></progress>
        </p>
      {/if}
      {#if turn}
        <p
          class="text-xl/5 font-semibold tabular-nums {turn.mine
            ? 'text-now-text'
            : 'text-ink-soft'}"
          data-turn
        >
          {turn.says}
        </p>
      {/if}
      {#if stage.playing}
        <p class="text-ink-soft tabular-nums" data-pass>
          Pass {stage.pass + 1} · {clockName(
            standing.seconds,
          )}{#if stage.settings.keys !== 'same' && standing.moment.now}
            · first chord {showSymbol(stage.keyName)}{/if}
        </p>
      {/if}
      {#if hearing}
        <p class="flex items-baseline gap-x-2" data-heard-says>
          <HeardNow {ear} chord={standing.moment.now?.chord ?? null} />
          {#if ear.device === SIMULATED}<span class="text-ink-soft max-sm:sr-only">
              The simulated guitarist</span
            >{/if}
        </p>
      {/if}
      {#if keeper.kept && !(tall && stage.playing)}
        <KeptStint kept={keeper.kept} heard={landed.done !== null} onsay={keeper.say} />
      {/if}
    </div>
    {#if ear.says}
      <p class="font-semibold text-now-text" role="status">{ear.says}</p>
    {:else if hearing && stage.playing}
      <!-- Its line stays where nothing is decided yet. -->
      <p class="min-h-5 min-w-0 truncate max-sm:hidden" title={latest} data-landing-latest>
        {latest}
      </p>
    {/if}
  </div>

  {#if ear.problem}
    <p class="font-semibold text-now-text" role="status">{ear.problem}</p>
  {/if}
  {#if pass}
    {@const says = showSymbol(pass.sentence)}
    <p
      role="status"
      class={stage.playing ? 'line-clamp-2 sm:line-clamp-1' : ''}
      title={says}
      data-landings-say
    >
      {says}
    </p>
    <p class="flex flex-wrap gap-x-4">
      {#if landed.around()}
        <button
          class="underline"
          onclick={onshow}
          title="Corvel plays the way into it, then you (D)">Show me</button
        >
        <button class="underline" onclick={onloop} title="Loop round it (J)">Loop round it</button>
      {/if}
      <KeepTake {ear} {pass} {onkept} />
    </p>
  {/if}
  <div class:hidden={pass}>
    <CareNotice playing={stage.playing} />
  </div>
  {#if !study.chart || study.planned.length === 0}
    <p class="text-ink-soft">There is nothing to play: this chart has no chords yet.</p>
  {/if}
</div>
