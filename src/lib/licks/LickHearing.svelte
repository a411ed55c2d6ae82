<!-- A lick by ear: played in and written down, or checked note by note against what is written. -->
<script lang="ts">
  import Square from '@lucide/svelte/icons/square';
  import { checkedSays } from '$core/listening/checked';
  import type { Mistakes } from '$core/listening/simulated';
  import type { Ear } from '$lib/listening/ear.svelte';
  import HeardNow from '$lib/listening/HeardNow.svelte';
  import ListenButton from '$lib/listening/ListenButton.svelte';
  import { openRecording } from '$lib/listening/recording';
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import { showNote, showSymbol } from '$lib/ui/glyphs';
  import type { LickEditing } from './editing.svelte';
  import type { Trying } from './trying.svelte';
  import { inBeats } from 'corvel-core';

  interface Props {
    readonly editing: LickEditing;
    readonly ear: Ear;
    readonly settings: SettingsStore;
    readonly trying: Trying;
    readonly mistakes: Mistakes;
    readonly onmistakes: (mistakes: Mistakes) => void;
  }

  let { editing, ear, settings, trying, mistakes, onmistakes }: Props = $props();

  /** Notes told of by name; the tablature marks them all. */
  const NAMED = 3;
  const wrong = $derived(
    (trying.found?.notes ?? []).filter(({ verdict }) => verdict !== 'as written').slice(0, NAMED),
  );
  function where(index: number): string {
    const note = editing.reading?.notes.find((one) => one.index === index);
    if (!note) return '';
    const { bar } = editing.frame;
    const number = Math.floor(note.beat / bar);
    const beat = Number((inBeats(note.beat - number * bar) + 1).toFixed(2));
    return `${showNote(note.note)} in bar ${number + 1}, beat ${beat}`;
  }
  const chord = $derived.by(() => {
    const beat = trying.beat ?? editing.grid.beat;
    const chords = editing.chart?.chords ?? [];
    return (chords.findLast((one) => one.beat <= beat) ?? chords[0])?.chord ?? null;
  });
  const counted = $derived(
    trying.beat === null
      ? ''
      : trying.beat < 0
        ? `${Math.floor(inBeats(editing.frame.bar + trying.beat)) + 1}`
        : 'Play',
  );

  async function judge(file: File): Promise<string | null> {
    const opened = await openRecording(file);
    if (!opened.ok) return opened.message;
    trying.judge(opened.notes);
    return trying.found ? checkedSays(trying.found) : null;
  }
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm" data-lick-hearing>
  {#if trying.purpose !== null}
    <button class="button" onclick={trying.stop}
      ><Square size={14} aria-hidden="true" />Stop {trying.purpose === 'write'
        ? 'recording'
        : 'the test'}</button
    >
    <span class="heading min-w-12 text-xl tabular-nums" role="status" data-count>{counted}</span>
  {:else}
    <button
      class="button"
      title="A bar is counted, then what you play is written down"
      onclick={() => trying.try('write')}>Record by playing</button
    >
    <button
      class="button"
      disabled={editing.lick.notes.length === 0}
      title="A bar is counted, then what you play is compared with what is written"
      onclick={() => trying.try('check')}>Test my playing</button
    >
  {/if}
  <ListenButton
    {ear}
    {settings}
    {mistakes}
    {onmistakes}
    recording="this lick"
    onrecording={judge}
  />
  <HeardNow {ear} {chord} />
  {#if ear.problem ?? ear.says}
    <span class="font-semibold text-now-text" role="status">{ear.problem ?? ear.says}</span>
  {/if}
  {#if trying.found}
    <p role="status" data-checked={trying.found.right}>
      {checkedSays(trying.found)}
      {#each wrong as { index, verdict } (index)}
        <span class="ml-1 whitespace-nowrap text-ink-soft"
          >{showSymbol(where(index))}: {verdict}.</span
        >
      {/each}
    </p>
  {/if}
</div>
