<!-- Tablature written with keys: a cursor on a string and a beat, the degree of every note under it. -->
<script lang="ts">
  import { at, range } from '$core/lists';
  import { stringCount } from '$core/neck/neck';
  import type { Checked } from '$core/listening/checked';
  import { fretText } from '$core/formats/passage/tab/write';
  import type { Beats } from '$core/time/units';
  import type { NoteRead } from '$core/licks/reading';
  import { showDegree, showSymbol } from '$lib/ui/glyphs';
  import type { LickEditing } from './editing.svelte';
  import { barsIn, GRID_KEYS, lengthOf, LENGTHS } from './grid';
  import { BEAT, inBeats } from 'corvel-core';

  interface Props {
    readonly editing: LickEditing;
    /** The beat sounding; null when nothing plays. */
    readonly beat: Beats | null;
    /** How each note was played, where that was checked. */
    readonly checked?: Checked | null;
  }

  let { editing, beat: sounding, checked = null }: Props = $props();

  const verdictOf = (index: number) =>
    checked?.notes.find((one) => one.index === index)?.verdict ?? null;

  let width = $state(900);
  /** Pixels of a beat. */
  const ACROSS = { least: 40, most: 92 } as const;
  const STRING = 20;
  const TOP = 24;
  const LEFT = 14;
  const strings = $derived(stringCount(editing.frame.neck));
  const bars = $derived(barsIn(editing.frame));
  const perRow = $derived(
    Math.max(
      1,
      Math.min(
        bars.length,
        Math.floor((width - 2 * LEFT) / (inBeats(editing.frame.bar) * ACROSS.least)),
      ),
    ),
  );
  const beatWidth = $derived(
    Math.min(ACROSS.most, (width - 2 * LEFT) / (perRow * inBeats(editing.frame.bar))),
  );
  const rows = $derived(
    range(0, Math.ceil(bars.length / perRow)).map((row) =>
      bars.slice(row * perRow, (row + 1) * perRow),
    ),
  );
  const height = $derived(TOP + (strings - 1) * STRING + 34);

  const inRow = (row: readonly Beats[], beat: Beats) => {
    const first = at(row, 0);
    return beat >= first && beat < first + row.length * editing.frame.bar;
  };
  const x = (row: readonly Beats[], beat: Beats) =>
    LEFT + 10 + inBeats(beat - at(row, 0)) * beatWidth;
  const y = (string: number) => TOP + (string - 1) * STRING;

  const notes = $derived(editing.reading?.notes ?? []);
  const chords = $derived(editing.chart?.chords ?? []);
  const degreeOf = (note: NoteRead): string => {
    const own = note.degree === null ? '–' : showDegree(note.degree);
    const bent = note.bent?.degree;
    return bent === undefined || bent === null ? own : `${own}→${showDegree(bent)}`;
  };
  /** Two notes at once share the line under the strings. */
  const degrees = $derived(
    notes.reduce<readonly { beat: Beats; text: string; strong: boolean; role: string }[]>(
      (found, note) => {
        const last = found.at(-1);
        const { beat, strong, role } = note;
        const text = degreeOf(note);
        if (last && last.beat === beat) {
          return [...found.slice(0, -1), { ...last, text: `${last.text} ${text}` }];
        }
        return [...found, { beat, text, strong, role }];
      },
      [],
    ),
  );

  const VALUES = ['whole', 'half', 'quarter', 'eighth', 'sixteenth'] as const;
  const valueName = $derived(
    `${editing.grid.dotted ? 'dotted ' : ''}${VALUES[editing.grid.length] ?? ''}${editing.grid.triplet ? ' of a triplet' : ''}`,
  );
  const spoken = $derived.by(() => {
    const { beat, string } = editing.grid;
    const { bar } = editing.frame;
    const number = Math.floor(beat / bar) + 1;
    const inBar = Number((inBeats(beat - (number - 1) * bar) + 1).toFixed(2));
    const here = notes.find((note) => note.beat === beat && note.string === string);
    const verdict = here ? verdictOf(here.index) : null;
    const how = verdict === null ? '' : `, ${verdict}`;
    const what = here ? `fret ${here.fret}, ${degreeOf(here)}${how}` : 'empty';
    return `Bar ${number}, beat ${inBar}, string ${string}: ${what}. Writing ${valueName} notes.`;
  });

  function onkeydown(event: KeyboardEvent) {
    if (event.altKey) return;
    if (event.ctrlKey || event.metaKey) {
      const key = event.key.toLowerCase();
      if (key === 'z' && !event.shiftKey) editing.undo();
      else if (key === 'y' || key === 'z') editing.redo();
      else return;
      event.preventDefault();
      event.stopPropagation();
      return;
    }
    const key = /^[a-z]$/iu.test(event.key) ? event.key.toLowerCase() : event.key;
    if (event.shiftKey && /^[a-z]$/iu.test(event.key)) return;
    if (!editing.type(key)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  function point(event: MouseEvent, row: readonly Beats[]) {
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    const step = Math.min(lengthOf(editing.grid), BEAT);
    const across = (event.clientX - box.left - LEFT - 10) / beatWidth;
    const exact = Math.max(0, at(row, 0) + across * BEAT);
    const string = Math.round((event.clientY - box.top - TOP) / STRING) + 1;
    const near = notes.find((note) => Math.abs(note.beat - exact) < BEAT / 5);
    const beat = near?.beat ?? Math.round(exact / step) * step;
    editing.point(Math.min(beat, editing.frame.end - step), Math.max(1, Math.min(strings, string)));
  }
</script>

<div class="flex items-center gap-2 text-sm print:hidden" aria-hidden="true">
  {#each LENGTHS as value, index (value)}
    <button
      class="min-w-8 shrink-0 rounded border px-1.5 py-0.5 tabular-nums {index ===
      editing.grid.length
        ? 'border-ink bg-ink text-paper'
        : 'border-line'}"
      tabindex="-1"
      title="{VALUES[index]} notes"
      onclick={() => {
        const by = index - editing.grid.length;
        for (let step = 0; step < Math.abs(by); step++) editing.type(by > 0 ? '-' : '+');
      }}>{['1', '½', '¼', '⅛', '1⁄16'][index]}</button
    >
  {/each}
  <span class="sr-only">{valueName} notes</span>
  <p
    class="flex flex-wrap gap-x-3 text-xs text-ink-soft max-md:hidden pointer-coarse:hidden"
    data-keys
  >
    {#each GRID_KEYS as [keys, does] (keys)}<span><kbd class="text-ink">{keys}</kbd> {does}</span
      >{/each}
  </p>
</div>
<!-- Keys are its own: it is a field to write in, and no list of parts. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  class="rounded outline-offset-2 focus-visible:outline-2"
  role="application"
  aria-label="Tablature. {spoken}"
  aria-roledescription="tablature"
  tabindex="0"
  data-grid
  data-notes={editing.lick.notes.length}
  bind:clientWidth={width}
  {onkeydown}
>
  {#each rows as row, which (which)}
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <svg
      class="block w-full select-none"
      {height}
      viewBox="0 0 {width} {height}"
      onclick={(event) => point(event, row)}
    >
      {#each range(1, strings + 1) as string (string)}
        <line
          x1={LEFT}
          x2={LEFT + 10 + inBeats(row.length * editing.frame.bar) * beatWidth}
          y1={y(string)}
          y2={y(string)}
          class="stroke-line-strong"
          stroke-width={0.6 + 0.16 * string}
        />
      {/each}
      {#each [...row, at(row, row.length - 1) + editing.frame.bar] as start (start)}
        <line
          x1={x(row, start) - 10}
          x2={x(row, start) - 10}
          y1={y(1)}
          y2={y(strings)}
          class="stroke-ink-soft"
        />
      {/each}
      {#each chords as { chord, beat, index } (index)}
        {#if inRow(row, beat)}
          <text x={x(row, beat) - 6} y={14} class="fill-ink text-sm font-semibold"
            >{showSymbol(chord.symbol)}</text
          >
        {/if}
      {/each}
      {#if sounding !== null && inRow(row, sounding)}
        <rect
          x={x(row, sounding) - 9}
          y={y(1) - 10}
          width="18"
          height={(strings - 1) * STRING + 20}
          class="fill-now opacity-20"
        />
      {/if}
      {#if inRow(row, editing.grid.beat)}
        <rect
          x={x(row, editing.grid.beat) - 11}
          y={y(editing.grid.string) - 9}
          width={Math.max(22, inBeats(lengthOf(editing.grid)) * beatWidth - 4)}
          height="18"
          rx="4"
          class="fill-next-tint stroke-next print:hidden"
          data-cursor
        />
      {/if}
      {#each notes as note (note.index)}
        {#if inRow(row, note.beat)}
          {@const text = fretText(note)}
          <rect
            x={x(row, note.beat) - 4 - 3.6 * text.length}
            y={y(note.string) - 8}
            width={8 + 7.2 * text.length}
            height="16"
            class="fill-sheet"
          />
          {@const verdict = verdictOf(note.index)}
          {#if verdict !== null && verdict !== 'as written'}
            <!-- Missed is struck out; what came otherwise is ringed. -->
            <rect
              x={x(row, note.beat) - 7 - 3.6 * text.length}
              y={y(note.string) - 9}
              width={14 + 7.2 * text.length}
              height="18"
              rx="9"
              class="fill-none stroke-ink"
              stroke-width="1.6"
              stroke-dasharray="3 2"
            />
          {/if}
          {#if verdict === 'missed'}
            <line
              x1={x(row, note.beat) - 9}
              y1={y(note.string) + 8}
              x2={x(row, note.beat) + 9}
              y2={y(note.string) - 8}
              class="stroke-ink"
              stroke-width="1.6"
            />
          {/if}
          <text
            x={x(row, note.beat)}
            y={y(note.string) + 5}
            text-anchor="middle"
            class="fill-ink text-[0.85rem] tabular-nums"
            data-fret={note.fret}
            data-verdict={verdict}>{text}</text
          >
        {/if}
      {/each}
      {#each degrees as { beat, text, role, strong } (beat)}
        {#if inRow(row, beat)}
          <text
            x={x(row, beat)}
            y={y(strings) + 22}
            text-anchor="middle"
            class="text-xs tabular-nums {role === 'outside' ||
            role === 'passing' ||
            role === 'approach'
              ? 'fill-ink-soft'
              : 'fill-ink'} {strong && role === 'chord tone' ? 'font-bold' : ''}"
            data-degree>{text}</text
          >
        {/if}
      {/each}
    </svg>
  {/each}
</div>
<span class="sr-only" aria-live="polite">{spoken}</span>
