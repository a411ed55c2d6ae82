<!-- One lick: written as tablature, read, heard, moved, and found in the charts. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Stop from '@lucide/svelte/icons/square';
  import Undo from '@lucide/svelte/icons/undo-2';
  import { onDestroy, onMount, untrack } from 'svelte';
  import { bandOf, feelFor } from '$core/band/band';
  import type { Chart, Passage } from 'corvel-core';
  import { bandForm } from '$core/band/form';
  import { bandUnder } from '$core/band/room';
  import { type Lick, lickOfPassage } from '$core/licks/lick';
  import { lickExercise, zoneOfLick } from '$core/licks/moving';
  import type { LickChain } from '$core/licks/moving';
  import { stringCount } from '$core/neck/neck';
  import { zonesOf } from '$core/neck/zones';
  import { zoneTonic } from '$core/chart/form';
  import { readFeel } from '$core/time/feel';
  import { feelAt } from '$core/time/swing';
  import { DEFAULT_TEMPO } from '$core/time/tempo';
  import type { Mistakes } from '$core/listening/simulated';
  import {
    bandEvents,
    lineEvents,
    passageProgramme,
    programmeOf,
    type SoundEvent,
  } from '$lib/audio/programme';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import PassageFiles from '$lib/notation/PassageFiles.svelte';
  import { createEar } from '$lib/listening/ear.svelte';
  import { playsSimulated } from '$lib/listening/guitarist.svelte';
  import HeardMark from '$lib/listening/HeardMark.svelte';
  import CareNotice from '$lib/log/CareNotice.svelte';
  import { keepsStints } from '$lib/log/keeper.svelte';
  import { NO_CHART } from '$lib/log/messages';
  import { layOut, measuresIn } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import { createWires } from '$lib/neck/wires.svelte';
  import Notation from '$lib/notation/Notation.svelte';
  import { momentAt, momentsOf, soundingAt } from '$lib/notation/moments';
  import { instrumentOf, neckOf } from '$lib/settings/settings';
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { inform } from '$lib/ui/messages.svelte';
  import { createLickEditing } from './editing.svelte';
  import { lickMarks } from './marks';
  import LickHearing from './LickHearing.svelte';
  import LickMoves from './LickMoves.svelte';
  import LickReading from './LickReading.svelte';
  import LickWords from './LickWords.svelte';
  import type { StoredLick } from './messages';
  import PastedTablature from './PastedTablature.svelte';
  import TabGrid from './TabGrid.svelte';
  import TakeHead from './TakeHead.svelte';
  import { createTrying } from './trying.svelte';
  import { barsOf } from './words';

  interface Props {
    readonly lick: StoredLick;
    readonly settings: SettingsStore;
    /** Another lick is to be made, and opened. */
    readonly onnew: (lick: Lick) => void;
  }

  let { lick: stored, settings, onnew }: Props = $props();

  const instrument = $derived(instrumentOf(settings.current, null));
  const neck = $derived(neckOf(instrument));
  const editing = createLickEditing(
    untrack(() => stored),
    () => neck,
  );
  onMount(() => void editing.resume());
  onDestroy(editing.leave);
  const transport = pageTransport();
  onDestroy(transport.stop);

  let speed = $state(1);
  let band = $state(false);
  let staff = $state(false);
  /** An exercise made of the lick, shown in its place. */
  let chain = $state<LickChain | null>(null);
  const SPEEDS = [0.25, 0.5, 0.75, 1, 1.25] as const;

  const zones = $derived.by(() => {
    const { key, chart } = editing;
    const tonic = chart && zoneTonic(chart, key);
    return tonic === null ? [] : zonesOf(neck, tonic);
  });
  const exercise = $derived.by((): Passage | null => {
    const { chart, key, lick, notes } = editing;
    if (chain === null || !chart || chart.chords.length === 0 || notes.length === 0) return null;
    return lickExercise(neck, { title: lick.title, chart, key, notes }, chain, zones);
  });
  const passage = $derived(exercise ?? editing.passage);
  const moments = $derived(passage ? momentsOf(passage) : []);
  const moment = $derived(momentAt(moments, transport.beat));
  const sounding = $derived(passage ? soundingAt(passage, moment) : []);

  /** The feel of the band and of the lick over it, at the tempo it is played at. */
  const feelHere = ({ source }: Chart) =>
    feelAt(feelFor(readFeel(source.feel), source.time), (source.tempo ?? DEFAULT_TEMPO) * speed);

  /** The band over the lick's chords: it leaves the lick its room. */
  function bandHere(loops: boolean): readonly SoundEvent[] {
    const { chart, notes } = editing;
    if (!chart) return [];
    const feel = feelHere(chart);
    const played = bandOf(bandForm(chart), { feel: feel.kind, loops, seed: 1, answers: true });
    return bandEvents(bandUnder(played, notes), feel, chart.source.time);
  }

  function play() {
    if (!passage) return;
    const { chart } = editing;
    if (band && chart && !exercise) {
      const events = [...bandHere(true), ...lineEvents({ ...passage, feel: feelHere(chart) })];
      const { tempo, start, length } = passageProgramme(passage, speed);
      const programme = programmeOf(events, { tempo, start, length, ends: null });
      void transport.play(programme, { parts: ['line', 'bass', 'comp', 'drums'] });
      return;
    }
    void transport.play(passageProgramme(passage, speed), { parts: ['line'] });
  }

  const ear = createEar(untrack(() => settings));
  onDestroy(ear.close);
  const trying = createTrying({
    editing,
    ear,
    band: () => (band ? bandHere(false) : []),
    speed: () => speed,
    onwritten: (count) => {
      if (count === 0) inform('No notes were heard: nothing was changed.');
      else inform(`${count === 1 ? 'One note is' : `${count} notes are`} written down.`);
    },
    onchecked: ({ notes, right }) => keeper.heard({ asked: notes.length, landed: right }),
  });
  let mistakes = $state<Mistakes>('none');
  playsSimulated(ear, () => mistakes, trying.toBePlayed);

  export function toggle() {
    if (trying.purpose !== null) trying.stop();
    else if (transport.playing) transport.stop();
    else play();
  }
  export const listen = () => ear.toggle();

  const keeper = keepsStints(() =>
    transport.playing && passage
      ? {
          chart: stored.takeOf ?? NO_CHART,
          exercise: 'lick',
          zone: zone ?? { low: 0, high: neck.frets },
          extent: 'form',
          tempo: (passage.tempo ?? DEFAULT_TEMPO) * speed,
        }
      : null,
  );
  export const inList = () => editing.inList;
  export const undo = () => editing.undo();
  export const redo = () => editing.redo();

  // What plays is what is written, at the speed that is set.
  $effect(() => {
    void [passage, speed, band];
    untrack(() => {
      if (transport.playing && trying.purpose === null) play();
    });
  });

  let width = $state(900);
  const zone = $derived(zoneOfLick(neck, editing.notes));
  const wires = createWires(() => ({ neck, focus: zone }));
  const layout = $derived(
    layOut(neck, {
      ...measuresIn({ width, height: null }, stringCount(neck)),
      leftHanded: instrument.leftHanded,
      wires: wires.current,
      ...(zone ? { played: zone } : {}),
    }),
  );
  const marks = $derived(lickMarks(editing.reading?.notes ?? [], editing.chart, sounding));

  /** What was read becomes this lick while it is empty, else another. */
  function take(read: Passage) {
    const made = lickOfPassage(read, 'mine');
    const chart = read.chords.length > 0 ? made.chart : editing.lick.chart;
    if (editing.lick.notes.length === 0)
      editing.change({ ...made, chart, tags: editing.lick.tags });
    else onnew({ ...made, chart });
  }

  /** Whether its words are open for editing: a lick without a note yet begins with them. */
  let described = $state(untrack(() => editing.lick.notes.length === 0 && stored.takeOf === null));
  const says = $derived(
    [
      showSymbol(barsOf(editing.lick.chart)),
      editing.lick.tags.join(', '),
      editing.lick.source === 'mine' ? '' : `source: ${editing.lick.source}`,
    ]
      .filter(Boolean)
      .join(' · '),
  );

  let pasted = $state('');
  let pasting = $state(false);
  const STATES = {
    saved: 'Saved',
    saving: 'Saving…',
    away: 'The server does not answer. Kept in this browser.',
    conflict: 'Changed elsewhere',
  } as const;
