<!-- The practice sheet: an exercise or a line as staff and tablature, played and shown on the neck. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import ArrowLeft from '@lucide/svelte/icons/arrow-left';
  import Pause from '@lucide/svelte/icons/square';
  import Play from '@lucide/svelte/icons/play';
  import Printer from '@lucide/svelte/icons/printer';
  import { toast } from 'svelte-sonner';
  import { page } from '$app/state';
  import { degreeOf, type PlayedNote } from '$core/phrases/played';
  import { createDocument } from '$lib/charts/document.svelte';
  import NeckBoard from '$lib/neck/NeckBoard.svelte';
  import { LARGE, layOut } from '$lib/neck/layout';
  import ConflictDialog from '$lib/plan/ConflictDialog.svelte';
  import { readPlace } from '$lib/plan/place';
  import Strip from '$lib/plan/Strip.svelte';
  import { createSession } from '$lib/plan/session.svelte';
  import type { ChartDocument } from '$lib/server/charts';
  import type { StoredSettings } from '$lib/settings/settings';
  import { createSettings } from '$lib/settings/store.svelte';
  import { download } from '$lib/ui/download';
  import { showDegree, showNote, showSymbol } from '$lib/ui/glyphs';
  import { runShortcut, type Shortcut } from '$lib/ui/shortcuts';
  import {
    FORMAT_NAMES,
    openPassage,
    PASSAGE_FORMATS,
    PASSAGE_TYPES,
    type PassageFormat,
    passageFile,
  } from './files';
  import Notation from './Notation.svelte';
  import { createPlayer } from './player.svelte';
  import { createPractice } from './practice.svelte';
  import SheetControls from './SheetControls.svelte';

  interface Props {
    readonly stored: ChartDocument;
    readonly settings: StoredSettings;
  }

  let { stored, settings: storedSettings }: Props = $props();

  const document = untrack(() => createDocument(stored.id, stored));
  const settings = untrack(() => createSettings(storedSettings));
  const session = createSession(document, settings, readPlace(page.url));
  const practice = createPractice(
    session,
    untrack(() => session.now?.index ?? 0),
  );
  const player = createPlayer();

  onMount(() => {
    document.resume();
    globalThis.document.documentElement.dataset['ready'] = 'practice';
    return () => {
      player.stop();
      delete globalThis.document.documentElement.dataset['ready'];
      void document.save();
    };
  });

  let speed = $state(1);
  let sheetName = $state('');
  /** The note the player has stepped to by hand; -1 before the first. */
  let stepped = $state(-1);

  const passage = $derived(practice.passage);
  const beat = $derived(player.beat ?? passage?.notes[stepped]?.beat ?? null);
  const sounding = $derived.by((): readonly PlayedNote[] => {
    const at = beat;
    if (!passage || at === null) return [];
    return passage.notes.filter((note) => note.beat <= at + 1e-6 && at < note.beat + note.beats);
  });
  /** The moment after the one sounding. */
  const coming = $derived.by((): readonly PlayedNote[] => {
    if (!passage) return [];
    const at = beat ?? -1;
    const next = passage.notes.find((note) => note.beat > at + 1e-6);
    return next ? passage.notes.filter((note) => note.beat === next.beat) : [];
  });
  const layout = $derived(
    layOut(session.neck, { ...LARGE, leftHanded: session.instrument.leftHanded }),
  );
  const chordNow = $derived(
    passage?.chords.find(({ beat: from, beats }) => {
      const at = beat ?? 0;
      return from <= at && at < from + beats;
    })?.chord ?? null,
  );

  const chordIndex = $derived(
    sounding[0]?.chord ?? passage?.notes[Math.max(0, stepped)]?.chord ?? null,
  );

  /** Steps to the first note over a chord. */
  function goTo(index: number) {
    player.stop();
    stepped = Math.max(0, passage?.notes.findIndex(({ chord }) => chord === index) ?? 0);
  }

  function toggle() {
    if (player.playing) player.stop();
    else if (passage) player.play(passage, speed);
  }

  function step(by: number) {
    player.stop();
    const last = (passage?.notes.length ?? 0) - 1;
    stepped = Math.max(0, Math.min(last, stepped + by));
  }

  async function save(format: PassageFormat) {
    if (passage) download(await passageFile(passage, format));
  }

  async function open(file: File | undefined) {
    if (!file) return;
    const result = await openPassage(new Uint8Array(await file.arrayBuffer()), session.neck);
    if (result.ok) practice.open({ ...result.passage, title: result.passage.title || file.name });
    else toast.error(result.message);
  }

  const shortcuts: readonly Shortcut[] = [
    { keys: [' '], shown: 'Space', does: 'Play or stop', run: toggle },
    { keys: ['ArrowRight', '.'], shown: '→', does: 'Next note', run: () => step(1) },
    { keys: ['ArrowLeft', ','], shown: '←', does: 'Note before', run: () => step(-1) },
    {
      keys: ['a'],
      shown: 'A',
      does: 'Another line',
      run: () => practice.change({ seed: practice.settings.seed + 1 }),
    },
  ];
</script>

<svelte:window onkeydown={(event) => runShortcut(event, shortcuts)} />
<svelte:head>
  <title>{session.chart?.source.title || stored.title} · Practice sheet · Corvel</title>
</svelte:head>

