<!-- Plan: the form, the neck, and the change between now and next. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { shiftChart } from '$core/chart/rewrite';
  import type { Mark } from '$core/neck/marks';
  import { spokenChord } from '$core/chords/spoken';
  import { createDocument } from '$lib/charts/document.svelte';
  import Neck from '$lib/neck/Neck.svelte';
  import { speakMark } from '$lib/neck/speech';
  import { LABEL_NAMES, LABELS, labelMark } from '$lib/neck/labels';
  import type { ChartDocument } from '$lib/server/charts';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { showBox, showBoxInFull } from '$lib/ui/boxes';
  import Choice from '$lib/ui/Choice.svelte';
  import ShortcutSheet from '$lib/ui/ShortcutSheet.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { runShortcut, type Shortcut } from '$lib/ui/shortcuts';
  import ChangeCard from './ChangeCard.svelte';
  import ChordCard from './ChordCard.svelte';
  import ChordSpelling from './ChordSpelling.svelte';
  import ConflictDialog from './ConflictDialog.svelte';
  import EditorPanel from './EditorPanel.svelte';
  import { type Editing, readEditing, readPlace, writePlace } from './place';
  import LayersMenu from './LayersMenu.svelte';
  import PlanHead from './PlanHead.svelte';
  import { createSession } from './session.svelte';
  import Strip from './Strip.svelte';
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
    const next = LABELS[(LABELS.indexOf(session.plan.labels) + 1) % LABELS.length];
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

  function transpose(halfSteps: number) {
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
      run: () => session.choose('own-pentatonic', 'chord'),
    },
    {
      keys: ['c'],
      shown: 'C',
      does: 'Chord tones over this chord',
      run: () => session.choose('chord-tones', 'chord'),
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
    { keys: ['+'], shown: '+', does: 'Transpose a half step up', run: () => transpose(1) },
    { keys: ['-'], shown: '−', does: 'Transpose a half step down', run: () => transpose(-1) },
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

<main class="mx-auto flex max-w-[100rem] flex-col gap-2.5 px-4 py-2">
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
      <Choice
        label="Play over this chord"
        bare
        value={session.now?.kind ?? session.plan.material}
        options={[
          ['own-pentatonic', 'Own pentatonic'],
          ['chord-tones', 'Chord tones'],
        ]}
        onchange={(kind) => session.choose(kind, 'chord')}
      />
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
      <LayersMenu {session} instruments={settings.current.instruments} />
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

  {#if session.now && session.reading}
    <div class="grid gap-6 border-t border-line pt-2 md:grid-cols-3">
      <ChordCard
        time="now"
        planned={session.now}
        reading={session.reading.chords[session.now.index]}
        fast={session.fast}
      >
        {#snippet details()}
          {#if session.now && session.reading && nowReading}
            <ChordSpelling
              bind:open={spelled}
              chord={session.now.chord}
              reading={nowReading}
              cadences={session.cadencesNow}
            />
          {/if}
        {/snippet}
        {#snippet spread()}
          <button
            class="underline decoration-line-strong underline-offset-2 hover:text-ink"
            onclick={() => session.now && session.choose(session.now.kind, 'chart')}
          >
            on every chord
          </button>
        {/snippet}
      </ChordCard>
      {#if session.next && session.crossing}
        <ChangeCard crossing={session.crossing} />
        <ChordCard
          time="next"
          planned={session.next}
          reading={session.reading.chords[session.next.index]}
        />
      {/if}
    </div>
  {/if}

  <p class="sr-only" aria-live="polite">{announced}</p>
</main>

<ShortcutSheet bind:open={keysShown} {shortcuts} />
<ConflictDialog {document} />
