<!-- Plan: the form, the neck, and the change between now and next. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import type { Mark } from '$core/neck/marks';
  import { spokenChord } from '$core/chords/spoken';
  import { INTENTS, LENSES, type Lens } from '$core/lenses/lens';
  import { createDocument } from '$lib/charts/document.svelte';
  import Neck from '$lib/neck/Neck.svelte';
  import type { Flag } from '$lib/neck/TargetFlags.svelte';
  import { speakMark } from '$lib/neck/speech';
  import { LABEL_NAMES, LABELS, labelMark } from '$lib/neck/labels';
  import type { ChartDocument } from '$lib/server/charts';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { showBox, showBoxInFull } from '$lib/ui/boxes';
  import Choice from '$lib/ui/Choice.svelte';
  import { showDegree, showSymbol } from '$lib/ui/glyphs';
  import { runShortcut, type Shortcut } from '$lib/ui/shortcuts';
  import ChordPanels from './ChordPanels.svelte';
  import EditorPanel from './EditorPanel.svelte';
  import { type Editing, readEditing, readPlace, writePlace } from './place';
  import LayersMenu from './LayersMenu.svelte';
  import PlanHead from './PlanHead.svelte';
  import { LANE_VIEWS } from './plan';
  import { createTargets } from './targets.svelte';
  import { createSession } from './session.svelte';
  import Strip from './Strip.svelte';
  import StylesMenu from './StylesMenu.svelte';
  import type Workbench from './Workbench.svelte';
  import ZoneMap from './ZoneMap.svelte';
  import { createWorkbench } from './workbench.svelte';

  interface Props {
    readonly stored: ChartDocument;
    readonly settings: StoredSettings;
  }

  let { stored, settings: storedSettings }: Props = $props();

  const document = untrack(() => createDocument(stored.id, stored));
  const settings = untrack(() => createSettings(storedSettings));
  const session = createSession(document, settings, readPlace(page.url));

  const targets = createTargets(session);

  const workbench = createWorkbench(document);

  let editing = $state<Editing>(readEditing(page.url));
  let detailed = $state(false);
  let spelled = $state(false);
  const nowReading = $derived(session.reading?.chords[session.now?.index ?? -1]);
  let bench = $state<Workbench>();
  // Once, when it opens: what the focus depends on must not call it back.
  $effect(() => {
    if (bench) untrack(() => bench?.focus());
  });
  let keysShown = $state(false);
  let read = $state.raw<Mark | null>(null);

  onMount(() => {
    document.resume();
    const written = session.writtenAt(session.now?.index ?? 0);
    if (written) workbench.go(written.bar, written.slot);
    globalThis.document.documentElement.dataset['ready'] = 'plan';
    return () => {
      delete globalThis.document.documentElement.dataset['ready'];
      void document.save();
    };
  });

  // The address holds the place, so that a reload or a shared link comes back to it.
  let ready = false;
  $effect(() => {
    const index = session.now?.index ?? 0;
    const { zone } = session;
    if (ready) replaceState(writePlace(page.url, { index, zone }, editing), {});
    ready = true;
  });

  /** The next way to label notes, round all of them. */
  function nextLabels() {
    const next = following(LABELS, session.plan.labels);
    if (next) session.setLabels(next);
  }

  const LAYER_KEYS = [
    ['b', 'Pentatonic box', 'box'],
    ['s', 'Scale position', 'scale'],
    ['a', 'Arpeggio', 'arpeggio'],
    ['r', 'Triad', 'triad'],
    ['g', 'Grip', 'grip'],
    ['h', 'Home', 'home'],
  ] as const;

  let zonesShown = $state(false);

  /** The lens whose answers are shown; the best of all when null. */
  let lens = $state<Lens | null>(null);
  let styled = $state(false);
  /** A note of the neck from which ways onward are shown; it is of one chord only. */
  let picked = $state.raw<{ readonly index: number; readonly mark: Mark } | null>(null);
  const pickedHere = $derived(picked?.index === session.now?.index ? (picked?.mark ?? null) : null);
  const flags = $derived.by((): readonly Flag[] => {
    if (!session.plan.targets.shown) return [];
    const flag = (time: Flag['time'], index: number | undefined): readonly Flag[] => {
      const stop = targets.stopAt(index);
      if (!stop || index === undefined) return [];
      const { string, fret } = stop;
      return [
        {
          time,
          string,
          fret,
          label: showDegree(stop.degree),
          pinned: targets.isPinned(index, stop),
        },
      ];
    };
    return [...flag('next', session.next?.index), ...flag('now', session.now?.index)];
  });
  const toggleTargets = () => session.changeTargets({ shown: !session.plan.targets.shown });

  /** The next of some values in turn; the first after the last. */
  const following = <T,>(values: readonly T[], value: T): T | undefined =>
    values[(values.indexOf(value) + 1) % values.length];

  function nextIntent() {
    const intent = following(INTENTS, session.now?.intent ?? 'lean');
    if (intent) session.setIntent(intent, 'chord');
  }

  const toggle = (mode: Editing) => (editing = editing === mode ? null : mode);

  /** Opens the bars for editing, at the chord sounding now or at the one asked for. */
  function editBars(index = session.now?.index ?? 0) {
    if (editing === 'bars') {
      editing = null;
      return;
    }
    const place = session.writtenAt(index);
    if (place) workbench.go(place.bar, place.slot);
    editing = 'bars';
  }

  const toggleNaming = () => {
    settings.change({ modeNames: settings.current.modeNames === 'mode' ? 'parent' : 'mode' });
  };

  async function transpose(halfSteps: number) {
    const { shiftChart } = await import('$core/chart/rewrite');
    const text = shiftChart(document.text, halfSteps, session.reading?.key.key ?? null);
    if (text !== null) document.edit({ text });
  }

  const shortcuts: readonly Shortcut[] = [
    { keys: ['ArrowRight', '.'], shown: '→ or .', does: 'Next chord', run: () => session.step(1) },
    {
      keys: ['ArrowLeft', ','],
      shown: '← or ,',
      does: 'Chord before',
      run: () => session.step(-1),
    },
    { keys: ['Home'], shown: 'Home', does: 'First chord', run: () => session.go(0) },
    {
      keys: ['['],
      shown: '[',
      does: 'Zone one fret down',
      run: () => session.slideZone(-1),
    },
    { keys: [']'], shown: ']', does: 'Zone one fret up', run: () => session.slideZone(1) },
    {
      keys: ['w'],
      shown: 'W',
      does: 'Whole neck, or the zone only',
      run: () => session.toggleWhole(),
    },
    {
      keys: ['p'],
      shown: 'P',
      does: 'Own pentatonic over this chord',
      run: () => session.chooseLens('own-pentatonic'),
    },
    {
      keys: ['c'],
      shown: 'C',
      does: 'Chord tones over this chord',
      run: () => session.chooseLens('chord-tones'),
    },
    {
      keys: ['l'],
      shown: 'L',
      does: 'Label notes the next way',
      run: () => nextLabels(),
    },
    { keys: ['n'], shown: 'N', does: 'Numerals or symbols large', run: session.toggleNames },
    { keys: ['d'], shown: 'D', does: 'Spelling of this chord', run: () => (spelled = true) },
    { keys: ['e'], shown: 'E', does: 'Edit the bars', run: () => editBars() },
    ...LAYER_KEYS.map(([key, does, kind]) => ({
      keys: [key],
      shown: key.toUpperCase(),
      does: `Layer: ${does.toLowerCase()}`,
      run: () => session.toggleLayer(kind),
    })),
    {
      keys: ['v'],
      shown: 'V',
      does: 'Options of the next lens',
      run: () => (lens = following([null, ...LENSES], lens) ?? null),
    },
    { keys: ['i'], shown: 'I', does: 'Intent: outline, lean, coast', run: nextIntent },
    { keys: ['j'], shown: 'J', does: 'A plan in one style', run: () => (styled = true) },
    { keys: ['f'], shown: 'F', does: 'Targets on the neck, on or off', run: toggleTargets },
    {
      keys: ['q'],
      shown: 'Q',
      does: 'Practice sheet',
      run: () => void goto(`/plan/${stored.id}/practice${page.url.search}`),
    },
    {
      keys: ['x'],
      shown: 'X',
      does: 'Ladder of choices or of chord tones',
      run: session.toggleCrossing,
    },
    {
      keys: ['u'],
      shown: 'U',
      does: 'The next lane under the bars',
      run: () => session.setLane(following(LANE_VIEWS, session.plan.lane) ?? 'none'),
    },
    {
      keys: ['m'],
      shown: 'M',
      does: 'Modes by their own name or by parent scale',
      run: toggleNaming,
    },
    { keys: ['o'], shown: 'O', does: 'One octave only', run: session.toggleOctave },
    { keys: ['z'], shown: 'Z', does: 'The five zones', run: () => (zonesShown = true) },
    ...[1, 2, 3, 4, 5].map((number) => ({
      keys: [String(number)],
      shown: String(number),
      does: `Zone ${number}`,
      run: () => {
        const zone = session.zones[number - 1];
        if (zone) session.chooseZone(zone);
      },
    })),
    { keys: ['t'], shown: 'T', does: 'Chart text', run: () => toggle('text') },
    { keys: ['k'], shown: 'K', does: 'Key, tempo, transposing', run: () => (detailed = true) },
    { keys: ['+'], shown: '+', does: 'Transpose a half step up', run: () => void transpose(1) },
    { keys: ['-'], shown: '−', does: 'Transpose a half step down', run: () => void transpose(-1) },
    { keys: ['z'], shown: 'Ctrl Z', does: 'Undo', control: true, run: document.undo },
    {
      keys: ['y', 'Shift+z'],
      shown: 'Ctrl Y',
      does: 'Redo',
      control: true,
      run: document.redo,
    },
    { keys: ['?'], shown: '?', does: 'These keys', run: () => (keysShown = true) },
  ];

  const around = $derived(
    session.now ? { now: session.now.chord, next: session.next?.chord ?? null } : null,
  );
  const labelContext = $derived(
    session.now
      ? {
          now: session.now.chord,
          next: session.next?.chord ?? null,
          key: nowReading?.key ?? null,
          collection: session.now.material.collection,
          zone: session.zone,
        }
      : null,
  );
  /** The shapes on the neck in words. */
  const shapesShown = $derived(
    session.layers.map(({ name, box }) =>
      showSymbol(box ? `${name}: ${showBox(box, settings.current.boxNames)}` : name),
    ),
  );
  const announced = $derived(
    session.now
      ? `${spokenChord(session.now.chord)}${session.next ? `, next ${spokenChord(session.next.chord)}` : ''}`
      : '',
  );
