<!--
  The plan on one page: the form with what is played and landed on over every chord, and the zone of
  the neck for each chord that differs. Made when it is printed, as small as one page asks.
-->
<script lang="ts">
  import { group } from '$core/lists';
  import { flushSync } from 'svelte';
  import { nextChange } from '$core/chart/form';
  import { notesIn } from '$core/neck/zones';
  import { sayChange } from '$core/targets/changes';
  import { solveRoutes } from '$core/targets/route';
  import IntentMark from '$lib/frame/IntentMark.svelte';
  import { nameInRoom, showMaterial } from '$lib/frame/material';
  import PrintHeading from '$lib/frame/PrintHeading.svelte';
  import { windowAround } from '$lib/neck/layout';
  import NeckPicture from '$lib/neck/NeckPicture.svelte';
  import { plainMarks } from '$lib/neck/plain';
  import { routeRequest } from '$lib/study/routes';
  import { getStudy } from '$lib/study/study.svelte';
  import { showNote, showOver, showSymbol } from '$lib/ui/glyphs';

  const study = getStudy();

  /** The room of a page between its margins, in pixels, of the lower of the usual papers. */
  const PAGE = { width: 700, height: 950 } as const;
  /** Room of a bar of the form, four beside one another. */
  const BAR_WIDTH = 172;

  /** Necks beside one another: the fewest, so the largest, with which all is on one page. */
  const COLUMNS = [4, 5, 6, 7, 8] as const;
  /** A long form is written smaller besides. */
  const SCALES = [1, 0.85, 0.7, 0.55] as const;

  let printing = $state(false);
  let columns = $state<number>(COLUMNS[0]);
  let scale = $state<number>(SCALES[0]);
  let page = $state<HTMLElement>();

  const naming = $derived(study.settings.current.modeNames);
  const stops = $derived.by(() => {
    if (!printing) return [];
    const { chosen } = study.plan.targets;
    const routes = solveRoutes({ ...routeRequest(study), count: chosen + 1 });
    return (routes[chosen] ?? routes[0])?.stops ?? [];
  });
  const byBar = $derived(group(study.planned, ({ bar }) => bar));
  /** The chords of the form, each once, with what is played over it first. */
  const distinct = $derived(
    study.planned.filter(
      ({ chord }, index, all) =>
        printing && all.findIndex((one) => one.chord.symbol === chord.symbol) === index,
    ),
  );
  /** What a change does, as it is said on Plan. */
  function changeAfter(index: number): string {
    const [now, to] = [study.planned[index], study.chart && nextChange(study.chart, index)];
    const next = typeof to === 'number' ? study.planned[to] : undefined;
    if (!now || !next) return '';
    const [clause] = sayChange(now.chord, next.chord, {
      target: stops[next.index] ?? null,
    }).clauses;
    return clause ? showSymbol(`To ${next.chord.symbol}: ${clause.text} ${clause.goal}.`) : '';
  }
  const frets = $derived(windowAround(study.neck, study.zone));

  function begin() {
    printing = true;
    for (const size of SCALES) {
      for (const many of COLUMNS) {
        scale = size;
        columns = many;
        flushSync();
        if ((page?.offsetHeight ?? 0) * size <= PAGE.height) return;
      }
    }
  }
</script>

<svelte:window onbeforeprint={begin} onafterprint={() => (printing = false)} />

{#if printing && study.chart}
  <!-- With its heading, which the screen has not: it takes room of the page. -->
  <div
    bind:this={page}
    class="fixed top-0 -left-[200vw] print:static [&>header]:block"
    style:width="{PAGE.width / scale}px"
    style:zoom={scale}
    data-plan-paper
  >
    <PrintHeading
      what="The plan: what to play, how much of the change to say (three bars: outline, two: lean, one: coast), and the note to land on by string·fret"
      zone={study.zone}
    />
    <ol class="mt-2 grid grid-cols-4">
      {#each study.chart.bars as bar, index (bar.number)}
        {@const section = study.chart.source.sections[bar.section]}
        {@const before = study.chart.bars[index - 1]}
        {@const begins = before?.section !== bar.section || before.pass !== bar.pass}
        <li
          class="flex border-l px-1 pb-1 {begins
            ? 'border-l-2 border-ink'
            : 'border-line-strong'} {before?.section === bar.section ? '' : 'col-start-1'}"
        >
          {#each byBar.get(bar.number) ?? [] as planned (planned.index)}
            {@const stop = stops[planned.index]}
            <div class="min-w-0 text-[10px]/[12px]" style:flex="{planned.beats} 1 0">
              <p class="text-[9px]">
                {bar.number}{#if begins && section?.name}&nbsp;<b>{section.name}</b>{/if}
              </p>
              <p class="heading text-[15px]/[18px]">{showSymbol(planned.chord.symbol)}</p>
              <p class="whitespace-nowrap">
                {nameInRoom(
                  showMaterial(planned.material, naming),
                  (BAR_WIDTH * planned.beats) / bar.beats / scale - 6,
                )}
              </p>
              <p class="flex items-center gap-1 whitespace-nowrap">
                <IntentMark intent={planned.intent} />{#if stop}
                  {showOver(planned.chord, stop.degree)}
                  {showNote(stop.note)}
                  {stop.string}·{stop.fret}{/if}
              </p>
            </div>
          {/each}
        </li>
      {/each}
    </ol>
    <div
      class="mt-2 grid gap-x-3 gap-y-1 border-t border-ink pt-2"
      style:grid-template-columns="repeat({columns}, minmax(0, 1fr))"
    >
      {#each distinct as { chord, material, index } (index)}
        {@const shape = notesIn(study.neck, chord, material.notes, study.zone)}
        <figure class="break-inside-avoid">
          <figcaption class="flex items-baseline gap-2 text-[10px]">
            <span class="heading text-sm">{showSymbol(chord.symbol)}</span>
            <span class="whitespace-nowrap"
              >{nameInRoom(showMaterial(material, naming), PAGE.width / scale / columns - 60)}</span
            >
          </figcaption>
          <p class="text-[9px]/[11px]">{changeAfter(index)}</p>
          <NeckPicture
            neck={study.neck}
            marks={plainMarks(chord, shape?.places ?? [], { labels: 'degree' })}
            shape={study.zone}
            {frets}
            leftHanded={study.instrument.leftHanded}
            label="{showSymbol(chord.symbol)}: {showSymbol(material.name)}"
          />
        </figure>
      {/each}
    </div>
  </div>
{/if}
