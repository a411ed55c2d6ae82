<!--
  The whole chart in one region: a small neck for each chord in order, so that the eye sees the
  shapes breathe as the chords pass. It prints, and downloads as a picture.
-->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import Printer from '@lucide/svelte/icons/printer';
  import { untrack } from 'svelte';
  import { toast } from 'svelte-sonner';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { sameChord } from '$core/chords/chords';
  import { arpeggio, matchingPentatonic } from '$core/lenses/material';
  import { modeAt } from '$core/lenses/modes';
  import type { Zone } from '$core/neck/neck';
  import {
    chordTonesIn,
    MATERIALS,
    pentatonicIn,
    scaleIn,
    type ZoneMaterial,
  } from '$core/neck/zones';
  import { collectionName } from '$core/collections/collections';
  import { createDocument } from '$lib/charts/document.svelte';
  import { fileName } from '$lib/charts/files';
  import { DOT_LABEL_NAMES, DOT_LABELS, type DotLabels, dotsOver } from '$lib/neck/dots';
  import { windowAround } from '$lib/neck/layout';
  import NeckPicture from '$lib/neck/NeckPicture.svelte';
  import { readPlace } from '$lib/plan/place';
  import { createSession, type PlannedChord } from '$lib/plan/session.svelte';
  import type { ChartDocument } from '$lib/server/charts';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { showBox } from '$lib/ui/boxes';
  import { download } from '$lib/ui/download';
  import { showSymbol } from '$lib/ui/glyphs';
  import { picturesAsSvg, svgAsPng } from './pictures';

  interface Props {
    readonly stored: ChartDocument;
    readonly settings: StoredSettings;
  }

  let { stored, settings: storedSettings }: Props = $props();

  const settings = untrack(() => createSettings(storedSettings));
  const session = untrack(() =>
    createSession(createDocument(stored.id, stored), settings, readPlace(page.url)),
  );

  let material = $state<ZoneMaterial>('matching-pentatonic');
  let labels = $state<DotLabels>('degree');
  let everyZone = $state(page.url.searchParams.get('rows') === 'all');
  let sheet = $state<HTMLElement>();

  /** Chords in order; one that only goes on is not drawn again. */
  const chords = $derived(
    session.planned.filter(({ chord }, index) => {
      const before = session.planned[index - 1];
      return !before || !sameChord(before.chord, chord);
    }),
  );
  const rows = $derived<readonly Zone[]>(everyZone ? session.zones : [session.zone]);

  const MATERIAL_NAMES: Readonly<Record<ZoneMaterial, string>> = {
    'matching-pentatonic': 'Pentatonics',
    mode: 'Modes',
    'chord-tones': 'Chord tones',
  };

  function shapeIn({ chord, index }: PlannedChord, zone: Zone) {
    const { neck, chart, reading } = session;
    const pentatonic = matchingPentatonic(chord);
    const mode = chart && reading ? modeAt(chart, reading, index) : null;
    if (material === 'chord-tones') {
      return { name: arpeggio(chord).name, shape: chordTonesIn(neck, chord, pentatonic, zone) };
    }
    if (material === 'mode' && mode) {
      return { name: collectionName(mode), shape: scaleIn(neck, mode, zone) };
    }
    return { name: collectionName(pentatonic), shape: pentatonicIn(neck, pentatonic, zone) };
  }

  /** The same stretch of neck in every picture of a row, so that only the shapes move. */
  function windowOf(zone: Zone): Zone {
    const shapes = chords.flatMap((chord) => shapeIn(chord, zone).shape ?? []);
    const low = Math.min(zone.low, ...shapes.map((shape) => shape.low));
    const high = Math.max(zone.high, ...shapes.map((shape) => shape.high));
    return windowAround(session.neck, { low, high });
  }

  function choose(zone: Zone) {
    session.setZone(zone);
    const url = new URL(page.url);
    url.searchParams.set('zone', `${zone.low}-${zone.high}`);
    replaceState(url, {});
  }

  const heading = $derived(
    everyZone ? 'all five zones' : `frets ${session.zone.low} to ${session.zone.high}`,
  );

  async function save(kind: 'svg' | 'png') {
    if (!sheet) return;
    const svg = picturesAsSvg(sheet, `${stored.title}, ${heading}`);
    if (kind === 'svg') {
      download(new File([svg], fileName(stored.text, 'svg'), { type: 'image/svg+xml' }));
      return;
    }
    const png = await svgAsPng(svg);
    if (png) download(new File([png], fileName(stored.text, 'png'), { type: 'image/png' }));
    else toast.error('The browser could not draw the picture.');
  }
