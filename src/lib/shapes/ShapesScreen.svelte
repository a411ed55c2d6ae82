<!-- Every shape of one chord: pick one and the zone of Plan goes there. -->
<script lang="ts">
  import { type Chord, chordName } from 'corvel-core';
  import { alone } from '$core/lenses/modeContext';
  import { modeAt, modeFor } from '$core/lenses/modes';
  import { morphsOn } from '$core/neck/homes';
  import { fitZone } from '$core/neck/neck';
  import Frame from '$lib/frame/Frame.svelte';
  import { paperItems } from '$lib/frame/menu';
  import PrintHeading from '$lib/frame/PrintHeading.svelte';
  import { PLAIN_LABEL_NAMES, PLAIN_LABELS, type PlainLabels, plainMarks } from '$lib/neck/plain';
  import { addressOf } from '$lib/study/place';
  import { getStudy } from '$lib/study/study.svelte';
  import NeckPicture from '$lib/neck/NeckPicture.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { showDegree, showSymbol } from '$lib/ui/glyphs';
  import { shapesOf } from './shapes';

  const study = getStudy();
  const { settings } = study;
  let labels = $state<PlainLabels>('degree');
  /** Step of the morph; null shows the chart's own chord. */
  let morphing = $state<number | null>(null);

  const own = $derived(study.now?.chord ?? null);
  const morphs = $derived(own ? morphsOn(own.root) : []);
  const morph = $derived(morphing === null ? undefined : morphs[morphing]);
  const chord = $derived<Chord | null>(morph?.chord ?? own);
  const ownMode = $derived(
    study.chart && study.reading ? modeAt(study.chart, study.reading, study.nowIndex) : null,
  );
  const mode = $derived(
    chord === null ? null : morph || !ownMode ? modeFor(alone(chord)) : ownMode,
  );
  const groups = $derived(
    chord && mode ? shapesOf(study.neck, chord, mode, settings.current.boxNames, study.zone) : [],
  );

  function step(by: number) {
    const last = morphs.length - 1;
    const from = morphing ?? (by > 0 ? -1 : morphs.length);
    morphing = Math.max(0, Math.min(last, from + by));
  }

  const planAt = (low: number, high: number): string =>
    addressOf(study.id, '', { index: study.nowIndex, zone: fitZone(study.neck, low, high) });

  // A morph is of one chord.
  $effect(() => {
    void study.nowIndex;
    morphing = null;
  });
</script>

<Frame
  screen="shapes"
  name="Shapes of {chord ? showSymbol(chordName(chord)) : ''}"
  heading="Shapes of {chord ? showSymbol(chordName(chord)) : ''}: pick one"
  actions={{}}
  menu={paperItems(() => `${study.title}, shapes of ${chord ? chordName(chord) : ''}`)}
>
  <PrintHeading what="Shapes of {chord ? showSymbol(chordName(chord)) : ''}" zone={null} />
  <div
    class="flex flex-wrap items-center gap-2 text-sm print:hidden"
    role="group"
    aria-label="Change the quality one note at a time"
  >
    <span class="text-ink-soft">One note at a time</span>
    <button class="button" onclick={() => step(-1)} disabled={morphing === 0}
      >Previous quality</button
    >
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
      >Next quality</button
    >
    <div class="ml-auto">
      <Choice
        label="Labels"
        value={labels}
        options={PLAIN_LABELS.map((one) => [one, PLAIN_LABEL_NAMES[one]] as const)}
        onchange={(picked) => (labels = picked)}
      />
    </div>
  </div>

  <!-- It stays in sight, so that each kind is one press away. -->
  <nav
    class="sticky top-0 z-10 flex flex-wrap gap-x-1 bg-paper py-1 text-sm print:hidden"
    aria-label="Kinds of shape"
    data-shapes
  >
    {#each groups as { title }, place (title)}
      <a
        class="flex min-h-8 items-center rounded-sm px-2 underline decoration-line-strong underline-offset-4 hover:bg-line pointer-coarse:min-h-11"
        href="#kind-{place}">{showSymbol(title)}</a
      >
    {/each}
  </nav>
  {#each groups as { title, shapes }, place (title)}
    <section id="kind-{place}" aria-label={title} class="scroll-mt-12">
      <h2 class="heading mb-2 break-after-avoid border-t border-line pt-3 text-lg">
        {showSymbol(title)}
      </h2>
      <div class="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-x-4 gap-y-3">
        {#each shapes as { name, places, zone, joined, stretch, blue, ground } (`${name} ${zone.low} ${places[0]?.string ?? ''} ${places[0]?.fret ?? ''} ${places[1]?.fret ?? ''}`)}
          <a
            class="block break-inside-avoid rounded-sm p-1 hover:bg-sheet"
            href={planAt(zone.low, zone.high)}
            title="Go to this zone on Plan"
          >
            <span class="block text-sm">
              {showSymbol(name)}{#if stretch}<span class="text-ink-soft">, a stretch</span>{/if}
            </span>
            {#if chord}
              <NeckPicture
                neck={study.neck}
                marks={plainMarks(chord, places, {
                  labels,
                  moved: morph?.moved ?? null,
                  blue,
                  ground,
                })}
                shape={zone}
                leftHanded={study.instrument.leftHanded}
                label="{name}, frets {zone.low} to {zone.high}"
                {joined}
              />
            {/if}
          </a>
        {/each}
      </div>
    </section>
  {/each}
</Frame>
