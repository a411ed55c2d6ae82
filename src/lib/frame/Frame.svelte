<!--
  The frame every screen of a chart stands in: head, strip, neck, what the screen is for; its keys
  and their help; whether it is saved, and two versions side by side when it is not.
-->
<script lang="ts">
  import { type ComponentProps, onMount, type Snippet, untrack } from 'svelte';
  import { goto, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { speakChord } from '$lib/ui/glyphs';
  import type { Lane } from '$core/crossings/lanes';
  import { addressOf, writePlace } from '$lib/study/place';
  import { resized } from '$lib/study/loops';
  import type { Loop } from '$lib/study/playing';
  import { getStudy } from '$lib/study/study.svelte';
  import ChartHead from './ChartHead.svelte';
  import type { MenuItem } from './menu';
  import type { Screen } from './screens';
  import { afterPaint } from '$lib/ui/afterPaint.svelte';
  import Keys from './Keys.svelte';
  import type { Actions } from './shortcuts';
  import Strip from './Strip.svelte';

  interface Props {
    readonly screen: Screen;
    /** The screen's name in the browser's title. */
    readonly name: string;
    readonly actions: Actions;
    readonly heading?: string | undefined;
    /** What the screen offers in the menu of the head. */
    readonly menu?: readonly MenuItem[];
    /** The name of the menu's item whose sheet is open; null for none. */
    sheet?: string | null;
    /** What is said of the change, for those who listen. */
    readonly says?: string;
    /** In place of the strip, as while the bars are edited. */
    readonly instead?: Snippet | null;
    /** Beside the strip. */
    readonly beside?: Snippet | null;
    readonly neck?: Snippet;
    readonly children?: Snippet;
    /** The chord sounding on the strip, and the one to follow; the place's own when left out. */
    readonly now?: number | null;
    readonly next?: number | null;
    readonly lane?: Lane | null;
    readonly ongo?: (index: number) => void;
    readonly onedit?: (index: number) => void;
    /** Opens the chart's text here; without it, Plan does. */
    readonly ontext?: () => void;
    /** Whether all of it stands on one screen, its parts scrolling within themselves. */
    readonly fitted?: boolean;
    /** Whether it is as high as a narrow window too, of a phone or a tablet held upright: what it holds gives way. */
    readonly fittedNarrow?: boolean;
    /** Whether the strip shows the form alone, without its lanes. */
    readonly shut?: boolean;
    /** Whether what is typed belongs to a part of the screen, as while bars are edited. */
    readonly typing?: boolean;
    /** What landed of the targets of chords. */
    readonly landings?: ComponentProps<typeof Strip>['landings'];
    /** Where the music is on the strip. */
    readonly hand?: ComponentProps<typeof Strip>['hand'];
    /** Takes the bars chosen to go round; the study does where nothing is said. */
    readonly onloop?: (loop: Loop | null) => void;
    /** The chord a loop is made longer from; the place's own when left out. */
    readonly loopAt?: number | undefined;
  }

  let {
    screen,
    name,
    actions,
    heading,
    menu = [],
    sheet = $bindable(null),
    says = '',
    instead = null,
    beside = null,
    neck,
    children,
    now,
    next,
    lane = null,
    ongo,
    onedit,
    ontext,
    fitted = false,
    fittedNarrow = false,
    shut = false,
    typing = false,
    landings = [],
    hand = null,
    onloop,
    loopAt,
  }: Props = $props();

  const study = getStudy();
  const { document, settings } = study;

  let keysShown = $state(false);
  const all = $derived<Actions>({
    next: () => study.step(1),
    previous: () => study.step(-1),
    firstChord: () => study.go(0),
    slideZone: (key) => study.slideZone(key === ']' ? 1 : -1),
    undo: document.undo,
    redo: document.redo,
    toNeck: () => toNeck(),
    toPlay: () => void goto(addressOf(study.id, 'play', study.place)),
    play: () => void goto(`${addressOf(study.id, 'play', study.place)}&go`),
    loop: (key) => (key === 'ArrowUp' ? setLoop(null) : resizeLoop(key === 'ArrowRight' ? 1 : -1)),
    ...actions,
  });

  const setLoop = (loop: Loop | null) => (onloop ? onloop(loop) : study.setLoop(loop));
  function resizeLoop(by: number) {
    const { chart, nowIndex, loop } = study;
    if (chart) setLoop(resized(chart, loopAt ?? nowIndex, loop, by));
  }

  /** Puts the focus on the neck; where it is there already, back on the form. */
  function toNeck() {
    const { activeElement } = globalThis.document;
    const there = activeElement?.closest('[data-neck]') !== null && activeElement !== null;
    const wanted = there ? '[data-chord][tabindex="0"]' : '[data-neck] [tabindex="0"][data-mark]';
    globalThis.document.querySelector<HTMLElement | SVGElement>(wanted)?.focus();
  }

  onMount(() => {
    globalThis.document.documentElement.dataset['ready'] = screen;
    return () => {
      delete globalThis.document.documentElement.dataset['ready'];
    };
  });

  // Where the player is, said to the address, the links and those who listen once it is painted.
  // The address holds it, so that a reload or a shared link comes back to it.
  let place = $state.raw(study.place);
  let announced = $state('');
  $effect(() => {
    const { place: here, now: sounding, next: coming } = study;
    const change = says;
    if (here === untrack(() => place)) return;
    return afterPaint(() => {
      place = here;
      replaceState(writePlace(page.url, here), {});
      const after = coming ? `, next ${speakChord(coming.chord)}` : '';
      const chords = sounding ? speakChord(sounding.chord) + after : '';
      announced = [chords, change].filter(Boolean).join('. ');
    });
  });
</script>

<svelte:head>
  <title>{study.title} · {name} · Corvel</title>
</svelte:head>

<main
  class={[
    'mx-auto flex min-h-dvh max-w-[100rem] flex-col gap-1 px-4 pt-0.5 pb-0.5 print:h-auto print:min-h-0 print:p-0',
    fitted && 'lg:h-dvh lg:min-h-[46rem]',
    fittedNarrow && 'max-lg:h-dvh',
  ]}
>
  <ChartHead {place} {screen} {heading} {menu} bind:sheet onkeys={() => (keysShown = true)} />

  <div class="grid shrink-0 gap-4 print:hidden {beside ? 'lg:grid-cols-[1fr_24rem]' : ''}">
    {#if instead}
      {@render instead()}
    {:else if study.chart && study.reading}
      <Strip
        chart={study.chart}
        reading={study.reading}
        now={now === undefined ? (study.now?.index ?? null) : now}
        next={next === undefined ? (study.next?.index ?? null) : next}
        names={study.view.names}
        planned={study.planned}
        {lane}
        naming={settings.current.modeNames}
        opened={study.view.opened}
        {shut}
        ongo={ongo ?? study.go}
        onedit={onedit ?? ongo ?? study.go}
        unreadable={study.unreadable}
        loop={study.loop}
        onloop={setLoop}
        {hand}
        {landings}
      />
    {:else}
      <p class="py-6 text-ink-soft">
        Nothing can be read yet. Open the text and write chords between bar lines.
      </p>
    {/if}
    {@render beside?.()}
  </div>

  {#if study.problems[0] && !beside}
    <p class="shrink-0 text-sm text-now-text" role="status" data-unreadable>
      Line {study.problems[0].line}, column {study.problems[0].column}: {study.problems[0].message}
      {#if ontext}
        <button class="underline" onclick={ontext}>Correct the text</button>
      {:else}
        <a class="underline" href="{addressOf(study.id, '', study.place)}&edit=text"
          >Correct the text</a
        >
      {/if}
    </p>
  {/if}
  {@render neck?.()}
  {@render children?.()}

  <p class="sr-only" aria-live="polite">{announced}</p>
  {#await import('$lib/ui/Explanation.svelte') then { default: Explanation }}
    <Explanation />
  {/await}
</main>

<Keys
  actions={typing ? { undo: document.undo, redo: document.redo } : all}
  {settings}
  bind:shown={keysShown}
/>
{#if document.theirs}
  {#await import('./ConflictDialog.svelte') then { default: ConflictDialog }}
    <ConflictDialog {document} />
  {/await}
{/if}
