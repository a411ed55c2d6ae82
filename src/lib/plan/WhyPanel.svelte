<!-- Why this choice: three sentences at the most; or one scale's price; or two choices side by side. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { getPlanModel } from './model.svelte';
  import { group } from '$core/lists';
  import Volume from '@lucide/svelte/icons/volume-2';
  import type { Chart, Option } from 'corvel-core';
  import { roleSentence } from '$core/harmony/roleWords';
  import { coverageOf } from '$core/lenses/coverage';
  import { reasonFor } from '$core/lenses/options';
  import type { ModeNaming } from '$lib/settings/settings';
  import { showSymbol } from '$lib/ui/glyphs';
  import { hearProgramme } from '$lib/audio/hear';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import { showMaterial } from '$lib/frame/material';
  import { halfBarsOf } from '$lib/study/choices';
  import { thenPlay } from '$lib/study/edits';
  import { rankSentence } from './optionWords';

  interface Props {
    readonly chart: Chart;
    readonly naming: ModeNaming;
    readonly held: Option | null;
    readonly onrelease: () => void;
  }

  let { chart, naming, held, onrelease }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  const chord = $derived(model.now?.chord ?? null);
  const option = $derived(model.preview ?? model.current);
  const compared = $derived(held && option && held.material !== option.material ? option : null);
  /** The half bar from which a second sound is played; none in a chord too short for two. */
  const second = $derived(model.now ? Math.floor(halfBarsOf(chart, model.now) / 2) : 0);
  const role = $derived(study.reading?.chords[model.now?.index ?? -1]?.role);
  const remark = $derived(model.remarksNow[0]);

  /** The price of one scale over the whole chart: where it leaves something unsaid. */
  const price = $derived.by(() => {
    if (!option || option.lens !== 'key-scale') return null;
    const first = group(chart.chords, ({ chord: { symbol } }) => symbol);
    return coverageOf(chart, option.material).filter(
      ({ played, assessment }) =>
        first.get(played.chord.symbol)?.[0]?.index === played.index &&
        assessment.missing.length > 0,
    );
  });
</script>

<!-- What the chord itself is doing here, whatever is played over it. -->
{#snippet place()}
  {#if model.fast}
    <p class="mt-1.5 text-sm">
      {model.fast.seconds.toFixed(1)} seconds are too short to outline this chord: {showSymbol(
        model.fast.cover,
      )}.
    </p>
  {:else if role && chord}
    <p class="mt-1.5 text-sm">{showSymbol(roleSentence(role, chord.symbol))}</p>
  {/if}
{/snippet}

{#if chord && held && compared}
  {#await import('./SideBySide.svelte') then { default: SideBySide }}
    <SideBySide {chord} one={held} other={compared} {naming} {onrelease} />
  {/await}
{:else if chord && option}
  <div class="mb-1 flex items-center">
    <h2 class="font-semibold">
      {model.preview ? 'Looking at' : 'Why'}
      {showMaterial(option.material, naming)}
    </h2>
    <button
      class="button-quiet ml-auto text-sm"
      title="Hear it over the chord"
      onclick={() =>
        void pageTransport().play(hearProgramme(chord, option.material.notes), {
          parts: ['comp', 'line'],
        })}
    >
      <Volume size={15} aria-hidden="true" />Hear it
    </button>
  </div>
  {#if held}
    <p class="text-sm text-ink-soft">
      Comparing {showMaterial(held.material, naming)}: point at another scale to compare.
      {#if second > 0}
        <button
          class="underline"
          title="Play it over the rest of the chord, after what is chosen"
          onclick={() => {
            if (model.now && held) study.edit(thenPlay(model.now, held, second));
            onrelease();
          }}>Use it second</button
        >
      {/if}
      <button class="underline" onclick={onrelease}>Stop comparing</button>
    </p>
  {:else}
    <p class="text-sm" data-why>
      {showSymbol(reasonFor(chord, option))}
      {#if !price}{rankSentence(option)}{/if}
      {#if model.adviceNow}{showSymbol(model.adviceNow)}{:else if remark}{showSymbol(
          remark.text,
        )}{/if}
    </p>
  {/if}
  {#if price && price.length > 0 && !held}
    <h3 class="mt-1.5 text-sm font-semibold">Where one scale falls short</h3>
    <ul class="text-[13px]" data-price>
      {#each price as { played, sentence } (played.index)}
        <li>
          <button class="text-left hover:underline" onclick={() => study.go(played.index)}
            >{showSymbol(sentence)}</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  {@render place()}
  <TheoryLink part="choosing-what-to-play" of="choosing scales" />
{:else if chord && model.now}
  <h2 class="font-semibold">{showMaterial(model.now.material, naming)}</h2>
  <p class="text-sm text-ink-soft">Your own choice: it is not one of the suggestions.</p>
{/if}