</script>

<svelte:window onpagehide={editing.leave} />

<div class="flex min-h-0 min-w-0 flex-1 flex-col gap-2 overflow-y-auto p-3 [scrollbar-width:thin]">
  <div class="flex flex-wrap items-center gap-2">
    <h2 class="min-w-40 flex-1 max-sm:basis-full">
      <button
        class="flex w-full min-w-0 items-baseline gap-2 rounded-sm text-left hover:bg-line/50"
        aria-expanded={described}
        aria-controls="lick-words"
        title="Title, chords, tags and source"
        data-lick-words
        onclick={() => (described = !described)}
      >
        <span
          class="heading max-w-[75%] shrink-0 truncate text-xl max-xl:max-w-full max-xl:shrink print:max-w-full"
          >{editing.lick.title || 'Untitled lick'}</span
        >
        <!-- Where there is little room it goes to the title: its chords stand over the notes. -->
        <span
          class="min-w-0 truncate text-sm text-ink-soft not-print:max-xl:hidden print:whitespace-normal"
          >{says}</span
        >
        <span class="text-sm text-ink-soft print:hidden" aria-hidden="true"
          >{described ? '▴' : '▾'}</span
        >
      </button>
    </h2>
    <span class="text-sm text-ink-soft print:hidden" role="status" data-save={editing.state}
      >{editing.state !== 'saved' && !editing.keepsDrafts
        ? 'Not saved: keep this page open.'
        : STATES[editing.state]}</span
    >
    <button
      class="button-quiet"
      aria-label="Undo"
      disabled={!editing.canUndo}
      onclick={editing.undo}><Undo size={16} aria-hidden="true" /></button
    >
    <button
      class="button-quiet"
      aria-label="Redo"
      disabled={!editing.canRedo}
      onclick={editing.redo}><Redo size={16} aria-hidden="true" /></button
    >
    <button class="button-strong" onclick={toggle} title="Play or stop (Space)">
      {#if transport.playing}<Stop size={15} aria-hidden="true" />Stop{:else}<Play
          size={15}
          aria-hidden="true"
        />Play{/if}
    </button>
    <label class="flex items-center gap-1 text-sm">
      <input type="checkbox" name="band" bind:checked={band} />With the band
    </label>
    <label class="text-sm">
      <span class="sr-only">Speed</span>
      <select class="field" name="speed" bind:value={speed}>
        {#each SPEEDS as one (one)}<option value={one}>{one * 100} %</option>{/each}
      </select>
    </label>
  </div>
  {#if described}<LickWords id="lick-words" {editing} />{/if}
  {#if stored.takeOf !== null}
    <TakeHead take={stored} lick={editing.lick} onlick={onnew} />
  {/if}
  {#if editing.problem}
    <p class="text-sm font-semibold text-now-text" role="status">{editing.problem}</p>
  {/if}
  {#if transport.playing && transport.silent}
    <p class="text-sm font-semibold text-now-text" role="status">{transport.silent}</p>
  {/if}

  <CareNotice playing={transport.playing} />
  <TabGrid {editing} beat={exercise ? null : moment} checked={trying.found} />
  <div class="shrink-0 overflow-x-auto" bind:clientWidth={width} role="group" aria-label="Neck">
    <Neck
      class="min-w-2xl"
      {neck}
      {layout}
      {marks}
      label="The lick on the neck"
      {zone}
      shaded
      leftHanded={instrument.leftHanded}
    >
      {#snippet over()}
        <HeardMark {neck} {zone} {layout} pitch={ear.sounding?.pitch ?? null} />
      {/snippet}
    </Neck>
  </div>
  <div class="flex flex-wrap items-center gap-2 text-sm">
    <LickHearing
      {editing}
      {ear}
      {settings}
      {trying}
      {mistakes}
      onmistakes={(to) => (mistakes = to)}
    />
    <label class="flex items-center gap-1">
      <input type="checkbox" name="staff" bind:checked={staff} />Staff
    </label>
    <PassageFiles {passage} {neck} what="a lick" id="lick-file" onopen={take} />
    <button class="button-quiet" aria-expanded={pasting} onclick={() => (pasting = !pasting)}
      >Paste tablature</button
    >
  </div>
  {#if pasting}
    <PastedTablature
      {neck}
      bind:text={pasted}
      onread={(read) => {
        take(read);
        pasting = false;
      }}
    />
  {/if}
  <div class="grid gap-x-6 gap-y-3 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <LickReading {editing} />
    <LickMoves {editing} {zones} bind:chain {onnew} />
  </div>
  {#if (staff || exercise) && passage && passage.notes.length > 0}
    <section aria-label="Staff and tablature">
      {#if exercise}<h3 class="heading">{exercise.title}</h3>{/if}
      <Notation {passage} beat={moment} degrees />
    </section>
  {/if}
</div>
