<!--
  The whole chart in one zone: a small neck for each chord in order, so that the eye sees the
  shapes breathe as the chords pass. It prints, and downloads as a picture.
-->
<script lang="ts">
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { chordName, placesOf, type Zone } from 'corvel-core';
  import { sameChord } from '$core/chords/chords';
  import { modeAt } from '$core/lenses/modes';
  import { type Placed, spanOf } from '$core/neck/fingering';
  import { type RouteStop, solveRoutes } from '$core/targets/route';
  import { showMaterial } from '$lib/frame/material';
  import { degreesShown, onlyAfter, ONLY_NAMES } from '$lib/study/view';
  import { routeRequest } from '$lib/study/routes';
  import { sameZone } from '$core/neck/neck';
  import { withDegrees } from '$core/neck/only';
  import { layOutIn, MATERIALS, notesIn, type ZoneMaterial } from '$core/neck/zones';
  import {
    INVERSION_NAMES,
    openName,
    stringSets,
    twinOf,
    VOICING_KINDS,
    type VoicingKind,
    voicingPath,
  } from '$core/neck/voicings';
  import { PLAIN_LABEL_NAMES, PLAIN_LABELS, type PlainLabels, plainMarks } from '$lib/neck/plain';
  import { windowAround } from '$lib/neck/layout';
  import NeckPicture from '$lib/neck/NeckPicture.svelte';
  import type { PlannedChord } from '$lib/study/choices';
  import PrintHeading from '$lib/frame/PrintHeading.svelte';
  import Frame from '$lib/frame/Frame.svelte';
  import { paperItems } from '$lib/frame/menu';
  import OnlyChoice from '$lib/frame/OnlyChoice.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { showBox } from '$lib/settings/boxes';
  import { showSymbol } from '$lib/ui/glyphs';
  import { counted } from '$core/words';

  const study = getStudy();
  const { settings } = study;

  /** Stock materials laid out in the zone, or voicings led from chord to chord. */
  type RegionMaterial = 'choices' | ZoneMaterial | VoicingKind;
  const REGION_MATERIALS: readonly RegionMaterial[] = ['choices', ...MATERIALS, ...VOICING_KINDS];
  const voicingKind = (picked: RegionMaterial): VoicingKind | null =>
    VOICING_KINDS.find((kind) => kind === picked) ?? null;

  const ANY_SET = 'any, in the zone';

  let material = $state<RegionMaterial>('matching-pentatonic');
  let strings = $state<readonly number[] | null>(null);
  const kind = $derived(voicingKind(material));
  const sets = $derived(kind ? stringSets(study.neck, kind) : []);
  /** The set in the middle where none is picked. */
  const set = $derived(
    sets.find((one) => one.join() === strings?.join()) ?? sets[Math.floor(sets.length / 2)] ?? [],
  );
  /** Whether a way may change its set of strings, to stay in the zone. */
  let anySet = $state(false);
  let labels = $state<PlainLabels>('degree');
  let everyZone = $state(page.url.searchParams.get('rows') === 'all');

  /** Voicings are led from chord to chord and targets are of their place: these are drawn in order. */
  const ordered = $derived(kind !== null || study.view.only === 'targets');
  const alike = (one: PlannedChord, other: PlannedChord) =>
    sameChord(one.chord, other.chord) &&
    (material !== 'choices' || one.material.name === other.material.name);
  /** What is drawn: each chord once, with the bars it stands in; in order, one that only goes on is not drawn again. */
  const drawn = $derived.by(() => {
    const found: { readonly planned: PlannedChord; readonly bars: number[] }[] = [];
    for (const planned of study.planned) {
      const known = ordered
        ? [found.at(-1)].find((last) => last && sameChord(last.planned.chord, planned.chord))
        : found.find((one) => alike(one.planned, planned));
      if (!known) found.push({ planned, bars: [planned.bar] });
      else if (!known.bars.includes(planned.bar)) known.bars.push(planned.bar);
    }
    return found;
  });
  const chords = $derived(drawn.map(({ planned }) => planned));
  const rows = $derived<readonly Zone[]>(everyZone ? study.zones : [study.zone]);

  const MATERIAL_NAMES: Readonly<Record<RegionMaterial, string>> = {
    choices: 'My choices',
    'matching-pentatonic': 'Pentatonics',
    mode: 'Modes',
    'chord-tones': 'Chord tones',
    triad: 'Triads',
    'drop-2': 'Drop 2',
    'drop-3': 'Drop 3',
  };

  /** What is drawn of a chord in a zone. */
  interface Laid {
    readonly name: string;
    /** What stands over the picture. */
    readonly caption: string;
    readonly places: readonly Placed[];
    readonly blue: readonly Placed[];
    readonly joined: boolean;
  }

  /** Voicings are led from chord to chord, beginning nearest to the zone. */
  const voiced = $derived.by(() => {
    const { neck } = study;
    const led = (zone: Zone) =>
      kind
        ? voicingPath(
            neck,
            chords.map(({ chord }) => chord),
            anySet
              ? { kind, strings: null, path: 'nearest', within: zone }
              : { kind, strings: set, path: 'nearest', near: zone },
          )
        : [];
    return new Map(rows.map((zone) => [zone, led(zone)]));
  });

  /** The targets of the whole form, as they lie best in a zone. */
  const targetsIn = (zone: Zone) => targetsBy.get(zone) ?? [];
  const targetsBy = $derived.by(() => {
    if (study.view.only !== 'targets') return new Map<Zone, readonly RouteStop[]>();
    const request = (zone: Zone) => ({ ...routeRequest(study), zone, count: 1 });
    return new Map(rows.map((zone) => [zone, solveRoutes(request(zone))[0]?.stops ?? []]));
  });

  function laidIn(planned: PlannedChord, zone: Zone): Laid | null {
    const { neck, chart, reading } = study;
    const { chord, index } = planned;
    if (kind) {
      const step = voiced.get(zone)?.find((one) => chords[one.index] === planned);
      if (!step) return null;
      const twin = kind === 'triad' ? null : twinOf(chord, step);
      const open = openName(neck, chord, step);
      const name = `${open === null ? '' : `${showSymbol(open)}, `}${INVERSION_NAMES[step.inversion]}`;
      const also = twin ? ` = ${showSymbol(chordName(twin.chord))}` : '';
      return { name, caption: name + also, places: step.places, blue: [], joined: true };
    }
    const { only } = study.view;
    const chosen = planned.material;
    if (only === 'targets') {
      const stop = targetsIn(zone)[index];
      const places = stop ? [{ string: stop.string, fret: stop.fret, note: stop.note }] : [];
      return { name: 'target', caption: '', places, blue: [], joined: false };
    }
    const degrees = degreesShown(only);
    if (degrees) {
      const notes = withDegrees(chord, [], degrees);
      const places = placesOf(neck, notes, zone);
      const name = ONLY_NAMES[only].toLowerCase();
      return {
        name,
        caption: places.length === 0 ? 'none here' : '',
        places,
        blue: [],
        joined: false,
      };
    }
    if (material === 'choices') {
      const shape = notesIn(neck, chord, chosen.notes, zone);
      const name = showMaterial(chosen, settings.current.modeNames);
      return shape && { name, caption: name, places: shape.places, blue: [], joined: false };
    }
    const mode = chart && reading ? modeAt(chart, reading, index) : null;
    const stock = MATERIALS.find((one) => one === material);
    const laid = mode && stock ? layOutIn(neck, { chord, mode }, stock, zone) : null;
    if (!laid) return null;
    const { box, outside, places, blue } = laid.shape;
    const beyond = outside.length > 0 ? `, ${counted(outside.length, 'note')} outside` : '';
    const caption = showBox(box, settings.current.boxNames) + beyond;
    return { name: laid.name, caption, places, blue, joined: false };
  }

  /** The same stretch of neck in every picture of a row, so that only the shapes move. */
  function windowOf(zone: Zone): Zone {
    const places = chords.flatMap((chord) => laidIn(chord, zone)?.places ?? []);
    const { low, high } = spanOf([...places, { string: 1, fret: zone.low }]);
    return windowAround(study.neck, { low, high: Math.max(high, zone.high) });
  }

  function showAll(all: boolean) {
    everyZone = all;
    const url = new URL(page.url);
    if (all) url.searchParams.set('rows', 'all');
    else url.searchParams.delete('rows');
    replaceState(url, {});
  }

  function choose(zone: Zone) {
    showAll(false);
    study.chooseZone(zone);
  }

  /** Few pictures grow no wider than this, in rem. */
  const WIDEST = 22;

  const barsName = (bars: readonly number[]): string =>
    `${bars.length === 1 ? 'bar' : 'bars'} ${bars.join(', ')}`;

  const heading = $derived(
    everyZone ? 'all five zones' : `zone ${study.zone.low}–${study.zone.high}`,
  );

  const title = () => `${study.title}, ${heading}`;
  const save = async (kind: 'svg' | 'png') =>
    (await import('$lib/paper/save')).savePrintedPicture(title(), kind);
