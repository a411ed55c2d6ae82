<!-- The two largest things on the stage: the chord that sounds and the one that comes. -->
<script lang="ts">
  import { showMaterial } from '$lib/frame/material';
  import { getStudy } from '$lib/study/study.svelte';
  import { late } from '$lib/ui/afterPaint.svelte';
  import { showOver, showSymbol } from '$lib/ui/glyphs';
  import { getStage } from './stage.svelte';

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
  const size = $derived(
    small ? '[--size:clamp(3rem,5vw,4.5rem)]' : '[--size:clamp(3rem,6.5vw,5.5rem)]',
  );
  const counting = $derived(stage.standing.beat < 0);
</script>

{#snippet symbol(name: string, hue: string)}
  <!-- Smaller where its side has no room for it: cut short it would be read as another chord. -->
  <p
    class="heading text-[length:min(var(--size),calc(var(--room)/var(--letters)))] leading-[calc(1.25*var(--size))] whitespace-nowrap {hue}"
    style:--letters={name.length}
    data-symbol
  >
    {name}
  </p>
{/snippet}

<!-- As high as its three lines, whatever they say: a change of words lays out nothing else. -->
<div
  class="grid h-[calc(1.25*var(--size)+2.75rem)] shrink-0 grid-cols-[1fr_auto_1fr] items-center gap-x-4 will-change-transform contain-strict [--room:min(72vw,72rem)] max-sm:gap-x-2 max-sm:[--room:58vw] {size}"
  data-stage={counting ? 'counting' : 'playing'}
>
  <div class="min-w-0" data-now-chord>
    <p class="text-sm/5 text-ink-soft">
      <span class="font-semibold text-now-text">Now</span>
      <span class="max-sm:hidden">{now ? showMaterial(now.material, naming) : ''}</span>
    </p>
    {@render symbol(now ? showSymbol(now.chord.symbol) : '–', 'text-now-text')}
    <p class="text-lg/6 max-sm:text-base" data-target>
      {#if now && target}<span class="text-ink-soft">on</span>
        <strong>{showOver(now.chord, target.degree)}</strong>{:else}&nbsp;{/if}
    </p>
  </div>
  <p class="text-center" aria-live="off" data-left>
    <span class="block text-[clamp(2rem,4vw,3.25rem)]/none font-semibold tabular-nums text-ink-soft"
      >{counting ? Math.max(1, Math.ceil(-stage.standing.beat - 1e-6)) : stage.standing.left}</span
    >
    <span class="text-xs text-ink-soft"
      >{counting ? 'counting in' : stage.standing.left === 1 ? 'beat' : 'beats'}</span
    >
  </p>
  <div class="min-w-0 text-right" data-next-chord>
    <p class="text-sm/5 text-ink-soft">
      <span class="max-sm:hidden">{next ? showMaterial(next.material, naming) : ''}</span>
      <span class="font-semibold text-next-text">Next</span>
    </p>
    {@render symbol(next ? showSymbol(next.chord.symbol) : '·', 'text-next-text')}
    <p class="text-lg/6 max-sm:text-base" data-target>
      {#if next && nextTarget}<span class="text-ink-soft">to</span>
        <strong>{showOver(next.chord, nextTarget.degree)}</strong>
        <span class="text-ink-soft max-sm:hidden"
          >string {nextTarget.string}, fret {nextTarget.fret}</span
        >{:else}&nbsp;{/if}
    </p>
  </div>
</div>
