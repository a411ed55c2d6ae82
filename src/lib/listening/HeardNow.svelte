<!-- What is heard now, named over the chord that sounds, with its cents. -->
<script lang="ts">
  import EarIcon from '@lucide/svelte/icons/ear';
  import { type Chord, noteName } from 'corvel-core';
  import { spellOver } from '$core/chords/over';
  import { simplestPitch } from '$core/notes/spelling';
  import { showNote, showSymbol } from '$lib/ui/glyphs';
  import type { Ear } from './ear.svelte';

  interface Props {
    readonly ear: Ear;
    readonly chord: Chord | null;
  }

  let { ear, chord }: Props = $props();

  const name = $derived.by(() => {
    const { sounding } = ear;
    if (!sounding) return '…';
    const midi = Math.round(sounding.pitch);
    const cents = Math.round(100 * (sounding.pitch - midi));
    const note = chord
      ? showSymbol(noteName(spellOver(chord, midi)))
      : showNote(simplestPitch(midi));
    return `${note} ${cents >= 0 ? '+' : '−'}${Math.abs(cents)} ¢`;
  });
</script>

{#if ear.state === 'hearing'}
  <EarIcon size={14} class="self-center" aria-hidden="true" />
  <span class="w-22 tabular-nums" data-heard-now>{name}</span>
{/if}
