<!-- The stage: the chart with a band, now and next as large as can be, the neck under them. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Stop from '@lucide/svelte/icons/square';
  import { onDestroy, onMount, untrack } from 'svelte';
  import { page } from '$app/state';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import Frame from '$lib/frame/Frame.svelte';
  import type { Actions } from '$lib/frame/shortcuts';
  import { momentAt, momentsOf } from '$lib/notation/moments';
  import type { PedalAction } from '$lib/settings/settings';
  import { LOOP_NAMES, LOOP_SIZES } from '$lib/study/loops';
  import { getStudy } from '$lib/study/study.svelte';
  import { inSecondFrame, late } from '$lib/ui/afterPaint.svelte';
  import { clockName } from '$lib/ui/amounts';
  import Popover from '$lib/ui/Popover.svelte';
  import type { Mistakes } from '$core/listening/simulated';
  import { createEar } from '$lib/listening/ear.svelte';
  import { playsSimulated } from '$lib/listening/guitarist.svelte';
  import ListenButton from '$lib/listening/ListenButton.svelte';
  import { openRecording } from '$lib/listening/recording';
  import { soloHeard } from '$lib/listening/solo';
  import { keepAwake, toggleFullScreen } from './awake';
  import NowNext from './NowNext.svelte';
  import { showsAhead } from '$lib/stage/moment';
  import { createPedals } from './pedals.svelte';
  import StageSays from './StageSays.svelte';
  import { createBlock } from '$lib/log/block.svelte';
  import SessionBar from '$lib/log/SessionBar.svelte';
  import { keepsStints } from '$lib/log/keeper.svelte';
  import { stageStint } from './stint';
  import { createLanded } from './landed.svelte';
  import { createStage, setStage } from '$lib/stage/stage.svelte';
  import { createFollowing } from '$lib/stage/following.svelte';
  import { createSteering } from './steering.svelte';
  import StageNeck from './StageNeck.svelte';
  import { BEAT } from 'corvel-core';

  const study = getStudy();
  const transport = pageTransport();
  onDestroy(transport.stop);
  const stage = createStage(study);
  setStage(stage);
  const { standing } = stage;
  const steering = createSteering(study, stage);
  const following = createFollowing(study, {
    playing: () => transport.playing,
    index: () => standing.index,
    shift: () => stage.shift(stage.pass),
    stop: transport.stop,
  });
  // Who plays by himself follows nobody.
  $effect(() => {
    if (transport.playing) following.stop();
  });
  transport.setMix(untrack(() => study.settings.current.mix));

  // Space on another screen leads here and begins.
  onMount(() => {
    steering.takeUpAsked(page.url);
    if (page.url.searchParams.has('go')) steering.begin();
  });

  const ear = createEar(study.settings);
  onDestroy(ear.close);
  stage.listensTo(() => soloHeard(ear));
  let mistakes = $state<Mistakes>('all');
  playsSimulated(ear, () => mistakes, stage.toBePlayed);
  const landed = createLanded(stage, ear, (pass) => keeper.heard(pass));
  const keeper = keepsStints(() => stageStint(study, stage));
  async function judgeRecording(file: File): Promise<string | null> {
    const opened = await openRecording(file);
    if (!opened.ok) return opened.message;
    return landed.judge(opened.notes)?.sentence ?? 'There is nothing to hold it against yet.';
  }

  /** The loop goes round the target that is to be listened for. */
  function loopMissed() {
    const loop = landed.around();
    if (loop) steering.setLoop(loop);
  }
  const showMe = () => steering.showMe(landed.around());

  /** Counts the takes that were kept, so that they are listed. */
  let takes = $state(0);
  /** The block of a session that is played. */
  const block = createBlock(() => transport.playing);
  let unfolded = $state(false);
  const settings = $derived(stage.settings);
  const playing = $derived(transport.playing);

  $effect(() => (playing || following.on ? keepAwake() : undefined));

  const DOES: Readonly<Record<PedalAction, () => void>> = {
    play: steering.toggle,
    poorPass: () => stage.slower(),
    tap: steering.tap,
    lineOnly: steering.lineOnly,
    loopNext: () => steering.loopNext(1),
    lastTime: stage.callLast,
  };
  const pedals = createPedals({
    bindings: () => ({
      'simulated left': 'poorPass',
      'simulated right': 'play',
      ...study.settings.current.pedals,
    }),
    onbind: (sent, does) =>
      study.settings.change({ pedals: { ...study.settings.current.pedals, [sent]: does } }),
    ondo: (does) => DOES[does](),
  });
  onDestroy(pedals.close);

  const actions: Actions = {
    next: () => steering.step(1),
    previous: () => steering.step(-1),
    play: steering.toggle,
    toPlay: undefined,
    tempo: (key) => stage.setTempo(stage.tempo + (key === '-' ? -2 : 2)),
    tap: steering.tap,
    poorPass: () => stage.slower(),
    lineOnly: steering.lineOnly,
    listen: ear.toggle,
    loopMissed,
    showMe,
    nextBlock: block?.goOn,
    went: (key) => keeper.say(key === '9' ? 'clean' : 'shaky'),
    fold: () => (unfolded = !unfolded),
  };

  /** Whether something else needs the room of what is read from afar. */
  const small = $derived(settings.staff);
  const ahead = $derived(
    settings.ahead === 'always' ||
      following.on ||
      (standing.beat >= 0 && showsAhead(settings.ahead, standing.left)),
  );
  /** The strip follows words and neck, so that no frame has to draw it all. */
  const place = late(() => ({
    now: standing.index,
    next: ahead ? (standing.change?.index ?? null) : null,
  }));
  const onStrip = late(() => place.current, inSecondFrame);
  const mine = $derived(standing.turn === 'player');
  const shown = $derived(!(mine && settings.hidden));

  const hand = $derived.by(() => {
    const { bar } = standing;
    const here = study.chart?.bars[bar];
    const pass = stage.passIn(stage.pass);
    if (!playing || !here || !pass || standing.beat < 0) return null;
    // By quarters of a beat: nothing is moved between them.
    const part = BEAT / 4;
    const reached = standing.beat + pass.start - here.beat;
    const share = (Math.floor(reached / part) * part) / here.beats;
    return { bar, share: Math.min(1, share) };
  });

  const line = $derived(stage.lines.lineIn(stage.pass));
  const moments = $derived(line ? momentsOf(line) : []);
  const moment = $derived(playing ? momentAt(moments, standing.beat) : null);
  const turn = $derived.by(() => {
    if (!playing || standing.turn === null) return null;
    const left = standing.leftOfTurn === null ? '' : ` ${clockName(standing.leftOfTurn)}`;
    return { says: (mine ? 'You' : 'Corvel') + left, mine };
  });
