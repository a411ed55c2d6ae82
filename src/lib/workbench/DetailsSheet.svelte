<!-- Title, key, time, tempo, feel and idiom; another key; numerals. Every change is an edit of the text. -->
<script lang="ts">
  import { type Chart, noteName } from 'corvel-core';
  import { readChart } from '$core/chart/form';
  import {
    shiftChart,
    toNumerals,
    toSymbols,
    transposeChart,
    writesNumerals,
  } from '$core/chart/rewrite';
  import { withHeader } from '$core/chart/summary';
  import { type Idiom, IDIOMS } from '$core/chart/syntax';
  import { type Key, keyOfSignature, parseKey, writeKey } from '$core/keys/keys';
  import { pitchClass } from '$core/notes/notes';
  import { range } from '$core/lists';
  import { showSymbol } from '$lib/ui/glyphs';

  interface Props {
    readonly text: string;
    readonly chart: Chart;
    /** The key the chart states or is heard in. */
    readonly home: Key | null;
    /** What its triads and dominants are played as, stated or guessed. */
    readonly idiom: Idiom;
    readonly onedit: (text: string) => void;
  }

  let { text, chart, home, idiom, onedit }: Props = $props();

  let refusal = $state('');
  const source = $derived(chart.source);

  function change(edited: string | null) {
    const result = edited === null ? null : readChart(edited);
    if (edited !== null && result?.ok) {
      refusal = '';
      onedit(edited);
    } else {
      refusal =
        result?.ok === false
          ? (result.problems[0]?.message ?? '')
          : 'The text cannot be read as it stands.';
    }
  }

  const setHeader = (name: string) => (event: Event & { currentTarget: HTMLInputElement }) => {
    const value = event.currentTarget.value.trim();
    change(withHeader(text, name, value === '' ? null : value));
  };

  /** A key that was typed, until it is said whether the chords move to it or it only names theirs. */
  let asked = $state.raw<{ readonly key: Key; readonly from: Key } | null>(null);

  function setKey(event: Event & { currentTarget: HTMLInputElement }) {
    const value = event.currentTarget.value.trim();
    const key = parseKey(value);
    const moves = key && home && pitchClass(key.tonic) !== pitchClass(home.tonic);
    // Numerals are of the key as it is written: they move with it. A key that was only heard is corrected.
    if (moves && !numerals && source.key !== null) asked = { key, from: home };
    else change(withHeader(text, 'key', value === '' ? null : value));
  }

  function answer(transposed: boolean) {
    if (!asked) return;
    const { key, from } = asked;
    asked = null;
    const moved = transposed ? transposeChart(text, from.tonic, key.tonic) : text;
    change(moved === null ? null : withHeader(moved, 'key', writeKey(key)));
  }

  /** Escape drops nothing that was typed: it is taken up first, and a question it raises stays to be answered. */
  function keepOnEscape(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    if (event.key !== 'Escape') return;
    event.currentTarget.blur();
    if (asked) {
      event.preventDefault();
      event.stopPropagation();
    }
  }

  const keys = $derived(
    home ? range(-6, 7).map((sharps) => keyOfSignature(sharps, home.mode)) : [],
  );
  const numerals = $derived(writesNumerals(text));
</script>

{#snippet field(
  label: string,
  name: string,
  value: string,
  placeholder: string,
  onchange = setHeader(name),
)}
  <label class="contents">
    <span class="text-ink-soft">{label}</span>
    <input
      class="field min-w-0"
      {name}
      {value}
      {placeholder}
      maxlength="200"
      {onchange}
      onkeydown={keepOnEscape}
    />
  </label>
{/snippet}

<div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
  {@render field('Title', 'title', source.title, 'Untitled')}
  {@render field(
    'Key',
    'key',
    source.key ? writeKey(source.key) : '',
    home ? `${writeKey(home)}, as heard` : 'none',
    setKey,
  )}
  {@render field('Time', 'time', `${source.time.beats}/${source.time.unit}`, '4/4')}
  {@render field('Tempo', 'tempo', source.tempo === null ? '' : String(source.tempo), '120')}
  {@render field('Feel', 'feel', source.feel ?? '', 'swing, straight …')}
  <label class="contents">
    <span class="text-ink-soft">Idiom</span>
    <select
      class="field min-w-0"
      name="idiom"
      value={source.idiom ?? ''}
      onchange={(event) => change(withHeader(text, 'idiom', event.currentTarget.value || null))}
    >
      <option value="">{source.idiom === null ? `${idiom}, as heard` : 'as heard'}</option>
      {#each IDIOMS as one (one)}<option value={one}>{one}</option>{/each}
    </select>
  </label>
</div>
{#if asked}
  {@const name = showSymbol(writeKey(asked.key))}
  <div role="alert" class="grid gap-2 rounded border border-ink p-2" data-key-asked>
    <p>
      Move every chord from {showSymbol(writeKey(asked.from))} to {name}, or only name the key?
    </p>
    <div class="flex flex-wrap gap-2">
      <button class="button-strong" onclick={() => answer(true)}>Transpose</button>
      <button class="button" onclick={() => answer(false)}>Only rename</button>
      <button class="button-quiet" onclick={() => (asked = null)}>Neither</button>
    </div>
  </div>
{/if}
<p role="status" class="text-now-text empty:hidden">{refusal}</p>
<div class="flex flex-wrap items-center gap-2 border-t border-line pt-3">
  <span class="mr-auto text-ink-soft">Transpose</span>
  <button class="button" onclick={() => change(shiftChart(text, -1, home))}>
    Half step down
  </button>
  <button class="button" onclick={() => change(shiftChart(text, 1, home))}> Up </button>
  {#if home}
    <label class="flex w-full items-center gap-2">
      <span class="text-ink-soft">to the key of</span>
      <select
        class="field"
        value={noteName(home.tonic)}
        onchange={(event) => {
          const key = keys.find(({ tonic }) => noteName(tonic) === event.currentTarget.value);
          if (key) change(transposeChart(text, home.tonic, key.tonic));
        }}
      >
        {#each keys as key (key.tonic)}
          <option value={noteName(key.tonic)}>{showSymbol(writeKey(key))}</option>
        {/each}
      </select>
    </label>
  {/if}
</div>
<div class="flex flex-wrap items-center gap-2 border-t border-line pt-3">
  <span class="mr-auto text-ink-soft">Write the chart in</span>
  <button class="button" disabled={!home} onclick={() => home && change(toNumerals(text, home))}>
    numerals
  </button>
  <button class="button" disabled={!numerals} onclick={() => change(toSymbols(text))}>
    symbols
  </button>
</div>
