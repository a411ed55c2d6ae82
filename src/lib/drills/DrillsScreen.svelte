<!-- Drills: one question, the neck, an answer by click, by key or by playing; ten cards and no score. -->
<script lang="ts">
  import Ear from '@lucide/svelte/icons/ear';
  import Volume from '@lucide/svelte/icons/volume-2';
  import { onDestroy, tick, untrack } from 'svelte';
  import { DRILL_WORDS } from '$core/drills/kinds';
  import { modulo } from '$core/lists';
  import { BEAT, noteName } from 'corvel-core';
  import { inZone, placesOfPitch } from '$core/neck/neck';
  import { tempoMap } from '$core/time/tempo';
  import { programmeOf, type SoundEvent } from '$lib/audio/programme';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import Keys from '$lib/frame/Keys.svelte';
  import { createBlock } from '$lib/log/block.svelte';
  import SessionBar from '$lib/log/SessionBar.svelte';
  import { createEar } from '$lib/listening/ear.svelte';
  import { instrumentOf, neckOf, type StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { asTyped, showSymbol } from '$lib/ui/glyphs';
  import { askAnew } from '$lib/ui/anew';
  import DrillNeck from './DrillNeck.svelte';
  import DrillsChoice, { type DrillChart } from './DrillsChoice.svelte';
  import { answerKeys, keyOf } from './keys';
  import DrillsOver from './DrillsOver.svelte';
  import type { DrillCard, Wanted } from './cards';
  import { createSitting, NOTES, type Texts } from './sitting.svelte';

  interface Props {
    readonly cards: readonly DrillCard[];
    readonly texts: Texts;
    /** The charts that can be asked about, and what was asked for. */
    readonly charts: readonly DrillChart[];
    readonly wanted: Wanted;
    readonly settings: StoredSettings;
  }

  let { cards, texts, charts, wanted, settings: stored }: Props = $props();

  const settings = untrack(() => createSettings(stored));
  const instrument = $derived(instrumentOf(settings.current, null));
  const neck = $derived(neckOf(instrument));
  const transport = pageTransport();
  const ear = createEar(settings);
  const sitting = createSitting(() => ({ cards, texts, neck }));
  const { answer, choose } = sitting;
  const { card, drill, options, answered, right } = $derived(sitting);
  const block = createBlock(() => card !== null);
  onDestroy(() => {
    transport.stop();
    ear.close();
    sitting.end();
  });

  const questions = $derived(drill ? [{ question: drill, index: sitting.index }] : []);
  const keys = $derived(
    drill && drill.asks !== 'places' ? answerKeys(options, drill.asks, asTyped) : [],
  );

  async function next() {
    transport.stop();
    sitting.next();
    await tick();
    document.querySelector<HTMLElement>('[data-drill] h2')?.focus();
  }

  const BPM = 100;
  function hear() {
    if (!drill || drill.heard.length === 0) return;
    const events = drill.heard.flatMap((chord, place): SoundEvent[] => {
      // The question stands apart from its cadence.
      const last = place === drill.heard.length - 1;
      const beat = (2 * place + (last ? 1 : 0)) * BEAT;
      return chord.map((midi) => ({
        part: 'comp' as const,
        beat,
        beats: last ? 3 * BEAT : (9 * BEAT) / 5,
        midi,
        velocity: 0.6,
      }));
    });
    const length = (2 * drill.heard.length + 3) * BEAT;
    const tempo = tempoMap([{ beat: 0, bpm: BPM }]);
    void transport.play(programmeOf(events, { length, tempo }), { parts: ['comp'] });
  }
  $effect(() => {
    if (drill && drill.heard.length > 0 && sitting.index > 0) untrack(hear);
  });

  // What is played answers: a note by its sound, places one after another.
  let heardUntil = 0;
  $effect(() => {
    const { sounding } = ear;
    if (!sounding || answered || sounding.at <= heardUntil) return;
    untrack(() => {
      if (!drill) return;
      heardUntil = sounding.at;
      const midi = Math.round(sounding.pitch);
      if (drill.asks === 'note') {
        const note = NOTES[modulo(midi, 12)];
        if (note !== undefined) answer({ note });
      } else if (drill.asks === 'places') {
        const found = placesOfPitch(neck, midi).find(({ fret }) => inZone(drill.zone, fret));
        if (found && !sitting.isChosen(found)) sitting.toggle(found);
      }
    });
  });

  let width = $state(1200);

  function onkeydown(event: KeyboardEvent) {
    const { key, target, ctrlKey, metaKey, altKey } = event;
    if (ctrlKey || metaKey || altKey || event.defaultPrevented) return;
    const button =
      target instanceof Element && target.closest('button, a, [role="button"], select');
    if (!drill) {
      if (sitting.count > 0 && key === ' ' && !button) {
        event.preventDefault();
        void askAnew();
      }
      return;
    }
    if (answered && (key === ' ' || key === 'Enter') && !button) {
      event.preventDefault();
      void next();
    } else if (!answered && key === 'Enter' && drill.asks === 'places' && !button)
      answer({ places: sitting.places });
    else if (!answered && options.length > 0 && key !== ' ' && !button) {
      const pressed = keyOf(event);
      const chosen = keys.findIndex(
        (one) => one.key === pressed.key && one.shift === pressed.shift,
      );
      const option = options[chosen];
      if (option !== undefined) choose(option);
    } else if (key === ' ' && drill.heard.length > 0 && !button) {
      event.preventDefault();
      hear();
    }
  }

  /** On the neck Space chooses a place; Enter says that these are all, as it does elsewhere. */
  function onkeydowncapture(event: KeyboardEvent) {
    const onNeck = event.target instanceof Element && event.target.closest('[data-mark]');
    if (event.key !== 'Enter' || !onNeck || answered || drill?.asks !== 'places') return;
    event.preventDefault();
    event.stopPropagation();
    answer({ places: sitting.places });
  }

  const source = $derived(card?.chart ? (texts[card.chart]?.title ?? '') : 'general');
</script>

<svelte:window {onkeydown} {onkeydowncapture} />
<Keys actions={{ nextBlock: block?.goOn }} {settings} />

<main class="grid content-start gap-4 p-4" bind:clientWidth={width}>
  <div class="flex flex-wrap items-baseline gap-x-4">
    <h1 class="heading text-xl">Drills</h1>
    {#if card}
      <p class="text-sm text-ink-soft" data-card={card.kind}>
        {DRILL_WORDS[card.kind]} · {source} · card {sitting.index + 1} of {sitting.count}
      </p>
      <button
        class="button-quiet ml-auto text-sm"
        aria-pressed={ear.state === 'hearing'}
        onclick={ear.toggle}
        title="Answer by playing"
        ><Ear size={15} aria-hidden="true" />{ear.state === 'hearing'
          ? 'Listening'
          : 'Answer by playing'}</button
      >
    {/if}
  </div>
  {#if block}
    <SessionBar place={block} />
  {:else}
    <DrillsChoice {charts} {wanted} />
  {/if}
  {#if ear.problem}<p class="text-sm text-now-text" role="status">{ear.problem}</p>{/if}

  <!-- What is drawn of a question keeps its question until it is gone. -->
  {#each questions as { question, index } (index)}
    <div data-drill>
      <h2 class="heading text-2xl outline-none" tabindex="-1">{showSymbol(question.prompt)}</h2>
    </div>
    {#if question.heard.length > 0}
      <button class="button-strong justify-self-start" onclick={hear}
        ><Volume size={16} aria-hidden="true" />Hear it (Space)</button
      >
    {:else}
      <DrillNeck drill={question} {sitting} {neck} leftHanded={instrument.leftHanded} {width} />
    {/if}
    {#if question.asks === 'places'}
      {#if !answered}
        <button
          class="button-strong justify-self-start"
          onclick={() => answer({ places: sitting.places })}>Done (Enter)</button
        >
      {/if}
    {:else}
      <div class="flex flex-wrap gap-2" role="group" aria-label="Answers">
        {#each options as option, place (option)}
          <button
            class="button min-h-11 min-w-12 text-base disabled:opacity-60 {answered &&
            (option === question.answer.choice ||
              option === question.answer.degree ||
              (question.answer.note !== undefined && option === noteName(question.answer.note)))
              ? 'border-2 border-ink font-bold'
              : ''}"
            disabled={answered}
            onclick={() => choose(option)}
            ><kbd class="mr-1 text-xs text-ink-soft">{keys[place]?.shown}</kbd>{showSymbol(
              option,
            )}</button
          >
        {/each}
      </div>
    {/if}
    <div
      aria-live="polite"
      class="min-h-20"
      data-answer={answered ? (right ? 'right' : 'wrong') : undefined}
    >
      {#if answered}
        <p class="text-lg">
          <strong>{right ? 'Right.' : 'Not this time.'}</strong>
          {showSymbol(question.sentence)}
        </p>
        <button class="button-strong mt-2" onclick={() => void next()}
          >{sitting.index + 1 < sitting.count ? 'Next' : 'Done'} (Space)</button
        >
      {/if}
    </div>
  {:else}
    {#if sitting.count === 0}
      <p>
        Nothing is due: you have met every card, and each comes back on its day. Choose a kind of
        question above to go on.
      </p>
    {:else}
      <DrillsOver {sitting} {texts} />
    {/if}
  {/each}
</main>
