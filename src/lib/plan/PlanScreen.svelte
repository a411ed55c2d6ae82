<!-- Plan: the form, the neck, and the change between now and next. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import type { Mark } from '$core/neck/marks';
  import { INTENTS } from '$core/lenses/lens';
  import { LENSES, type Lens } from '$core/lenses/table';
  import Frame from '$lib/frame/Frame.svelte';
  import OnlyChoice from '$lib/frame/OnlyChoice.svelte';
  import type { Actions } from '$lib/frame/shortcuts';
  import { GUIDE_TONE_SAYS, ZONE_SAYS } from '$lib/frame/words';
  import { LABEL_NAMES, LABELS } from '$lib/neck/labels';
  import { speakMark } from '$lib/neck/speech';
  import { setIntent } from '$lib/study/edits';
  import { addressOf, type Editing, readEditing, writeEditing } from '$lib/study/place';
  import { getStudy } from '$lib/study/study.svelte';
  import { LANE_VIEWS, onlyAfter } from '$lib/study/view';
  import { showBox, showBoxInFull } from '$lib/ui/boxes';
  import Choice from '$lib/ui/Choice.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import ChordPanels from './ChordPanels.svelte';
  import LayersMenu from './LayersMenu.svelte';
  import { createPlanModel, setPlanModel } from './model.svelte';
  import PlanNeck from './PlanNeck.svelte';
  import PlanTools from './PlanTools.svelte';
  import StylesMenu from './StylesMenu.svelte';
  import ZoneMap from './ZoneMap.svelte';

  const study = getStudy();
  const model = setPlanModel(createPlanModel(study));
  const { document, settings } = study;

  let editing = $state<Editing>(readEditing(page.url));
  let detailed = $state(false);
  let spelled = $state(false);
  let zonesShown = $state(false);
  let styled = $state(false);
  /** The lens whose answers are shown; the best of all when null. */
  let lens = $state<Lens | null>(null);
  let read = $state.raw<Mark | null>(null);
  /** A note of the neck from which ways onward are shown; it is of one chord only. */
  let picked = $state.raw<{ readonly index: number; readonly mark: Mark } | null>(null);
  const pickedHere = $derived(picked?.index === study.now?.index ? (picked?.mark ?? null) : null);

  let settled = $state(false);
  onMount(() => {
    const timer = setTimeout(() => (settled = true), 1_500);
    return () => clearTimeout(timer);
  });

  /** The bar the editing of bars begins at, and the place in it. */
  let begin = $state.raw(untrack(() => model.writtenAt(study.nowIndex)));

  function edit(mode: Editing) {
    editing = editing === mode ? null : mode;
    replaceState(writeEditing(page.url, editing), {});
  }

  /** Opens the bars for editing, at the chord sounding now or at the one asked for. */
  function editBars(index = study.nowIndex) {
    begin = model.writtenAt(index);
    edit('bars');
  }

  /** The next of some values in turn; the first after the last. */
  const following = <T,>(values: readonly T[], value: T): T | undefined =>
    values[(values.indexOf(value) + 1) % values.length];

  function nextIntent() {
    const { chart, now, nowIndex } = study;
    const intent = following(INTENTS, now?.intent ?? 'lean');
    if (chart && intent) study.edit(setIntent(chart, nowIndex, intent, 'chord'));
  }

  async function transpose(halfSteps: number) {
    const { shiftChart } = await import('$core/chart/rewrite');
    const text = shiftChart(document.text, halfSteps, study.key);
    if (text !== null) document.edit({ text });
  }

  function chooseZone(number: number) {
    const zone = study.zones[number - 1];
    if (zone) study.chooseZone(zone);
  }

  const actions: Actions = {
    wholeNeck: model.toggleWhole,
    zone1: () => chooseZone(1),
    zone2: () => chooseZone(2),
    zone3: () => chooseZone(3),
    zone4: () => chooseZone(4),
    zone5: () => chooseZone(5),
    zones: () => (zonesShown = true),
    ownPentatonic: () => model.chooseLens('own-pentatonic'),
    chordTones: () => model.chooseLens('chord-tones'),
    nextLens: () => (lens = following([null, ...LENSES], lens) ?? null),
    intent: nextIntent,
    styles: () => (styled = true),
    targets: () => study.look({ targets: !study.view.targets }),
    practice: () => void goto(addressOf(study.id, 'practice', study.place)),
    crossing: () =>
      study.look({ crossing: study.view.crossing === 'chords' ? 'choices' : 'chords' }),
    lane: () => study.look({ lane: following(LANE_VIEWS, study.view.lane) ?? 'none' }),
    labels: () => study.look({ labels: following(LABELS, study.view.labels) ?? 'degree' }),
    names: () => study.look({ names: study.view.names === 'symbols' ? 'numerals' : 'symbols' }),
    modeNames: () =>
      settings.change({ modeNames: settings.current.modeNames === 'mode' ? 'parent' : 'mode' }),
    layerBox: () => model.toggleLayer('box'),
    layerScale: () => model.toggleLayer('scale'),
    layerArpeggio: () => model.toggleLayer('arpeggio'),
    layerTriad: () => model.toggleLayer('triad'),
    layerGrip: () => model.toggleLayer('grip'),
    layerHome: () => model.toggleLayer('home'),
    only: () => study.look({ only: onlyAfter(study.view.only) }),
    oneOctave: () => study.look({ oneOctave: !study.view.oneOctave }),
    spelling: () => (spelled = true),
    details: () => (detailed = true),
    editBars: () => editBars(),
    editText: () => edit('text'),
    transposeUp: () => void transpose(1),
    transposeDown: () => void transpose(-1),
  };

  const around = $derived(
    study.now ? { now: study.now.chord, next: study.next?.chord ?? null } : null,
  );
  /** The shapes on the neck in words. */
  const shapesShown = $derived(
    model.layers.map(({ name, box }) =>
      showSymbol(box ? `${name}: ${showBox(box, settings.current.boxNames)}` : name),
    ),
  );