</script>

<svelte:window onkeydown={(event) => runShortcut(event, shortcuts)} />
<svelte:head>
  <title>{session.chart?.source.title || stored.title} · Plan · Corvel</title>
</svelte:head>

<main
  class="mx-auto flex min-h-[calc(100dvh-2.75rem)] max-w-[100rem] flex-col gap-2 px-4 pt-2 pb-1"
>
  <PlanHead
    {document}
    chart={session.chart}
    reading={session.reading}
    {editing}
    bind:detailed
    ontext={() => toggle('text')}
    onbars={() => editBars()}
    onkeys={() => (keysShown = true)}
    shapes="/plan/{stored.id}/shapes{page.url.search}"
    practice="/plan/{stored.id}/practice{page.url.search}"
  />

  <div class="grid gap-4 {editing === 'text' ? 'lg:grid-cols-[1fr_24rem]' : ''}">
    {#if editing === 'bars' && session.chart}
      <!-- Large, and not needed to read a chart: it comes when it is opened. -->
      {#await import('./Workbench.svelte')}
        <p class="text-ink-soft">Opening the bars…</p>
      {:then { default: Bench }}
        <Bench bind:this={bench} {workbench} onclose={() => (editing = null)} />
      {:catch}
        <p class="text-now-text">The bars could not be opened. The text can still be edited.</p>
      {/await}
    {:else if session.chart && session.reading}
      <Strip
        chart={session.chart}
        reading={session.reading}
        now={session.now?.index ?? null}
        next={session.next?.index ?? null}
        names={session.plan.names}
        planned={session.planned}
        lane={session.plan.lane === 'route'
          ? targets.lane
          : session.lane
            ? session.lanes[session.lane]
            : null}
        naming={settings.current.modeNames}
        ongo={session.go}
        onedit={(index) => editBars(index)}
      />
    {:else}
      <p class="py-6 text-ink-soft">
        Nothing can be read yet. Open the text and write chords between bar lines.
      </p>
    {/if}
    {#if editing === 'text'}
      <EditorPanel
        text={document.text}
        problems={session.problems}
        onedit={(text) => document.edit({ text }, 'text')}
        onundo={document.undo}
        onredo={document.redo}
        onclose={() => (editing = null)}
      />
    {/if}
  </div>

  <div>
    <Neck
      neck={session.neck}
      marks={session.marks}
      {around}
      zone={session.zone}
      layers={session.layers}
      leftHanded={session.instrument.leftHanded}
      labelOf={(mark) => (labelContext ? labelMark(mark, session.plan.labels, labelContext) : '')}
      onzone={session.setZone}
      onzoneend={session.keepZone}
      onread={(mark) => (read = mark)}
      {flags}
      onpin={(time, place) => {
        const index = time === 'now' ? session.now?.index : session.next?.index;
        if (index !== undefined) session.pin(index, place);
      }}
      onpick={(mark) => (picked = session.now ? { index: session.now.index, mark } : null)}
    />
    <div class="flex flex-wrap items-center justify-end gap-x-5 gap-y-2">
      <p class="mr-auto min-h-6 text-sm" data-readout>
        {#if read && around}{speakMark(read, around)}{:else}<span class="text-ink-soft">
            {#if shapesShown.length > 0}
              <span
                title={session.layers.map(({ box }) => (box ? showBoxInFull(box) : '')).join(' ')}
              >
                {shapesShown.join(' · ')}
              </span>
            {:else}
              Filled: now. Ringed: next. Point at a note to read it.
            {/if}
          </span>{/if}
      </p>
      <StylesMenu bind:open={styled} {session} />
      <label class="text-sm">
        <span class="sr-only">Labels</span>
        <select
          class="field"
          title="Labels (L)"
          value={session.plan.labels}
          onchange={(event) => {
            const picked = LABELS.find((labels) => labels === event.currentTarget.value);
            if (picked) session.setLabels(picked);
          }}
        >
          {#each LABELS as labels (labels)}<option value={labels}>{LABEL_NAMES[labels]}</option
            >{/each}
        </select>
      </label>
      <LayersMenu {session} {settings} />
      <ZoneMap bind:open={zonesShown} {session} {settings} chartId={stored.id} />
      <Choice
        label="Show"
        value={session.whole ? 'whole' : 'zone'}
        options={[
          ['zone', 'Zone'],
          ['whole', 'Whole neck'],
        ]}
        onchange={session.toggleWhole}
      />
    </div>
  </div>

  {#if session.plan.setAside.length > 0}
    {#await import('./SetAsideNotice.svelte') then { default: SetAsideNotice }}
      <SetAsideNotice {session} />
    {/await}
  {/if}

  {#if session.now && session.chart}
    <ChordPanels
      {session}
      {settings}
      {targets}
      chart={session.chart}
      bind:spelled
      bind:lens
      picked={pickedHere}
      onclose={() => (picked = null)}
    />
  {/if}

  <p class="sr-only" aria-live="polite">{announced}</p>
</main>

{#if keysShown}
  {#await import('$lib/ui/ShortcutSheet.svelte') then { default: ShortcutSheet }}
    <ShortcutSheet bind:open={keysShown} {shortcuts} />
  {/await}
{/if}
{#if document.theirs}
  {#await import('./ConflictDialog.svelte') then { default: ConflictDialog }}
    <ConflictDialog {document} />
  {/await}
{/if}