</script>

<svelte:window onkeydowncapture={pedals.onkey} />

{#snippet takesSheet()}
  {#await Promise.all( [import('./TakesSheet.svelte'), import('./take')] ) then [{ default: TakesSheet }, { heardAlone }]}
    <TakesSheet heard={landed.done ? heardAlone(study, stage, landed.done) : null} kept={takes} />
  {/await}
{/snippet}
{#snippet filesSheet()}
  {#await import('./FilesSheet.svelte') then { default: FilesSheet }}<FilesSheet />{/await}
{/snippet}

<Frame
  screen="play"
  name="Play"
  {actions}
  fitted
  fittedNarrow
  shut
  now={onStrip.current.now}
  next={onStrip.current.next}
  ongo={steering.goTo}
  loopAt={steering.here}
  onloop={steering.setLoop}
  {hand}
  landings={landed.marks}
  menu={[
    { name: 'Takes', begins: true, sheet: { look: 'w-96', content: takesSheet } },
    { name: 'Save the band and the line', sheet: { look: 'w-80', content: filesSheet } },
    following.on
      ? { name: 'Stop following', run: following.stop }
      : { name: 'Follow another device', run: following.start },
    { name: 'Full screen', run: () => void toggleFullScreen() },
  ]}
>
  {#if block}<SessionBar place={block} />{/if}
  {#if following.on}
    <p
      class="flex flex-wrap items-center gap-x-3 text-sm text-ink-soft"
      role="status"
      data-following
    >
      {following.otherPlays === null
        ? 'This stage follows the next device that opens Play.'
        : 'This stage follows another device. The sound is there.'}
      <button class="button-quiet underline" onclick={following.stop}>Stop following</button>
    </p>
  {/if}
  <NowNext {ahead} {small} />
  <StageNeck {ahead} {shown} {small} heard={ear.sounding?.pitch ?? null} />

  {#if settings.staff}
    <!-- Scrolled with the keys as well. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="min-h-36 flex-1 overflow-y-auto [scrollbar-width:thin]"
      role="region"
      aria-label="The line"
      tabindex="0"
    >
      {#if line && line.notes.length > 0 && shown}
        {#await import('$lib/notation/Notation.svelte') then { default: Notation }}
          <Notation passage={line} beat={moment} degrees={study.view.degrees} />
        {/await}
      {:else if !shown}
        <p class="text-ink-soft">Your turn: from memory.</p>
      {:else}
        <p class="text-ink-soft">
          {stage.lines.working ? 'Writing the line…' : 'No line plays: choose one under More.'}
        </p>
      {/if}
    </div>
  {/if}
  <div
    class="flex min-h-12 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 max-sm:sticky max-sm:bottom-0 max-sm:z-20 max-sm:bg-paper short:sticky short:bottom-0 short:z-20 short:bg-paper"
    data-stage-controls
  >
    <button
      class="button-strong min-h-10 min-w-24 justify-center"
      onclick={steering.toggle}
      title="Play or stop (Space)"
    >
      {#if playing || transport.fetching !== null}<Stop
          size={16}
          aria-hidden="true"
        />Stop{:else}<Play size={16} aria-hidden="true" />Play{/if}
    </button>
    <label class="text-sm">
      <span class="sr-only">Loop</span>
      <select
        class="field min-h-10"
        name="loop"
        data-keys="page"
        title="What is looped; drag over the bars to loop others"
        value={steering.size ?? 'bars'}
        onchange={(event) => {
          const size = LOOP_SIZES.find((one) => one === event.currentTarget.value);
          if (size) steering.loopBy(size);
        }}
      >
        {#if steering.size === null && study.loop}
          <option value="bars">Bars {study.loop.from + 1}–{study.loop.to}</option>
        {/if}
        {#each LOOP_SIZES as one (one)}<option value={one}>{LOOP_NAMES[one]}</option>{/each}
      </select>
    </label>
    <label class="flex items-center gap-2 text-sm">
      <span class="sr-only">Tempo</span>
      <input
        type="range"
        name="tempo"
        class="w-20 max-sm:w-14 short:w-14"
        min="30"
        max="300"
        value={stage.tempo}
        oninput={(event) => stage.setTempo(event.currentTarget.valueAsNumber)}
      />
      <output class="w-17 text-lg font-semibold tabular-nums max-sm:w-9" data-tempo
        >{Math.round(stage.tempo)}<span
          class="ml-1 text-xs font-normal text-ink-soft max-sm:sr-only">bpm</span
        ></output
      >
    </label>
    {#if playing}
      <button
        class="button min-h-10 w-24 justify-center aria-pressed:bg-ink aria-pressed:text-paper max-sm:hidden short:hidden"
        aria-pressed={stage.isLast}
        onclick={stage.callLast}
        title="The band comes home after this pass">Last time</button
      >
    {:else}
      <button
        class="button min-h-10 w-24 justify-center aria-pressed:bg-ink aria-pressed:text-paper max-sm:hidden short:hidden"
        aria-pressed={settings.count > 0}
        onclick={() => steering.set({ count: settings.count > 0 ? 0 : 1 })}
        title="Count in before it begins">Count-in</button
      >
    {/if}
    <ListenButton
      {ear}
      settings={study.settings}
      {mistakes}
      onmistakes={(to) => (mistakes = to)}
      recording="this loop"
      onrecording={judgeRecording}
    />
    <StageSays
      {ear}
      {landed}
      {keeper}
      {turn}
      onloop={loopMissed}
      onshow={showMe}
      onkept={() => (takes += 1)}
    />

    <div class="ml-auto">
      <Popover
        bind:open={unfolded}
        label="Settings of the stage"
        title="Settings of the stage (O)"
        button="button min-h-10"
        sheet="w-[46rem]"
      >
        {#snippet trigger()}More ▾{/snippet}
        {#await import('./StageSettings.svelte') then { default: StageSettings }}
          <StageSettings {pedals} onset={steering.set} ontap={steering.tap} />
        {/await}
      </Popover>
    </div>
  </div>
</Frame>
