<!-- Title, key, time, tempo and feel; another key; numerals. Every change is an edit of the text. -->
<script lang="ts">
  import Music2 from '@lucide/svelte/icons/music-2';
  import { type Chart, readChart } from '$core/chart/form';
  import { shiftChart, toNumerals, toSymbols, transposeChart } from '$core/chart/rewrite';
  import { withHeader } from '$core/chart/summary';
  import { type Key, keyOfSignature, writeKey } from '$core/keys/keys';
  import { noteName } from '$core/notes/notes';
  import { range } from '$core/lists';
  import { showSymbol } from '$lib/ui/glyphs';
  import Popover from '$lib/ui/Popover.svelte';

  interface Props {
    open: boolean;
    readonly text: string;
    readonly chart: Chart;
    /** The key the chart states or is heard in. */
    readonly home: Key | null;
    readonly onedit: (text: string) => void;
  }

  let { open = $bindable(), text, chart, home, onedit }: Props = $props();

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

  const keys = $derived(
    home ? range(-6, 7).map((sharps) => keyOfSignature(sharps, home.mode)) : [],
  );
  const numerals = $derived(/(?:^|[|\s])[b#]*[IViv]+/mu.test(text.replace(/^\s*\w+:.*$/gmu, '')));
</script>

{#snippet field(label: string, name: string, value: string, placeholder: string)}
  <label class="contents">
    <span class="text-ink-soft">{label}</span>
    <input class="field min-w-0" {value} {placeholder} maxlength="200" onchange={setHeader(name)} />
  </label>
{/snippet}

<Popover
  bind:open
  label="Key and tempo"
  title="Key, tempo and transposing (K)"
  button="button-quiet text-sm"
  sheet="grid w-80 gap-3"
  side="bottom"
>
  {#snippet trigger()}
    <Music2 size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Key and tempo</span>
  {/snippet}
  <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
    {@render field('Title', 'title', source.title, 'Untitled')}
    {@render field(
      'Key',
      'key',
      source.key ? writeKey(source.key) : '',
      home ? `${writeKey(home)}, as heard` : 'none',
    )}
    {@render field('Time', 'time', `${source.time.beats}/${source.time.unit}`, '4/4')}
    {@render field('Tempo', 'tempo', source.tempo === null ? '' : String(source.tempo), '120')}
    {@render field('Feel', 'feel', source.feel ?? '', 'swing, straight …')}
  </div>
  <p role="status" class="text-now-text empty:hidden">{refusal}</p>
  <div class="flex flex-wrap items-center gap-2 border-t border-line pt-3">
    <span class="mr-auto text-ink-soft">Transpose</span>
    <button
      class="button"
      title="A half step down (−)"
      onclick={() => change(shiftChart(text, -1, home))}
    >
      Half step down
    </button>
    <button
      class="button"
      title="A half step up (+)"
      onclick={() => change(shiftChart(text, 1, home))}
    >
      Up
    </button>
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
</Popover>