<main class="mx-auto flex max-w-[90rem] flex-col gap-3 px-4 py-3">
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    <a
      class="button-quiet text-sm print:hidden"
      href="/plan/{stored.id}{page.url.search}"
      title="Back to Plan"
    >
      <ArrowLeft size={16} aria-hidden="true" />Plan
    </a>
    <h1 class="heading mr-auto text-2xl">{showSymbol(passage?.title ?? stored.title)}</h1>
    <div class="flex flex-wrap items-center gap-2 print:hidden">
      <button class="button-strong" onclick={toggle} title="Play or stop (Space)">
        {#if player.playing}<Pause size={15} aria-hidden="true" />Stop{:else}<Play
            size={15}
            aria-hidden="true"
          />Play{/if}
      </button>
      <label class="flex items-center gap-1 text-sm">
        <span class="sr-only">Speed</span>
        <select
          class="field"
          bind:value={speed}
          onchange={() => player.playing && passage && player.play(passage, speed)}
        >
          {#each [0.5, 0.75, 1, 1.25] as one (one)}<option value={one}>{one * 100} %</option>{/each}
        </select>
      </label>
      <button class="button" onclick={() => window.print()}>
        <Printer size={15} aria-hidden="true" />Print
      </button>
      <label class="text-sm">
        <span class="sr-only">Export</span>
        <select
          class="field"
          name="export"
          value=""
          onchange={(event) => {
            const picked = PASSAGE_FORMATS.find((one) => one === event.currentTarget.value);
            event.currentTarget.value = '';
            if (picked) void save(picked);
          }}
        >
          <option value="">Export…</option>
          {#each PASSAGE_FORMATS as format (format)}<option value={format}
              >{FORMAT_NAMES[format]}</option
            >{/each}
        </select>
      </label>
      <label class="button cursor-pointer text-sm">
        Open a melody
        <input
          type="file"
          class="sr-only"
          id="melody-file"
          accept={PASSAGE_TYPES}
          onchange={(event) => void open(event.currentTarget.files?.[0])}
        />
      </label>
    </div>
  </div>
  <SheetControls {session} {practice} />
  {#if practice.opened}
    <p class="text-sm">
      A melody from a file, on {session.instrument.name}.
      <button class="underline" onclick={practice.close}>Back to the exercise</button>
    </p>
  {:else if practice.exercise}
    <p class="text-sm" data-goal>{practice.exercise.goal}</p>
    {#each practice.exercise.warnings as warning (warning)}
      <p class="text-sm font-semibold text-now-text" role="status">{warning}</p>
    {/each}
  {/if}

  <div class="flex flex-wrap items-center gap-2 text-sm print:hidden" aria-label="Kept sheets">
    {#each session.plan.sheets as sheet (sheet.id)}
      <span
        class="flex items-center rounded border {sheet.id === practice.kept
          ? 'border-ink'
          : 'border-line'}"
      >
        <button class="px-2 py-1" data-sheet={sheet.name} onclick={() => practice.take(sheet)}
          >{sheet.name}</button
        >
        <button
          class="px-1.5 text-ink-soft hover:text-ink"
          aria-label="Drop {sheet.name}"
          onclick={() => session.dropSheet(sheet.id)}>×</button
        >
      </span>
    {/each}
    <form
      class="flex gap-1"
      onsubmit={(event) => {
        event.preventDefault();
        practice.keep(sheetName);
        sheetName = '';
      }}
    >
      <label>
        <span class="sr-only">Name of the sheet</span>
        <input
          class="field w-44"
          name="sheet"
          placeholder="Keep it as…"
          maxlength="80"
          bind:value={sheetName}
        />
      </label>
      <button class="button">Keep</button>
    </form>
    <p role="status" data-save-state={document.saveState} class="sr-only">{document.saveState}</p>
  </div>

  {#if session.chart && session.reading && !practice.opened && practice.settings.extent === 'whole'}
    <div class="print:hidden">
      <Strip
        chart={session.chart}
        reading={session.reading}
        now={chordIndex}
        next={null}
        names={session.plan.names}
        planned={session.planned}
        lane={null}
        naming={settings.current.modeNames}
        ongo={goTo}
        onedit={goTo}
      />
    </div>
  {/if}

  <div class="overflow-x-auto print:hidden">
    <svg
      viewBox="0 0 {layout.width} {layout.height}"
      class="block w-full min-w-3xl"
      role="img"
      aria-label={sounding.length > 0
        ? `Sounding: ${sounding.map(({ string, fret }) => `string ${string}, fret ${fret}`).join('; ')}`
        : 'The neck'}
    >
      <NeckBoard neck={session.neck} {layout} zone={practice.settings.zone} />
      {#each coming as note (`${note.string}-${note.fret}`)}
        <circle
          class="fill-paper stroke-next"
          stroke-width="2.8"
          cx={layout.finger(note.fret)}
          cy={layout.string(note.string)}
          r="11"
        />
        <text
          class="fill-next-text text-[12px] font-semibold"
          text-anchor="middle"
          x={layout.finger(note.fret)}
          y={layout.string(note.string) + 4}>{showNote(note.note)}</text
        >
      {/each}
      {#each sounding as note (`${note.string}-${note.fret}`)}
        <circle
          class="fill-now"
          data-sounding="{note.string}-{note.fret}"
          cx={layout.finger(note.fret)}
          cy={layout.string(note.string)}
          r="13"
        />
        <text
          class="fill-on-now text-[13px] font-semibold"
          text-anchor="middle"
          x={layout.finger(note.fret)}
          y={layout.string(note.string) + 4.5}
          >{chordNow ? showDegree(degreeOf(chordNow, note.note)) : showNote(note.note)}</text
        >
      {/each}
    </svg>
  </div>

  {#if passage && passage.notes.length > 0}
    <Notation {passage} {beat} />
  {:else if !practice.working}
    <p class="text-ink-soft">There is nothing to play: this chart has no chords yet.</p>
  {/if}
  <p class="text-xs text-ink-soft print:hidden">
    Warm up first. Stop at pain, tingling or numbness, and see a clinician if it lasts. Rest a few
    minutes in every half hour, and keep the volume moderate.
  </p>
</main>

<ConflictDialog {document} />
