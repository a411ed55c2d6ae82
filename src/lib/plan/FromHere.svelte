<!-- Wherever the phrase ends: the ways from one note into the next chord, and pinning it. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { openPart } from '$lib/ui/opened';
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { degreeOver } from '$core/chords/over';
  import type { Mark } from '$core/neck/marks';
  import { placeId } from '$core/neck/neck';
  import { waysInto } from '$core/targets/approach';
  import { showNote, showOver, showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly mark: Mark;
    readonly onclose: () => void;
  }

  let { mark, onclose }: Props = $props();

  onMount(() => openPart(() => onclose()));

  const study = getStudy();
  const model = getPlanModel();

  let card = $state<HTMLElement>();
  let width = $state(0);
  let left = $state(0);

  // Under its note, and clear of the way through the form, which a pin changes before one's eyes.
  const CLEAR = { from: 1024, share: 0.56 } as const;
  $effect(() => {
    const around = card?.parentElement?.getBoundingClientRect();
    const note = card?.parentElement
      ?.querySelector(`[data-mark="${mark.string}-${mark.fret}"]`)
      ?.getBoundingClientRect();
    if (!around || !note) return;
    const end = around.width >= CLEAR.from - 32 ? around.width * CLEAR.share : around.width;
    const middle = note.left + note.width / 2 - around.left;
    left = Math.max(0, Math.min(middle - width / 2, end - width));
  });

  const MOST = 5;
  const next = $derived(study.next);
  const ways = $derived(next ? waysInto(study.neck, mark, next.chord).slice(0, MOST) : []);
  const size = (halfSteps: number) => {
    if (halfSteps === 0) return 'holds';
    const way = halfSteps > 0 ? 'up' : 'down';
    const many = Math.abs(halfSteps);
    return `${way} ${many === 1 ? 'a half step' : many === 2 ? 'a whole step' : `${many} half steps`}`;
  };
  const here = $derived(
    study.now ? showOver(study.now.chord, degreeOver(study.now.chord, mark.note)) : '',
  );
</script>

<section
  bind:this={card}
  bind:clientWidth={width}
  aria-label="From this note"
  class="absolute top-full z-30 w-[min(22rem,100%)] -translate-y-9 rounded-md border border-line-strong bg-sheet p-3 text-sm shadow-sheet"
  style:left="{left}px"
  data-from-here
>
  <div class="mb-1 flex flex-wrap items-baseline gap-x-2">
    <h2 class="font-semibold">
      From {showNote(mark.note)}, {here} on string {mark.string}, fret {mark.fret}
    </h2>
    <button class="ml-auto underline" title="Close (Escape)" onclick={onclose}>Close</button>
  </div>
  {#if study.now}
    <button
      class="button min-h-7 px-2 text-xs"
      onclick={() => study.now && model.pin(study.now.index, mark)}
      >Land here on {showSymbol(study.now.chord.symbol)}</button
    >
  {/if}
  {#if next}
    <ol class="mt-1">
      {#each ways as way (placeId(way))}
        <li class="flex items-baseline gap-x-2 border-t border-line py-0.5">
          <span>
            <span class="font-semibold">{showNote(way.note)}</span>
            {showOver(next.chord, way.degree)} of {showSymbol(next.chord.symbol)}: {size(
              way.halfSteps,
            )}, string {way.string}, fret {way.fret}{#if way.approach[0]}, through {showNote(
                way.approach[0].note,
              )}{/if}
          </span>
          <button class="ml-auto text-xs underline" onclick={() => model.pin(next.index, way)}
            >Pin</button
          >
        </li>
      {:else}
        <li>No chord tone of {showSymbol(next.chord.symbol)} is within two frets.</li>
      {/each}
    </ol>
  {/if}
</section>