</script>

<svelte:head><title>{stored.title}, {heading} – Corvel</title></svelte:head>

<main class="mx-auto flex max-w-[100rem] flex-col gap-3 px-4 py-4 print:p-0">
  <div class="flex flex-wrap items-baseline gap-x-4">
    <h1 class="heading text-2xl">{stored.title}</h1>
    <p>{heading}, {MATERIAL_NAMES[material].toLowerCase()}</p>
    <a
      class="underline print:hidden"
      href="/plan/{stored.id}?zone={session.zone.low}-{session.zone.high}">Back to Plan</a
    >
  </div>
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2 text-sm print:hidden">
    <div class="flex items-center gap-1" role="group" aria-label="Zone">
      {#each session.zones as zone (zone.low)}
        {@const here =
          !everyZone && zone.low === session.zone.low && zone.high === session.zone.high}
        <button
          class="button px-2 {here ? 'border-ink font-bold' : ''}"
          aria-pressed={here}
          onclick={() => {
            everyZone = false;
            choose(zone);
          }}>{zone.low}–{zone.high}</button
        >
      {/each}
      <button
        class="button px-2 {everyZone ? 'border-ink font-bold' : ''}"
        aria-pressed={everyZone}
        onclick={() => (everyZone = !everyZone)}>All five</button
      >
    </div>
    <Choice
      label="Material"
      bare
      value={material}
      options={MATERIALS.map((one) => [one, MATERIAL_NAMES[one]] as const)}
      onchange={(picked) => (material = picked)}
    />
    <Choice
      label="Labels"
      bare
      value={labels}
      options={DOT_LABELS.map((one) => [one, DOT_LABEL_NAMES[one]] as const)}
      onchange={(picked) => (labels = picked)}
    />
    <div class="ml-auto flex gap-1">
      <button class="button" onclick={() => window.print()}>
        <Printer size={15} aria-hidden="true" />Print
      </button>
      <button class="button" onclick={() => save('svg')}>
        <Download size={15} aria-hidden="true" />SVG
      </button>
      <button class="button" onclick={() => save('png')}>
        <Download size={15} aria-hidden="true" />PNG
      </button>
    </div>
  </div>

  <div bind:this={sheet} data-region>
    {#each rows as zone (zone.low)}
      {@const frets = windowOf(zone)}
      {#if everyZone}
        <h2 class="heading mt-4 border-t border-line pt-2 text-lg">
          Frets {zone.low} to {zone.high}
        </h2>
      {/if}
      <div
        class="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-x-4 gap-y-2 print:grid-cols-4 print:gap-x-3"
      >
        {#each chords as planned (planned.index)}
          {@const { name, shape } = shapeIn(planned, zone)}
          {#if shape}
            <figure
              class="break-inside-avoid"
              data-caption="{planned.bar}  {showSymbol(planned.chord.symbol)}  {showBox(
                shape.box,
                settings.current.boxNames,
              )}"
            >
              <figcaption class="flex items-baseline gap-2">
                <span class="text-xs text-ink-soft">{planned.bar}</span>
                <span class="heading text-lg">{showSymbol(planned.chord.symbol)}</span>
                <span class="ml-auto truncate text-xs text-ink-soft" title={showSymbol(name)}>
                  {showBox(shape.box, settings.current.boxNames)}{shape.outside.length > 0
                    ? `, ${shape.outside.length} outside`
                    : ''}
                </span>
              </figcaption>
              <NeckPicture
                neck={session.neck}
                dots={dotsOver(planned.chord, shape.places, { labels, blue: shape.blue })}
                shape={zone}
                {frets}
                leftHanded={session.instrument.leftHanded}
                label="{planned.chord.symbol}: {name}"
              />
            </figure>
          {/if}
        {/each}
      </div>
    {/each}
  </div>
</main>
