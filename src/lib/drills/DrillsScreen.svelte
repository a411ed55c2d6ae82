<!-- Drills: one question, the neck, an answer by click, by key or by playing; ten cards and no score. -->
<script lang="ts">
  import Ear from '@lucide/svelte/icons/ear';
  import Volume from '@lucide/svelte/icons/volume-2';
  import { onDestroy, tick, untrack } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import { readChart } from '$core/chart/form';
  import {
    type Drill,
    DRILL_WORDS,
    type DrillAnswer,
    isRight,
    makeDrill,
  } from '$core/drills/drills';
  import { readHarmony } from '$core/harmony/reading';
  import { modulo, range } from '$core/lists';
  import {
    inZone,
    type Place,
    placeId,
    placesOfPitch,
    samePlace,
    stringCount,
  } from '$core/neck/neck';
  import { type Note, noteName, parseNote } from '$core/notes/notes';
  import { tempoMap } from '$core/time/tempo';
  import { programmeOf, type SoundEvent } from '$lib/audio/programme';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import Keys from '$lib/frame/Keys.svelte';
  import { createEar } from '$lib/listening/ear.svelte';
  import { addStint } from '$lib/log/api';
  import { localMoment, NO_CHART, STINT } from '$lib/log/messages';
  import type { DrawnMark } from '$lib/neck/drawn';
  import { atWidth, layOut } from '$lib/neck/layout';
  import Neck from '$lib/neck/Neck.svelte';
  import { instrumentOf, neckOf, type StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { warn } from '$lib/ui/messages.svelte';
  import { succeeds } from '$lib/ui/server';
  import { createWires } from '$lib/neck/wires.svelte';

  interface Card {
    readonly id: string;
    readonly kind: Drill['kind'];
    readonly chart: string | null;
    readonly zone: { readonly low: number; readonly high: number };
    readonly seed: number;
    readonly met: boolean;
  }

  interface Props {
    readonly cards: readonly Card[];
    readonly texts: Readonly<Record<string, { readonly title: string; readonly text: string }>>;
    readonly settings: StoredSettings;
  }

  let { cards, texts, settings: stored }: Props = $props();

  const settings = untrack(() => createSettings(stored));
  const instrument = $derived(instrumentOf(settings.current, null));
  const neck = $derived(neckOf(instrument));
  const transport = pageTransport();
  const ear = createEar(settings);
  onDestroy(() => {
    transport.stop();
    ear.close();
    log();
  });

  let index = $state(0);
  const card = $derived(cards[index] ?? null);
  const drill = $derived.by((): Drill | null => {
    if (!card) return null;
    const read = card.chart === null ? null : readChart(texts[card.chart]?.text ?? '');
    const chart = read?.ok ? read.chart : null;
    return makeDrill(card.kind, card.seed, {
      ...{ neck, zone: card.zone, chords: chart?.chords ?? [] },
      key: chart ? readHarmony(chart).key.key : null,
    });
  });

  let places = $state.raw<readonly Place[]>([]);
  let given = $state.raw<DrillAnswer | null>(null);
  const answered = $derived(given !== null);
  const right = $derived(drill !== null && given !== null && isRight(drill, given));
  /** What came back right, and what did not, of this sitting. */
  let outcome = $state.raw<readonly { readonly card: Card; readonly right: boolean }[]>([]);
  const began = performance.now();
  const at = localMoment();
  let logged = false;

  /** A sitting of half a minute and more is a stint. */
  function log() {
    const minutes = (performance.now() - began) / 60_000;
    const first = cards[0];
    const count = outcome.length;
    if (logged || count === 0 || minutes < STINT.least || !first) return;
    logged = true;
    const chart = cards.find((one) => one.chart !== null)?.chart ?? NO_CHART;
    void addStint({
      ...{
        at,
        chart,
        exercise: 'drills',
        zone: first.zone,
        extent: 'form',
        tempo: 1,
        tempoFrom: 1,
      },
      ...{ minutes: Math.min(STINT.most, minutes), asked: count, note: '' },
      landed: outcome.filter((one) => one.right).length,
    });
  }

  const NOTES: readonly Note[] = [
    'C',
    'Db',
    'D',
    'Eb',
    'E',
    'F',
    'Gb',
    'G',
    'Ab',
    'A',
    'Bb',
    'B',
  ].flatMap((name) => parseNote(name) ?? []);
  const LETTERS = 'qwertyuiopas';
  const options = $derived(
    drill === null || drill.asks === 'places'
      ? []
      : drill.asks === 'note'
        ? NOTES.map(noteName)
        : (drill.choices ?? []),
  );
  const keyOf = (place: number) =>
    options.length > 9 ? (LETTERS[place] ?? '') : String(place + 1);

  function answer(to: DrillAnswer) {
    if (answered || !drill || !card) return;
    given = to;
    const good = isRight(drill, to);
    outcome = [...outcome, { card, right: good }];
    void succeeds('/api/cards', 'POST', { id: card.id, right: good }).then((kept) => {
      if (!kept) warn('The answer could not be kept.');
    });
  }

  function choose(option: string) {
    if (!drill) return;
    if (drill.asks === 'note') {
      const note = parseNote(option);
      answer(note === null ? {} : { note });
    } else answer(drill.asks === 'degree' ? { degree: option } : { choice: option });
  }

  function toggle(place: Place) {
    if (answered || drill?.asks !== 'places') return;
    const { string, fret } = place;
    places = places.some((one) => samePlace(one, place))
      ? places.filter((one) => !samePlace(one, place))
      : [...places, { string, fret }];
  }

  async function next() {
    transport.stop();
    given = null;
    places = [];
    index += 1;
    if (index >= cards.length) log();
    await tick();
    document.querySelector<HTMLElement>('[data-drill] h2')?.focus();
  }

  const BPM = 100;
  function hear() {
    if (!drill || drill.heard.length === 0) return;
    const events = drill.heard.flatMap((chord, beat): SoundEvent[] => {
      // The question stands apart from its cadence.
      const last = beat === drill.heard.length - 1;
      const when = 2 * beat + (last ? 1 : 0);
      return chord.map((midi) => ({
        ...{ part: 'comp' as const, beat: when, beats: last ? 3 : 1.8, midi, velocity: 0.6 },
      }));
    });
    const length = 2 * drill.heard.length + 3;
    const tempo = tempoMap([{ beat: 0, bpm: BPM }]);
    void transport.play(programmeOf(events, { length, tempo }), { parts: ['comp'] });
  }
  $effect(() => {
    if (drill && drill.heard.length > 0 && index > 0) untrack(hear);
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
        if (found && !places.some((one) => samePlace(one, found))) toggle(found);
      }
    });
  });

  let width = $state(1200);
  const wires = createWires(() => ({ neck, focus: drill?.zone ?? { low: 0, high: neck.frets } }));
  const layout = $derived(
    layOut(neck, { ...atWidth(width), leftHanded: instrument.leftHanded, wires: wires.current }),
  );
  const marks = $derived.by((): readonly DrawnMark[] => {
    if (!drill) return [];
    const { low, high } = drill.zone;
    const wanted = drill.answer.places ?? [];
    const isIn = (list: readonly Place[], place: Place) =>
      list.some((one) => samePlace(one, place));
    return range(1, stringCount(neck) + 1).flatMap((string) =>
      range(Math.max(low, neck.capo), Math.min(high, neck.frets) + 1).flatMap(
        (fret): DrawnMark[] => {
          const place = { string, fret };
          if (isIn(drill.shown, place)) return [{ ...place, kind: 'asked', label: '?' }];
          if (answered && isIn(wanted, place))
            return [
              {
                ...place,
                kind: 'plain',
                weight: 'guide',
                changed: !isIn(places, place),
                label: '✓',
              },
            ];
          if (isIn(places, place))
            return [
              {
                ...place,
                kind: 'plain',
                weight: answered ? 'blue' : 'chord',
                changed: false,
                label: answered ? '✗' : '',
              },
            ];
          return drill.asks === 'places' && !answered
            ? [{ ...place, kind: 'ground', weight: 'colour', label: '' }]
            : [];
        },
      ),
    );
  });
  const speak = ({ string, fret }: DrawnMark) =>
    `string ${string}, ${fret === 0 ? 'open' : `fret ${fret}`}${places.some((one) => placeId(one) === placeId({ string, fret })) ? ', chosen' : ''}`;

  function onkeydown(event: KeyboardEvent) {
    const { key, target, ctrlKey, metaKey, altKey } = event;
    if (ctrlKey || metaKey || altKey || event.defaultPrevented || !drill) return;
    const button =
      target instanceof Element && target.closest('button, a, [role="button"], select');
    if (answered && (key === ' ' || key === 'Enter') && !button) {
      event.preventDefault();
      void next();
    } else if (!answered && key === 'Enter' && drill.asks === 'places' && !button)
      answer({ places });
    else if (!answered && options.length > 0) {
      const chosen = options[options.findIndex((_, place) => keyOf(place) === key)];
      if (chosen !== undefined) choose(chosen);
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
    answer({ places });
  }

  const source = $derived(card?.chart ? (texts[card.chart]?.title ?? '') : 'general');
  const missed = $derived(outcome.filter((one) => !one.right));
</script>

<svelte:window {onkeydown} {onkeydowncapture} />
<Keys actions={{}} {settings} />

<div class="grid content-start gap-4 p-4" bind:clientWidth={width}>
  <div class="flex flex-wrap items-baseline gap-x-4">
    <h1 class="heading text-xl">Drills</h1>
    {#if card}
      <p class="text-sm text-ink-soft" data-card={card.kind}>
        {DRILL_WORDS[card.kind]} · {source} · card {index + 1} of {cards.length}
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
  {#if ear.problem}<p class="text-sm text-now-text" role="status">{ear.problem}</p>{/if}

  {#if drill && card}
    <div data-drill>
      <h2 class="heading text-2xl" tabindex="-1">{showSymbol(drill.prompt)}</h2>
    </div>
    {#if drill.heard.length > 0}
      <button class="button-strong justify-self-start" onclick={hear}
        ><Volume size={16} aria-hidden="true" />Hear it (Space)</button
      >
    {:else}
      <div class="overflow-x-auto">
        <Neck
          class="min-w-2xl"
          {neck}
          {layout}
          {marks}
          label="Neck, frets {drill.zone.low} to {drill.zone.high}"
          zone={drill.zone}
          shaded
          leftHanded={instrument.leftHanded}
          {speak}
          onpick={toggle}
        />
      </div>
    {/if}
    {#if drill.asks === 'places'}
      {#if !answered}
        <button class="button-strong justify-self-start" onclick={() => answer({ places })}
          >That is all of them (Enter)</button
        >
      {/if}
    {:else}
      <div class="flex flex-wrap gap-2" role="group" aria-label="Answers">
        {#each options as option, place (option)}
          <button
            class="button min-h-11 min-w-12 text-base disabled:opacity-60 {answered &&
            (option === drill.answer.choice ||
              option === drill.answer.degree ||
              (drill.answer.note !== undefined && option === noteName(drill.answer.note)))
              ? 'border-2 border-ink font-bold'
              : ''}"
            disabled={answered}
            onclick={() => choose(option)}
            ><kbd class="mr-1 text-xs text-ink-soft">{keyOf(place)}</kbd>{showSymbol(
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
          {showSymbol(drill.sentence)}
        </p>
        <button class="button-strong mt-2" onclick={() => void next()}
          >{index + 1 < cards.length ? 'Next' : 'Done'} (Space)</button
        >
      {/if}
    </div>
  {:else if cards.length === 0}
    <p>Nothing is due: every card has been met and rests. Come back tomorrow, or play.</p>
  {:else}
    <section aria-labelledby="over" data-drills-over>
      <h2 id="over" class="heading text-2xl">
        {missed.length === 0
          ? 'All of it came back.'
          : `${outcome.length - missed.length} came back, ${missed.length} did not.`}
      </h2>
      {#if missed.length > 0}
        <p class="mt-1">These return sooner:</p>
        <ul class="list-disc pl-6">
          {#each missed as { card: one } (one.id)}
            <li>
              {DRILL_WORDS[one.kind]}, {one.chart ? (texts[one.chart]?.title ?? '') : 'general'}
            </li>
          {/each}
        </ul>
      {/if}
      <p class="mt-3 flex gap-2">
        <button class="button-strong" onclick={() => void invalidateAll()}>Ten more</button>
        <a class="button" href="/log">To the log</a>
      </p>
    </section>
  {/if}
</div>