</script>

<Frame
  screen="region"
  name="Overview"
  heading="{heading}, {MATERIAL_NAMES[material].toLowerCase()}"
  actions={{ only: () => study.look({ only: onlyAfter(study.view.only) }) }}
  fitted
  shut
  menu={[
    ...paperItems(title),
    { name: 'Save as a picture (SVG)', run: () => void save('svg') },
    { name: 'Save as a picture (PNG)', run: () => void save('png') },
  ]}
>
  <div class="flex shrink-0 flex-wrap items-center gap-x-2 gap-y-1 text-sm print:hidden">
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label="Zone">
      {#each study.zones as zone (zone.low)}
        {@const here = !everyZone && sameZone(zone, study.zone)}
        <button
          class="button px-2 {here ? 'border-ink font-bold' : ''}"
          aria-pressed={here}
          onclick={() => choose(zone)}>{zone.low}–{zone.high}</button
        >
      {/each}
      <button
        class="button px-2 {everyZone ? 'border-ink font-bold' : ''}"
        aria-pressed={everyZone}
        onclick={() => showAll(!everyZone)}>All five</button
      >
    </div>
    <Choice
      label="Material"
      bare
      value={material}
      options={REGION_MATERIALS.map((one) => [one, MATERIAL_NAMES[one]] as const)}
      onchange={(picked) => (material = picked)}
    />
    {#if kind}
      <Choice
        label="Strings"
        bare
        value={anySet ? ANY_SET : set.join(' ')}
        options={[ANY_SET, ...sets.map((one) => one.join(' '))].map((one) => [one, one] as const)}
        onchange={(picked) => {
          anySet = picked === ANY_SET;
          strings = sets.find((one) => one.join(' ') === picked) ?? strings;
        }}
      />
    {/if}
    <Choice
      label="Labels"
      bare
      value={labels}
      options={PLAIN_LABELS.map((one) => [one, PLAIN_LABEL_NAMES[one]] as const)}
      onchange={(picked) => (labels = picked)}
    />
    <OnlyChoice />
  </div>

  <PrintHeading what="{MATERIAL_NAMES[material]}, {heading}" zone={everyZone ? null : study.zone} />
  <!-- Scrolled with the keys as well. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="min-h-60 flex-1 overflow-y-auto [scrollbar-width:thin] print:overflow-visible"
    role="region"
    aria-label="The chart in the zone"
    tabindex="0"
    data-region
  >
    {#each rows as zone (zone.low)}
      {@const frets = windowOf(zone)}
      {#if everyZone}
        <h2 class="heading mt-4 border-t border-line pt-2 text-lg">
          Zone {zone.low}–{zone.high}
        </h2>
      {/if}
      <div
        class="grid grid-cols-[repeat(auto-fit,minmax(13rem,1fr))] gap-x-4 gap-y-2 print:max-w-none! print:grid-cols-3 print:gap-x-3"
        style:max-width="{WIDEST * drawn.length}rem"
      >
        {#each drawn as { planned, bars } (planned.index)}
          {@const laid = laidIn(planned, zone)}
          {#if laid}
            {@const { name, caption, places, blue, joined } = laid}
            <figure
              class="flex break-inside-avoid flex-col"
              data-caption="{bars[0]}  {showSymbol(planned.chord.symbol)}  {caption}"
            >
              <figcaption class="flex grow flex-wrap content-start items-baseline gap-x-2">
                <span class="heading text-lg whitespace-nowrap"
                  >{showSymbol(planned.chord.symbol)}</span
                >
                <span class="text-xs text-ink-soft">{barsName(bars)}</span>
                <span
                  class="ml-auto shrink-0 truncate text-xs text-ink-soft"
                  title={showSymbol(name)}
                >
                  {caption}
                </span>
              </figcaption>
              <NeckPicture
                neck={study.neck}
                marks={plainMarks(planned.chord, places, { labels, blue })}
                {joined}
                shape={zone}
                {frets}
                leftHanded={study.instrument.leftHanded}
                label="{showSymbol(planned.chord.symbol)}: {name}"
              />
            </figure>
          {/if}
        {/each}
      </div>
    {/each}
  </div>
</Frame>
