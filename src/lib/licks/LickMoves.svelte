<!-- Moving a lick, making an exercise of it, and finding where it fits. -->
<script lang="ts">
  import { shiftChart } from '$core/chart/rewrite';
  import { type Lick } from '$core/licks/lick';
  import { CHAIN_WORDS, LICK_CHAINS, type LickChain } from '$core/licks/moving';
  import { refinger } from '$core/licks/refinger';
  import { refound } from '$core/licks/refound';
  import type { Zone } from 'corvel-core';
  import { showSymbol } from '$lib/ui/glyphs';
  import { addressOf } from '$lib/study/place';
  import { openPage, staying } from '$lib/ui/anew';
  import { inform, warn } from '$lib/ui/messages.svelte';
  import { findPlaces, putOn } from './api';
  import type { LickEditing } from './editing.svelte';
  import type { LickPlaceShown, LickPlacesShown } from './messages';
  import { counted } from '$core/words';
  import { notesToKeep } from '$core/licks/kept';

  interface Props {
    readonly editing: LickEditing;
    readonly zones: readonly Zone[];
    chain: LickChain | null;
    readonly onnew: (lick: Lick) => void;
  }

  let { editing, zones, chain = $bindable(), onnew }: Props = $props();

  let keep = $state<'shape' | 'pitch'>('shape');
  let zone = $state('');
  let found = $state.raw<LickPlacesShown | null>(null);
  let looking = $state(false);

  const asked = $derived(zones.find(({ low, high }) => `${low}-${high}` === zone) ?? null);

  /** The lick and its chords so many half steps on; what is lost on the way is said. */
  function move(semitones: number) {
    const { lick, key, frame, notes } = editing;
    const { neck } = frame;
    const moved =
      keep === 'pitch' && asked
        ? refound(neck, notes, semitones, asked)
        : refinger({ neck, notes, semitones, keep, zone: null });
    const chart =
      semitones === 0 ? lick.chart : (shiftChart(lick.chart, semitones, key) ?? lick.chart);
    const lost = lick.notes.length - moved.notes.length;
    if (lost > 0)
      inform(
        `${counted(lost, 'note lies', 'notes lie')} off the neck there and ${lost === 1 ? 'is' : 'are'} left out.`,
      );
    else if (moved.outOfReach.length > 0) {
      inform(`${counted(moved.outOfReach.length, 'note lies', 'notes lie')} outside the zone.`);
    }
    editing.change({
      chart,
      notes: notesToKeep(moved.notes),
    });
  }

  async function look() {
    looking = true;
    found = await findPlaces(editing.id);
    looking = false;
    if (found === null) warn('The server does not answer.');
  }

  async function put(place: LickPlaceShown, as: 'sheet' | 'melody') {
    const stays = staying();
    const screen = as === 'sheet' ? 'play' : 'practice';
    if (!(await putOn(editing.id, place, as))) warn('It could not be put there: try again.');
    else if (!(await stays())) inform('The lick is on the chart.');
    else await openPage(addressOf(place.chart, screen, { index: place.index, zone: null }));
  }
</script>

<div class="flex min-w-0 flex-col gap-3 text-sm print:hidden">
  <section aria-label="Move" class="grid gap-1.5">
    <h3 class="heading text-base">Move</h3>
    <div class="flex flex-wrap items-center gap-2">
      <button class="button" onclick={() => move(-1)}>Half step down</button>
      <button class="button" onclick={() => move(1)}>Half step up</button>
      <button class="button" onclick={() => move(5)}>Fourth up</button>
      <label class="flex items-center gap-1">
        <span class="text-ink-soft">as</span>
        <select class="field" name="keep" bind:value={keep}>
          <option value="shape">the same shape</option>
          <option value="pitch">refingered</option>
        </select>
      </label>
      {#if keep === 'pitch'}
        <label class="flex items-center gap-1">
          <span class="text-ink-soft">in</span>
          <select class="field" name="zone" bind:value={zone}>
            <option value="">any zone</option>
            {#each zones as { low, high } (low)}<option value="{low}-{high}">{low}–{high}</option
              >{/each}
          </select>
        </label>
        <button class="button" onclick={() => move(0)}>Refinger</button>
      {/if}
    </div>
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">As an exercise</span>
      <select
        class="field min-w-0 flex-1"
        name="chain"
        value={chain ?? ''}
        onchange={(event) => {
          chain = LICK_CHAINS.find((one) => one === event.currentTarget.value) ?? null;
        }}
      >
        <option value="">no, as it is</option>
        {#each LICK_CHAINS as one (one)}<option value={one}>{CHAIN_WORDS[one]}</option>{/each}
      </select>
    </label>
    <button
      class="button justify-self-start"
      onclick={() =>
        onnew({ ...editing.lick, title: `${editing.lick.title} (copy)`, source: 'mine' })}
      >Make a copy</button
    >
  </section>
  <section aria-label="Where it fits" class="grid gap-1.5">
    <h3 class="heading text-base">Where it fits</h3>
    <button class="button justify-self-start" disabled={looking} onclick={look} data-find
      >{looking ? 'Looking…' : 'Find it in my charts'}</button
    >
    {#if found}
      <ul
        class="grid max-h-64 gap-1 overflow-y-auto [scrollbar-width:thin]"
        data-places={found.places.length}
      >
        {#each found.places as place, which (which)}
          <li class="flex items-stretch rounded border border-line">
            <button
              class="min-w-0 flex-1 px-2 py-1 text-left hover:bg-sheet"
              title="Put it there, and play it with the band"
              onclick={() => put(place, 'sheet')}
            >
              <span class="heading">{place.title}</span>
              <span class="block">{showSymbol(place.sentence)}</span>
            </button>
            {#if place.index === 0}
              <button
                class="border-l border-line px-2 text-ink-soft hover:bg-sheet hover:text-ink"
                title="Make it the melody of this chart"
                onclick={() => put(place, 'melody')}>Use as the chart’s melody</button
              >
            {/if}
          </li>
        {:else}
          <li role="status">It fits none of your charts, in any key.</li>
        {/each}
      </ul>
      {#if found.more > 0}
        <p class="text-ink-soft">{found.more} more places; these are the best.</p>
      {/if}
    {/if}
  </section>
</div>
