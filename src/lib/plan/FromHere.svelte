<!-- Wherever the phrase ends: the ways from one note into the next chord, and pinning it. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { degreeOver } from '$core/chords/over';
  import type { Mark } from '$core/neck/marks';
  import { waysInto } from '$core/targets/approach';
  import { showNote, showOver, showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly mark: Mark;
    readonly onclose: () => void;
  }

  let { mark, onclose }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

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

<div class="text-sm" data-from-here>
  <div class="mb-1 flex flex-wrap items-baseline gap-x-2">
    <h2 class="font-semibold">
      From {showNote(mark.note)}, {here} on string {mark.string}, fret {mark.fret}
    </h2>
    <button class="ml-auto underline" onclick={onclose}>Close</button>
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
      {#each ways as way (`${way.string}-${way.fret}`)}
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
        <li>No tone of {showSymbol(next.chord.symbol)} lies within two frets.</li>
      {/each}
    </ol>
  {/if}
</div>
