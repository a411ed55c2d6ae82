<!-- The head of every screen of a chart: its title and facts, its screens, undo, whether it is saved. -->
<script lang="ts">
  import BookOpen from '@lucide/svelte/icons/book-open';
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { Snippet } from 'svelte';
  import { withHeader } from '$core/chart/summary';
  import { type Key, keyName, writeKey } from '$core/keys/keys';
  import { addressOf, type ChartPlace } from '$lib/study/place';
  import TodayMark from '$lib/log/TodayMark.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import InstrumentMenu from './InstrumentMenu.svelte';
  import SaveState from './SaveState.svelte';
  import { SCREENS, type Screen } from './screens';

  interface Props {
    readonly screen: Screen;
    /** The place in the chart that the links to its other screens lead to. */
    readonly place: ChartPlace;
    /** What the screen shows, under the chart's title; its facts when left out. */
    readonly heading?: string | undefined;
    /** What else the screen offers. */
    readonly tools?: Snippet | undefined;
    readonly onkeys: () => void;
  }

  let { screen, place, heading, tools, onkeys }: Props = $props();

  const study = getStudy();
  const { document } = study;

  const key = $derived.by(() => {
    if (!study.reading) return null;
    const { key: found, given } = study.reading.key;
    if (!found) return 'no single key';
    return given ? showSymbol(keyName(found)) : `${showSymbol(keyName(found))}, as heard`;
  });
  /** Below this it is said which other key may be meant. */
  const CERTAIN = 0.85;
  const otherKey = $derived.by(() => {
    const { given, confidence, likeliest } = study.reading?.key ?? {};
    return given === false && (confidence ?? 1) < CERTAIN ? (likeliest?.[1]?.key ?? null) : null;
  });
  /** The chart states the key that was chosen; its chords stay as they are. */
  function chooseKey(chosen: Key) {
    document.edit({ text: withHeader(document.text, 'key', writeKey(chosen)) });
  }
  /** Jazz is not said: there every chord has its own scale, as everywhere. */
  const idiom = $derived.by(() => {
    const { name, given } = study.reading?.idiom ?? { name: 'jazz', given: false };
    return name === 'jazz' ? null : given ? name : `${name}, as heard`;
  });
  const facts = $derived.by(() => {
    if (heading !== undefined) return [heading];
    const { source } = study.chart ?? {};
    if (!source) return [];
    return [
      key,
      `${source.time.beats}/${source.time.unit}`,
      source.tempo === null ? null : `${source.tempo} bpm`,
      source.feel,
      study.reading?.form,
      idiom,
    ].filter((fact) => fact !== null && fact !== undefined);
  });
</script>

<header
  class="flex min-h-10 shrink-0 items-center gap-x-3 gap-y-1 max-lg:flex-wrap lg:max-2xl:gap-x-1.5 print:hidden"
>
  <a class="button-quiet -ml-2 shrink-0 text-sm print:hidden" href="/" title="Every chart">
    <BookOpen size={16} aria-hidden="true" />Book
  </a>
  <h1 class="heading min-w-0 text-xl/8 lg:max-w-[22rem] lg:truncate" title={study.title}>
    {study.title}
  </h1>
  <!-- A fact there is no room for wraps out of sight, the first too: none is cut. -->
  <p
    class="mr-auto flex min-w-0 flex-wrap gap-x-3 text-sm text-ink-soft before:-mr-3 before:h-5 before:content-[''] max-sm:h-5 max-sm:flex-1 max-sm:overflow-hidden max-sm:whitespace-nowrap lg:h-5 lg:flex-1 lg:overflow-hidden lg:whitespace-nowrap"
    data-heading
  >
    {#each facts as fact, order (fact)}
      <span class={order > 1 || heading !== undefined ? 'lg:max-xl:hidden' : ''}>{fact}</span>
      {#if order === 0 && heading === undefined && otherKey}
        <button
          class="underline"
          title="Choose {keyName(otherKey)} as the key; the chords stay as they are"
          onclick={() => chooseKey(otherKey)}
          data-other-key>or {showSymbol(keyName(otherKey))}?</button
        >
      {/if}
    {/each}
  </p>
  <SaveState />
  <TodayMark />
  <div
    class="flex max-sm:min-w-52 max-sm:flex-1 max-sm:basis-0 lg:shrink-0 print:hidden max-lg:flex-wrap"
  >
    <button
      class="button-quiet"
      disabled={!document.canUndo}
      onclick={document.undo}
      aria-label="Undo"
      title="Undo (Ctrl Z)"
    >
      <Undo size={16} aria-hidden="true" />
    </button>
    <button
      class="button-quiet"
      disabled={!document.canRedo}
      onclick={document.redo}
      aria-label="Redo"
      title="Redo (Ctrl Y)"
    >
      <Redo size={16} aria-hidden="true" />
    </button>
    {@render tools?.()}
    <nav class="flex" aria-label="Screens of this chart">
      {#each SCREENS as { id, name, title, path, Icon } (id)}
        {#if id !== screen}
          <a
            class="button-quiet text-sm"
            href={addressOf(study.id, path, place)}
            title="{name}: {title.charAt(0).toLowerCase()}{title.slice(1)}"
          >
            <Icon size={16} aria-hidden="true" /><span
              class={screen === 'practice' ? 'max-2xl:sr-only' : 'max-xl:sr-only'}>{name}</span
            >
          </a>
        {/if}
      {/each}
    </nav>
    <button class="button-quiet max-sm:hidden" onclick={onkeys} aria-label="Keys" title="Keys (?)">
      <Keyboard size={16} aria-hidden="true" />
    </button>
    <InstrumentMenu />
    <ThemeButton />
  </div>
</header>