</script>

{#snippet barsEditor()}
  <!-- Large, and not needed to read a chart: it comes when it is opened. -->
  {#await import('./Workbench.svelte')}
    <p class="text-ink-soft">Opening the bars…</p>
  {:then { default: Bench }}
    <Bench {document} {begin} onclose={() => edit(null)} />
  {:catch}
    <p class="text-now-text">The bars could not be opened. The text can still be edited.</p>
  {/await}
{/snippet}

{#snippet textEditor()}
  {#await import('./EditorPanel.svelte') then { default: EditorPanel }}
    <EditorPanel
      text={document.text}
      problems={study.problems}
      shown={study.shownInstead}
      onedit={(text) => document.edit({ text }, 'text')}
      onundo={document.undo}
      onredo={document.redo}
      onclose={() => edit(null)}
    />
  {:catch}
    <p class="text-now-text">The text could not be opened. Try again in a moment.</p>
  {/await}
{/snippet}

<!-- Only needed when it is printed: it waits until the page has nothing else to do. -->
{#if settled}
  {#await import('./PlanPaper.svelte') then { default: PlanPaper }}<PlanPaper />{/await}
{/if}

<Frame
  screen="plan"
  name="Plan"
  {actions}
  typing={editing === 'bars'}
  fitted={editing === null}
  lane={model.lane}
  instead={editing === 'bars' && study.chart ? barsEditor : null}
  beside={editing === 'text' ? textEditor : null}
  onedit={(index) => editBars(index)}
  ontext={() => edit('text')}
>
  {#snippet tools()}
    <PlanTools {editing} bind:detailed ontext={() => edit('text')} onbars={() => editBars()} />
  {/snippet}

  {#snippet neck()}
    <div class="relative shrink-0 print:hidden">
      <PlanNeck
        onread={(mark) => (read = mark)}
        onpick={(mark) => (picked = study.now ? { index: study.now.index, mark } : null)}
      />
      {#if pickedHere}
        {#await import('./FromHere.svelte') then { default: FromHere }}
          {#key pickedHere}
            <FromHere mark={pickedHere} onclose={() => (picked = null)} />
          {/key}
        {/await}
      {/if}
      <div class="flex flex-wrap items-center justify-end gap-x-2 gap-y-1">
        <p class="mr-auto min-w-0 flex-1 text-sm max-lg:basis-full lg:truncate" data-readout>
          {#if read && around}{speakMark(read, around)}{:else}<span class="text-ink-soft">
              {#if shapesShown.length > 0}
                <span
                  title={model.layers.map(({ box }) => (box ? showBoxInFull(box) : '')).join(' ')}
                >
                  {shapesShown.join(' · ')}
                </span>
              {:else}
                <span class="lg:max-xl:hidden">Filled: now. Ringed: next.</span> Largest:
                <button class="underline decoration-dotted" data-explain={GUIDE_TONE_SAYS}
                  >guide tones</button
                >.
              {/if}
            </span>{/if}
        </p>
        <StylesMenu bind:open={styled} />
        <OnlyChoice />
        <label class="text-sm">
          <span class="sr-only">Labels</span>
          <select
            class="field"
            title="Labels (L)"
            value={study.view.labels}
            onchange={(event) => {
              const labels = LABELS.find((one) => one === event.currentTarget.value);
              if (labels) study.look({ labels });
            }}
          >
            {#each LABELS as labels (labels)}<option value={labels}>{LABEL_NAMES[labels]}</option
              >{/each}
          </select>
        </label>
        <LayersMenu />
        <ZoneMap bind:open={zonesShown} />
        <Choice
          label="Show"
          value={model.whole ? 'whole' : 'zone'}
          options={[
            ['zone', 'Zone', ZONE_SAYS],
            ['whole', 'Whole neck'],
          ]}
          onchange={model.toggleWhole}
        />
      </div>
    </div>
  {/snippet}

  {#if study.plan.setAside.length > 0}
    {#await import('./SetAsideNotice.svelte') then { default: SetAsideNotice }}
      <SetAsideNotice />
    {/await}
  {/if}

  {#if study.now && study.chart}
    <ChordPanels chart={study.chart} bind:spelled bind:lens />
  {/if}
</Frame>
