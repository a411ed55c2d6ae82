<!-- The head of every screen of a chart: its title and key, its screens, whether it is saved, one menu. -->
<script lang="ts">
  import BookOpen from '@lucide/svelte/icons/book-open';
  import { mode, toggleMode } from 'mode-watcher';
  import { withHeader } from '$core/chart/summary';
  import { type Key, keyName, writeKey } from '$core/keys/keys';
  import { addressOf, type ChartPlace } from '$lib/study/place';
  import TodayMark from '$lib/log/TodayMark.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import HeadMenu from './HeadMenu.svelte';
  import type { MenuItem } from './menu';
  import SaveState from './SaveState.svelte';
  import { SCREENS, type Screen } from './screens';

  interface Props {
    readonly screen: Screen;
    /** The place in the chart that the links to its other screens lead to. */
    readonly place: ChartPlace;
    /** What the screen shows; the chart's key when left out. */
    readonly heading?: string | undefined;
    /** What else the screen offers in the menu. */
    readonly menu?: readonly MenuItem[];
    /** The name of the menu's item whose sheet is open; null for none. */
    sheet?: string | null;
    readonly onkeys: () => void;
  }

  let { screen, place, heading, menu = [], sheet = $bindable(null), onkeys }: Props = $props();

  const study = getStudy();
  const { document } = study;

  const key = $derived.by(() => {
    if (!study.reading) return '';
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

  /** Whether what is played here counts for today. */
  const counts = $derived(screen === 'play' || screen === 'practice');

  const items = $derived<readonly MenuItem[]>([
    ...SCREENS.filter(({ id }) => id !== screen).map(({ name, path }) => ({
      name,
      href: addressOf(study.id, path, place),
      small: true,
    })),
    { name: 'Undo', keys: 'Ctrl Z', disabled: !document.canUndo, run: document.undo },
    { name: 'Redo', keys: 'Ctrl Y', disabled: !document.canRedo, run: document.redo },
    ...menu,
    {
      name: 'Instrument and tuning',
      begins: true,
      sheet: { look: 'grid w-72 gap-2', content: instrument },
    },
    { name: mode.current === 'dark' ? 'Light theme' : 'Dark theme', run: toggleMode },
    { name: 'Log', href: '/log' },
    { name: 'Keys', keys: '?', run: onkeys },
  ]);
</script>

{#snippet instrument()}
  {#await import('./InstrumentSheet.svelte') then { default: InstrumentSheet }}
    <InstrumentSheet />
  {/await}
{/snippet}

<header
  class="grid h-11 shrink-0 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 sm:max-lg:h-auto sm:max-lg:gap-y-1 lg:grid-cols-[minmax(0,1fr)_auto_fit-content(18rem)] xl:grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] short:h-10 short:grid-cols-[minmax(0,1fr)_auto_auto] print:hidden"
>
  <div class="flex min-w-0 items-center gap-x-3">
    <a class="button-quiet -ml-2 shrink-0 text-sm" href="/" title="Every chart">
      <BookOpen size={16} aria-hidden="true" /><span class="max-sm:sr-only">Book</span>
    </a>
    <h1 class="heading min-w-0 truncate text-xl/8" title={study.title}>{study.title}</h1>
    <p
      class="flex min-w-0 gap-x-2 truncate text-sm text-ink-soft max-sm:hidden short:hidden {heading ===
      undefined
        ? 'shrink-[3]'
        : 'flex-1 max-xl:hidden'}"
      data-heading
    >
      <span class="truncate" title={heading ?? key}>{heading ?? key}</span>
      {#if heading === undefined && otherKey}
        <button
          class="shrink-0 underline"
          title="Choose {keyName(otherKey)} as the key; the chords stay as they are"
          onclick={() => chooseKey(otherKey)}
          data-other-key>or {showSymbol(keyName(otherKey))}?</button
        >
      {/if}
    </p>
  </div>
  <nav
    class="flex justify-self-center max-sm:hidden sm:max-lg:order-last sm:max-lg:col-span-2 short:order-none short:col-span-1"
    aria-label="Screens of this chart"
  >
    {#each SCREENS as { id, name, title, path } (id)}
      <a
        class="flex min-h-9 w-20 items-center justify-center rounded-sm text-sm pointer-coarse:min-h-11 short:min-h-10 short:w-18 {id ===
        screen
          ? 'bg-ink text-paper forced-colors:outline-2'
          : 'hover:bg-line'}"
        href={addressOf(study.id, path, place)}
        aria-current={id === screen ? 'page' : undefined}
        {title}>{name}</a
      >
    {/each}
  </nav>
  <div class="flex min-w-0 items-center justify-end gap-x-2 lg:max-xl:min-w-44">
    <SaveState brief={counts} />
    {#if counts}<TodayMark />{/if}
    <HeadMenu {items} bind:sheet />
  </div>
</header>
