<!-- Every shape of one chord: pick one and the zone of Plan goes there. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { page } from '$app/state';
  import { type Chord, chordName } from '$core/chords/chords';
  import { modeFor } from '$core/lenses/modes';
  import { morphsOn } from '$core/neck/homes';
  import { fitZone } from '$core/neck/neck';
  import { createDocument } from '$lib/charts/document.svelte';
  import { DOT_LABEL_NAMES, DOT_LABELS, type DotLabels, dotsOver } from '$lib/neck/dots';
  import NeckPicture from '$lib/neck/NeckPicture.svelte';
  import { readPlace } from '$lib/plan/place';
  import { createSession } from '$lib/plan/session.svelte';
  import type { ChartDocument } from '$lib/server/charts';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { showDegree, showSymbol } from '$lib/ui/glyphs';
  import { shapesOf } from './shapes';

  interface Props {
    readonly stored: ChartDocument;
    readonly settings: StoredSettings;
  }

  let { stored, settings: storedSettings }: Props = $props();

  const settings = untrack(() => createSettings(storedSettings));
  const session = untrack(() =>
    createSession(createDocument(stored.id, stored), settings, readPlace(page.url)),
  );
  let labels = $state<DotLabels>('degree');
  /** Step of the morph; null shows the chart's own chord. */
  let morphing = $state<number | null>(null);

  const own = $derived(session.now?.chord ?? null);
  const morphs = $derived(own ? morphsOn(own.root) : []);
  const morph = $derived(morphing === null ? undefined : morphs[morphing]);
  const chord = $derived<Chord | null>(morph?.chord ?? own);
  const mode = $derived(
    chord === null
      ? null
      : morph || !session.mode
        ? modeFor({ chord, next: null, key: null, blues: false })
        : session.mode,
  );
  const groups = $derived(
    chord && mode
      ? shapesOf(session.neck, chord, mode, settings.current.boxNames, session.zone)
      : [],
  );

  function step(by: number) {
    const last = morphs.length - 1;
    const from = morphing ?? (by > 0 ? -1 : morphs.length);
    morphing = Math.max(0, Math.min(last, from + by));
  }

  const planAt = (low: number, high: number): string => {
    const zone = fitZone(session.neck, low, high);
    return `/plan/${stored.id}?at=${(session.now?.index ?? 0) + 1}&zone=${zone.low}-${zone.high}`;
  };
</script>

<svelte:head
  ><title>Shapes of {chord ? showSymbol(chordName(chord)) : stored.title} – Corvel</title
  ></svelte:head
>

<main class="mx-auto flex max-w-[100rem] flex-col gap-4 px-4 py-4">
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    <h1 class="heading text-2xl">Shapes of {chord ? showSymbol(chordName(chord)) : ''}</h1>
    <a class="underline" href={planAt(session.zone.low, session.zone.high)}
      >Back to {stored.title}</a
    >
    <label class="ml-auto flex items-center gap-2 text-sm">
      Chord
      <select
        class="field"
        value={String(session.now?.index ?? 0)}
        onchange={(event) => {
          morphing = null;
          session.go(Number(event.currentTarget.value));
        }}
      >
        {#each session.planned as { index, chord: one, bar } (index)}
          <option value={String(index)}>{bar}: {showSymbol(one.symbol)}</option>
        {/each}
      </select>
    </label>
    <Choice
      label="Labels"
      value={labels}
      options={DOT_LABELS.map((one) => [one, DOT_LABEL_NAMES[one]] as const)}
      onchange={(picked) => (labels = picked)}
    />
  </div>

  <div
    class="flex flex-wrap items-center gap-2 text-sm"
    role="group"
    aria-label="Morph the quality"
  >
    <span class="text-ink-soft">One note at a time</span>
    <button class="button" onclick={() => step(-1)} disabled={morphing === 0}>Back</button>
    {#each morphs as { chord: one, moved }, index (one.symbol)}
      <button
        class="button {index === morphing ? 'border-ink font-bold' : ''}"
        aria-pressed={index === morphing}
        onclick={() => (morphing = index === morphing ? null : index)}
      >
        {showSymbol(one.symbol)}{moved === null ? '' : ` (${showDegree(moved)})`}
      </button>
    {/each}
    <button class="button" onclick={() => step(1)} disabled={morphing === morphs.length - 1}
      >On</button
    >
  </div>

  {#each groups as { title, shapes } (title)}
    <section aria-label={title}>
      <h2 class="heading mb-2 border-t border-line pt-3 text-lg">{showSymbol(title)}</h2>
      <div class="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-x-4 gap-y-3">
        {#each shapes as { name, places, zone, joined, stretch, blue } (`${name} ${zone.low} ${places[0]?.string ?? ''} ${places[0]?.fret ?? ''} ${places[1]?.fret ?? ''}`)}
          <a
            class="block rounded-sm p-1 hover:bg-sheet"
            href={planAt(zone.low, zone.high)}
            title="Take the zone of Plan there"
          >
            <span class="block text-sm">
              {showSymbol(name)}{#if stretch}<span class="text-ink-soft">, a stretch</span>{/if}
            </span>
            {#if chord}
              <NeckPicture
                neck={session.neck}
                dots={dotsOver(chord, places, { labels, moved: morph?.moved ?? null, blue })}
                shape={zone}
                leftHanded={session.instrument.leftHanded}
                label="{name}, frets {zone.low} to {zone.high}"
                {joined}
              />
            {/if}
          </a>
        {/each}
      </div>
    </section>
  {/each}
</main>
