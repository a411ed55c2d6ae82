<!-- The practice sheet: an exercise or a line as staff and tablature, played and shown on the neck. -->
<script lang="ts">
  import { onDestroy, onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Dice from '@lucide/svelte/icons/dices';
  import type { Passage } from 'corvel-core';
  import { LINE_KINDS } from '$core/exercises/kinds';
  import { EXERCISE_WORDS } from '$core/exercises/words';
  import { DEFAULT_TEMPO } from '$core/time/tempo';
  import { passageProgramme } from '$lib/audio/programme';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import PrintHeading from '$lib/frame/PrintHeading.svelte';
  import Frame from '$lib/frame/Frame.svelte';
  import { paperItems } from '$lib/frame/menu';
  import type { Actions } from '$lib/frame/shortcuts';
  import { createBlock } from '$lib/log/block.svelte';
  import CareNotice from '$lib/log/CareNotice.svelte';
  import SessionBar from '$lib/log/SessionBar.svelte';
  import { keepsStints } from '$lib/log/keeper.svelte';
  import Notation from '$lib/notation/Notation.svelte';
  import { loopAround } from '$lib/study/loops';
  import { madeWith } from '$lib/study/made';
  import { addressOf } from '$lib/study/place';
  import { inSecondFrame, late } from '$lib/ui/afterPaint.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { warn } from '$lib/ui/messages.svelte';
  import LineWords from './LineWords.svelte';
  import { coming, momentAt, momentsOf, soundingAt } from '$lib/notation/moments';
  import OwnPattern from './OwnPattern.svelte';
  import { createPractice } from './practice.svelte';
  import SheetControls from './SheetControls.svelte';
  import SheetMore from './SheetMore.svelte';
  import SheetNeck from './SheetNeck.svelte';
  import SheetTools from './SheetTools.svelte';

  const study = getStudy();
  const practice = createPractice(
    study,
    untrack(() => study.nowIndex),
  );
  const transport = pageTransport();
  onDestroy(transport.stop);

  let speed = $state(1);
  /** Whether kept sheets and what is seldom changed stand in sight. */
  let unfolded = $state(study.plan.sheets.length > 0);
  /** Whether what the exercise is made of stands in sight on a phone, whose screen is the sheet's. */
  let setting = $state(false);
  /** The note the player has stepped to by hand; -1 before the first. */
  let stepped = $state(-1);

  const passage = $derived(practice.passage);
  const beat = $derived(transport.beat ?? passage?.notes[stepped]?.beat ?? null);
  const moments = $derived(passage ? momentsOf(passage) : []);
  /** The clock goes on at every frame; what is drawn changes with the notes. */
  const moment = $derived(momentAt(moments, beat));
  const sounding = $derived(passage ? soundingAt(passage, moment) : []);
  const next = $derived(passage ? coming(passage, moment) : []);
  const chordNow = $derived(
    sounding[0]?.chord ?? passage?.notes[Math.max(0, stepped)]?.chord ?? null,
  );
  const chordNext = $derived.by(() => {
    const later = next[0]?.chord ?? null;
    return later === chordNow ? null : later;
  });

  function play(what: Passage) {
    void transport.play(passageProgramme(what, speed), { parts: ['line'] });
  }

  // What plays is what is shown: another exercise, another speed, and it is played instead.
  $effect(() => {
    const shown = passage;
    void speed;
    untrack(() => {
      stepped = -1;
      if (!transport.playing) return;
      if (shown) play(shown);
      else transport.stop();
    });
  });

  function toggle() {
    if (transport.playing) transport.stop();
    else if (passage) play(passage);
  }

  /** The block of a session this was opened for: the sheet that was kept last, if no other is named. */
  const block = createBlock(() => transport.playing);
  onMount(() => {
    if (page.url.searchParams.get('sheet') !== 'last') return;
    const last = study.plan.sheets.at(-1);
    if (last) practice.take(last);
  });

  const EXTENTS = { isolate: 'chord', pair: 'two chords', whole: 'form' } as const;
  keepsStints(() => {
    if (!transport.playing || !passage) return null;
    const { kind, zone, extent } = practice.settings;
    return {
      chart: study.id,
      exercise: practice.opened ? 'sheet' : kind,
      zone: { low: zone.low, high: zone.high },
      extent: practice.opened ? 'form' : EXTENTS[extent],
      tempo: (passage.tempo ?? DEFAULT_TEMPO) * speed,
    };
  });

  function step(by: number) {
    transport.stop();
    const last = (passage?.notes.length ?? 0) - 1;
    stepped = Math.max(0, Math.min(last, stepped + by));
  }

  /** The sheet over the band: the kept one, or the exercise as it is set; its chords are the loop. */
  function withBand() {
    const { chart } = study;
    // A melody from a file is found there only once it is kept.
    const refusal = practice.opened && practice.kept === null ? practice.keep('') : null;
    if (refusal) {
      warn(refusal);
      return;
    }
    const { kind, zone, extent, from } = practice.settings;
    const around = chart && extent !== 'whole' && !practice.opened;
    const loop = around
      ? loopAround(chart, from, extent === 'isolate' ? 'chord' : 'two chords')
      : study.view.play.loop;
    const line = { line: kind, ...madeWith(practice.settings) };
    study.look({
      play: { ...study.view.play, ...line, loop, sheet: practice.kept, staff: true },
    });
    study.chooseZone(zone);
    void goto(addressOf(study.id, 'play', { index: around ? from : study.nowIndex, zone }));
  }

  /** Steps to the first note over a chord. */
  function goTo(index: number) {
    transport.stop();
    stepped = Math.max(0, passage?.notes.findIndex(({ chord }) => chord === index) ?? 0);
    study.go(index);
  }

  const actions: Actions = {
    // The arrows walk the notes here.
    next: () => step(1),
    previous: () => step(-1),
    play: toggle,
    toPlay: withBand,
    nextBlock: block?.goOn,
    anotherLine: () => practice.change({ seed: practice.settings.seed + 1 }),
  };

  const warnings = $derived(practice.opened ? [] : (practice.exercise?.warnings ?? []));
  const following = $derived(!practice.opened && practice.settings.extent === 'whole');
  /** The light on the sheet moves first, then the neck, then the strip: no frame has to draw it all. */
  const onStrip = late(
    () => (following ? { now: chordNow, next: chordNext } : { now: null, next: null }),
    inSecondFrame,
  );
  /** The sheet's title without the chart's, which stands before it. */
  const ownTitle = $derived(
    (passage?.title ?? '').replace(`: ${study.chart?.source.title ?? ''}`, ''),
  );
</script>

<Frame
  screen="practice"
  name="Practice sheet"
  heading={showSymbol(ownTitle)}
  {actions}
  fitted
  shut
  now={onStrip.current.now}
  next={onStrip.current.next}
  ongo={goTo}
  menu={paperItems(() => `${study.title}, ${passage?.title ?? 'practice'}`)}
>
  {#if block}<SessionBar place={block} />{/if}
  <PrintHeading what={showSymbol(passage?.title ?? '')} zone={practice.settings.zone} {passage} />
  <div class="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 print:hidden">
    <SheetTools
      {passage}
      playing={transport.playing}
      bind:speed
      onplay={toggle}
      onopen={practice.open}
      onband={withBand}
      unfolded={setting}
    />
    {#if LINE_KINDS.has(practice.settings.kind)}
      <button
        class="button"
        title="Another line over the same targets (A)"
        onclick={() => practice.change({ seed: practice.settings.seed + 1 })}
      >
        <Dice size={16} aria-hidden="true" />Another
      </button>
    {/if}
    <button
      class="button min-w-0 flex-1 text-sm sm:hidden"
      aria-expanded={setting}
      aria-controls="sheet-settings"
      onclick={() => (setting = !setting)}
    >
      <ChevronRight size={16} class={setting ? 'rotate-90' : ''} aria-hidden="true" />
      <span class="truncate">{EXERCISE_WORDS[practice.settings.kind].name}</span>
    </button>
    <button
      class="button-quiet ml-auto text-sm {setting ? '' : 'max-sm:hidden'}"
      aria-expanded={unfolded}
      aria-controls="sheet-more"
      onclick={() => (unfolded = !unfolded)}
    >
      <ChevronRight size={16} class={unfolded ? 'rotate-90' : ''} aria-hidden="true" />
      Kept sheets{study.plan.sheets.length > 0 ? ` (${study.plan.sheets.length})` : ''}
    </button>
    <div id="sheet-settings" class={setting ? '' : 'max-sm:hidden'}>
      <SheetControls {practice} />
    </div>
  </div>
  {#if unfolded}
    <SheetMore {practice} chord={chordNow ?? study.nowIndex} {setting} />
  {/if}
  <CareNotice playing={transport.playing} />
  {#if practice.opened}
    <p class="shrink-0 text-sm print:hidden">
      A melody from a file, on {study.instrument.name}.
      <button
        class="button"
        data-keep-melody
        onclick={() => {
          const refusal = practice.keepMelody();
          if (refusal !== null) warn(refusal);
        }}>Use as the chart’s melody</button
      >
      <button class="underline" onclick={practice.close}>Back to the exercise</button>
    </p>
  {/if}
  <div class="flex min-h-5 shrink-0 flex-wrap gap-x-4 text-sm max-sm:min-h-16 print:hidden">
    {#if !practice.opened && practice.exercise}
      <p data-goal>{practice.exercise.goal}</p>
    {/if}
    <LineWords {practice} {moment} />
  </div>
  {#if practice.settings.kind === 'own'}<OwnPattern {practice} />{/if}
  {#each warnings as warning (warning)}
    <p class="shrink-0 text-sm font-semibold text-now-text" role="status">{warning}</p>
  {/each}
  {#if transport.playing && transport.silent}
    <p class="shrink-0 text-sm font-semibold text-now-text" role="status">{transport.silent}</p>
  {/if}

  <!-- Scrolled with the keys as well. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="flex-1 overflow-y-auto [scrollbar-width:thin] max-lg:h-[max(21.5rem,100dvh-33rem)] max-lg:flex-none print:h-auto print:overflow-visible {passage &&
    passage.notes.length > 0
      ? 'min-h-36'
      : 'min-h-8'}"
    role="region"
    aria-label="The sheet"
    tabindex="0"
  >
    {#if passage && passage.notes.length > 0}
      <Notation {passage} beat={moment} degrees={study.view.degrees} />
    {:else if practice.failure}
      <p class="text-now-text" role="status">{practice.failure}</p>
    {:else if practice.working}
      <p class="text-ink-soft" role="status">Writing the sheet…</p>
    {:else if study.planned.length === 0}
      <p class="text-ink-soft">There is nothing to play: this chart has no chords yet.</p>
    {/if}
  </div>
  <SheetNeck
    zone={practice.settings.zone}
    notes={passage?.notes ?? []}
    {sounding}
    {next}
    chord={chordNow}
  />
</Frame>
