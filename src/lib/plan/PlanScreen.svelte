<!-- Plan: the form, the neck, and the change between now and next. -->
<script lang="ts">
  import { beforePaper } from '$lib/paper/prepared';
  import { onMount, untrack, tick } from 'svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import type { Mark } from '$core/neck/marks';
  import { INTENTS } from '$core/lenses/lens';
  import { changeSentence } from '$core/targets/changes';
  import { stringCount } from '$core/neck/neck';
  import ChangeLine from '$lib/frame/ChangeLine.svelte';
  import Frame from '$lib/frame/Frame.svelte';
  import type { MenuItem } from '$lib/frame/menu';
  import type { Actions } from '$lib/frame/shortcuts';
  import { heightFor, LOWEST_GAP, TIGHT_GAP, USUAL_GAP, WIDEST_GAP } from '$lib/neck/layout';
  import { setIntent } from '$lib/study/edits';
  import { type Editing, readEditing, writeEditing } from '$lib/study/place';
  import { getStudy } from '$lib/study/study.svelte';
  import { type Leaf, onlyAfter } from '$lib/study/view';
  import { speakSentence } from '$lib/ui/glyphs';
  import Drawer from './Drawer.svelte';
  import { exportItems } from './exports';
  import type PlanPaper from './PlanPaper.svelte';
  import InHand from './InHand.svelte';
  import { createPlanModel, setPlanModel } from './model.svelte';
  import PhoneBar from './PhoneBar.svelte';
  import PlanNeck from './PlanNeck.svelte';

  const study = getStudy();
  const model = setPlanModel(createPlanModel(study));
  const { document } = study;

  let editing = $state<Editing>(readEditing(page.url));
  /** The sheet of the menu that is open, by its name. */
  let sheet = $state<string | null>(null);
  let neckShown = $state(false);
  let zonesShown = $state(false);
  let read = $state.raw<Mark | null>(null);
  /** A note of the neck from which ways onward are shown; it is of one chord only. */
  let picked = $state.raw<{ readonly index: number; readonly mark: Mark } | null>(null);
  const pickedHere = $derived(picked?.index === study.now?.index ? (picked?.mark ?? null) : null);

  /** Only needed when it is printed: it waits until the page has nothing else to do. */
  let Paper = $state.raw<typeof PlanPaper | null>(null);
  async function loadPaper() {
    Paper ??= (await import('./PlanPaper.svelte')).default;
    await tick();
  }
  onMount(() => {
    const timer = setTimeout(() => void loadPaper(), 1_500);
    const drop = beforePaper(loadPaper);
    return () => {
      clearTimeout(timer);
      drop();
    };
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

  function nextIntent() {
    const { chart, now, nowIndex } = study;
    const intent = INTENTS[(INTENTS.indexOf(now?.intent ?? 'lean') + 1) % INTENTS.length];
    if (chart && intent) study.edit(setIntent(chart, nowIndex, intent, 'chord'));
  }

  const openLeaf = (leaf: Leaf) => () =>
    study.look({ leaf: study.view.leaf === leaf ? null : leaf });

  const DETAILS = 'Key, tempo and title';
  const actions: Actions = {
    wholeNeck: model.toggleWhole,
    zone: (key) => {
      const zone = study.zones[Number(key) - 1];
      if (zone) study.chooseZone(zone);
    },
    zones: () => {
      zonesShown = true;
      neckShown = true;
    },
    scales: openLeaf('scales'),
    change: openLeaf('change'),
    intent: nextIntent,
    targets: () => study.look({ targets: !study.view.targets }),
    only: () => study.look({ only: onlyAfter(study.view.only) }),
    details: () => (sheet = DETAILS),
    editBars: () => editBars(),
  };
  const menu = $derived<readonly MenuItem[]>([
    ...(study.chart
      ? [
          {
            name: DETAILS,
            keys: 'K',
            begins: true,
            sheet: { look: 'grid w-80 gap-3', content: details },
          },
        ]
      : []),
    { name: 'Edit the bars', keys: 'E', run: () => editBars() },
    { name: 'Edit the text', run: () => edit('text') },
    ...exportItems(study),
  ]);
</script>

{#snippet details()}
  {#if study.chart}
    {#await import('$lib/workbench/DetailsSheet.svelte') then { default: DetailsSheet }}
      <DetailsSheet
        text={document.text}
        chart={study.chart}
        home={study.key}
        idiom={study.reading?.idiom.name ?? 'jazz'}
        onedit={(text) => document.edit({ text })}
      />
    {/await}
  {/if}
{/snippet}

{#snippet barsEditor()}
  <!-- Large, and not needed to read a chart: it comes when it is opened. -->
  {#await import('$lib/workbench/Workbench.svelte')}
    <p class="text-ink-soft">Opening the bars…</p>
  {:then { default: Bench }}
    <Bench {document} {begin} onclose={() => edit(null)} />
  {:catch}
    <p class="text-now-text">The bars could not be opened. The text can still be edited.</p>
  {/await}
{/snippet}

{#snippet textEditor()}
  {#await import('$lib/workbench/EditorPanel.svelte') then { default: EditorPanel }}
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

{#if Paper}<Paper />{/if}

<Frame
  screen="plan"
  name="Plan"
  {actions}
  typing={editing === 'bars'}
  fitted={editing === null}
  fittedNarrow={editing === null && study.view.leaf === null}
  lane={model.lane}
  instead={editing === 'bars' && study.chart ? barsEditor : null}
  beside={editing === 'text' ? textEditor : null}
  onedit={(index) => editBars(index)}
  ontext={() => edit('text')}
  says={model.change ? speakSentence(changeSentence(model.change)) : ''}
  {menu}
  bind:sheet
>
  {#snippet neck()}
    {#if model.now}
      <ChangeLine now={model.now.chord} next={model.next?.chord ?? null} said={model.change} />
    {/if}
    <div
      class={[
        'relative flex flex-col print:hidden',
        study.view.leaf === null
          ? 'min-h-(--least) flex-1 sm:min-h-(--usual) max-lg:max-h-(--most) lg:min-h-0 short:min-h-(--low)'
          : 'shrink-0',
      ]}
      style:--usual="{heightFor(USUAL_GAP, stringCount(study.neck))}px"
      style:--low="{heightFor(LOWEST_GAP, stringCount(study.neck))}px"
      style:--least="{heightFor(TIGHT_GAP, stringCount(study.neck))}px"
      style:--most="{heightFor(WIDEST_GAP, stringCount(study.neck))}px"
    >
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
    </div>
    {#if study.view.leaf === null}<InHand />{/if}
  {/snippet}

  {#if study.plan.setAside.length > 0}
    {#await import('./SetAsideNotice.svelte') then { default: SetAsideNotice }}
      <SetAsideNotice />
    {/await}
  {/if}

  {#if study.now && study.chart}
    <Drawer chart={study.chart} {read} bind:neckShown bind:zonesShown />
    <PhoneBar />
  {/if}
</Frame>
