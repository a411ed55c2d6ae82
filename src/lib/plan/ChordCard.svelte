<!-- One side of the change: a chord, what it does in the key, and the notes chosen over it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { degreeOver } from '$core/chords/chords';
  import type { ChordReading } from '$core/harmony/reading';
  import type { FastStretch } from '$core/harmony/rhythm';
  import { roleSentence } from '$core/harmony/roles';
  import { halfSteps } from '$core/notes/notes';
  import { showDegree, showNote, showSymbol } from '$lib/ui/glyphs';
  import type { PlannedChord } from './session.svelte';

  interface Props {
    readonly time: 'now' | 'next';
    readonly planned: PlannedChord;
    readonly reading: ChordReading | undefined;
    /** What to hold on to where the chord passes too fast to be outlined. */
    readonly fast?: FastStretch | undefined;
    /** Stands behind the chord's name. */
    readonly details?: Snippet;
    /** Stands behind the material's name. */
    readonly spread?: Snippet;
  }

  let { time, planned, reading, fast, details, spread }: Props = $props();

  const tones = $derived(
    planned.material.notes.map((note) => {
      const degree = degreeOver(planned.chord, note);
      const isTone = planned.chord.quality.degrees.some(
        (tone) => halfSteps(tone) === halfSteps(degree),
      );
      return { note, degree, isTone };
    }),
  );
</script>

<section aria-label={time === 'now' ? 'Now' : 'Next'} class="flex min-w-0 flex-col gap-2">
  <h2 class="flex flex-wrap items-baseline gap-x-2.5">
    <span class="text-sm font-semibold {time === 'now' ? 'text-now-text' : 'text-next-text'}">
      {time === 'now' ? 'Now' : 'Next'}
    </span>
    <span class="heading text-3xl" data-chord-name={time}>{showSymbol(planned.chord.symbol)}</span>
    {#if reading?.numeral}<span class="text-ink-soft">{showSymbol(reading.numeral)}</span>{/if}
    {@render details?.()}
  </h2>
  <p class="flex min-h-5 items-center gap-3 text-sm text-ink-soft">
    {showSymbol(planned.material.name)}
    {@render spread?.()}
  </p>
  <ul class="flex flex-wrap gap-1.5" aria-label="Notes of {planned.material.name}">
    {#each tones as { note, degree, isTone } (note)}
      <li
        class="flex min-w-10 flex-col items-center rounded-sm border px-1.5 py-0.5 {isTone
          ? 'border-ink'
          : 'border-line-strong border-dashed'}"
      >
        <span class="heading leading-5">{showNote(note)}</span>
        <span class="text-xs text-ink-soft">{showDegree(degree)}</span>
      </li>
    {/each}
  </ul>
  {#if fast}
    <p class="text-sm">
      {fast.seconds.toFixed(1)} seconds are too short to outline this chord: {showSymbol(
        fast.cover,
      )}.
    </p>
  {:else if reading?.role}
    <p class="text-sm">{showSymbol(roleSentence(reading.role, planned.chord.symbol))}</p>
  {/if}
</section>
