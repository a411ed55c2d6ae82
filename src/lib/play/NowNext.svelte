<!-- The two largest things on the stage: the chord that sounds and the one that comes. -->
<script lang="ts">
  import { placeWords } from '$core/neck/neck';
  import { sayChange } from '$core/targets/changes';
  import { showMaterial } from '$lib/frame/material';
  import { getStudy } from '$lib/study/study.svelte';
  import { late } from '$lib/ui/afterPaint.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { getStage } from '$lib/stage/stage.svelte';
  import { inBeats } from 'corvel-core';

  interface Props {
    /** Whether what comes is shown by now. */
    readonly ahead: boolean;
    /** Whether other things need the room. */
    readonly small: boolean;
  }

  let { ahead, small }: Props = $props();

  const study = getStudy();
  const stage = getStage();
  const naming = $derived(study.settings.current.modeNames);
  const { now, target } = $derived(stage.standing.moment);
  /** What comes is written a frame after what sounds. */
  const coming = late(() => (ahead ? stage.standing.moment : null));
  const next = $derived(coming.current?.next ?? null);
  const nextTarget = $derived(coming.current?.nextTarget ?? null);
  /** The same sentence as on Plan, its first clause and where to land. */
  const clause = $derived(
    now && next
      ? sayChange(now.chord, next.chord, { target: nextTarget, from: target }).clauses[0]
      : undefined,
  );
  const place = $derived(nextTarget ? `${placeWords(nextTarget)},` : '');
  const size = $derived(
    small ? '[--size:clamp(3rem,4.5vw,3.5rem)]' : '[--size:clamp(3rem,5.6vw,4.5rem)]',
  );
  const counting = $derived(stage.standing.beat < 0);
</script>

{#snippet symbol(name: string, hue: string)}
  <!-- Smaller where its side has no room for it: cut short it would be read as another chord. -->
  <p
    class="heading text-[length:min(var(--size),calc(var(--room)/var(--letters)))] leading-[calc(1.2*var(--size))] whitespace-nowrap {hue}"
    style:--letters={name.length}
    data-symbol
  >
    {name}
  </p>
{/snippet}

<!-- As high as its lines, whatever they say: a change of words lays out nothing else. -->
<div
  class="grid h-[calc(1.2*var(--size)+1.25rem)] shrink-0 grid-cols-[1fr_minmax(0,26rem)_1fr] items-center gap-x-4 will-change-transform contain-strict [--room:min(42vw,60rem)] max-lg:h-[calc(1.2*var(--size)+6rem)] max-lg:grid-cols-2 max-lg:gap-x-2 max-lg:[--room:58vw] short:h-[calc(1.2*var(--size)+1.25rem)] short:grid-cols-[1fr_minmax(0,22rem)_1fr] short:[--room:36vw] short:[--size:1.75rem] {size}"
  data-stage={counting ? 'counting' : 'playing'}
>
  <div class="min-w-0" data-now-chord>
    {@render symbol(now ? showSymbol(now.chord.symbol) : '–', 'text-now-text')}
    <p class="truncate text-sm/5 text-ink-soft">
      {now ? showMaterial(now.material, naming) : ''}
    </p>
  </div>
  <div
    class="text-center text-[clamp(1rem,1.7vw,1.5rem)]/[1.3] max-lg:order-last max-lg:col-span-2 short:order-none short:col-span-1"
    data-sentence
  >
    {#if counting}
      <p class="text-[clamp(2rem,4vw,3.25rem)]/none font-semibold tabular-nums" data-left>
        {Math.max(1, Math.ceil(inBeats(-stage.standing.beat)))}
      </p>
      <p class="text-sm text-ink-soft">{stage.leadsIn ? 'introduction' : 'counting in'}</p>
    {:else if clause}
      <p>{showSymbol(clause.text)} <strong>{showSymbol(clause.goal)}</strong></p>
      <p class="font-semibold text-next-text">
        {place}
        <span class="tabular-nums" data-left>in {inBeats(stage.standing.left)}</span>
      </p>
    {:else}
      <p class="font-semibold text-ink-soft tabular-nums" data-left>
        {next || !ahead ? `in ${inBeats(stage.standing.left)}` : ''}
      </p>
    {/if}
  </div>
  <div class="min-w-0 text-right" data-next-chord>
    {@render symbol(next ? showSymbol(next.chord.symbol) : '·', 'text-next-text')}
    <p class="truncate text-sm/5 text-ink-soft">
      {next ? showMaterial(next.material, naming) : ''}
    </p>
  </div>
</div>
