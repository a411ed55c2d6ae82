<!-- What is listened to: the input, its level, what is heard now, how late it comes. -->
<script lang="ts">
  import { onDestroy } from 'svelte';
  import { range } from '$core/lists';
  import { MISTAKES, type Mistakes } from '$core/listening/simulated';
  import { tempoMap } from '$core/time/tempo';
  import { clickEvent, programmeOf } from '$lib/audio/programme';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import type { SettingsStore } from '$lib/settings/store.svelte';
  import { type Ear, SIMULATED } from './ear.svelte';
  import { BEAT } from 'corvel-core';

  interface Props {
    readonly ear: Ear;
    readonly settings: SettingsStore;
    /** How the simulated guitarist errs. */
    readonly mistakes: Mistakes;
    readonly onmistakes: (mistakes: Mistakes) => void;
    /** What may be opened as a recording, in words, and what becomes of it: a sentence. */
    readonly recording: string;
    readonly onrecording: (file: File) => Promise<string | null>;
  }

  let { ear, settings, mistakes, onmistakes, recording, onrecording }: Props = $props();

  const transport = pageTransport();
  const hearing = $derived(ear.state === 'hearing');

  const MISTAKE_NAMES: Readonly<Record<Mistakes, string>> = {
    none: 'plays everything',
    late: 'comes late now and then',
    missed: 'misses now and then',
    'another octave': 'takes another octave now and then',
    'another tone': 'takes another tone now and then',
    all: 'makes every mistake',
  };

  /** Clicks of a measurement, half a second apart; the first two are to get ready. */
  const CLICKS = 8;
  const READY = 2;
  const BPM = 120;
  let strikes: number[] = [];
  let measuring = $state(false);
  let measured = $state('');
  let timer: ReturnType<typeof setTimeout> | undefined;
  onDestroy(() => clearTimeout(timer));

  $effect(() => {
    if (measuring && ear.struck !== null) strikes.push(ear.struck);
  });

  async function measure() {
    strikes = [];
    measured = '';
    measuring = true;
    const clicks = range(0, CLICKS).map((beat) => clickEvent({ beat: beat * BEAT, strong: true }));
    const tempo = tempoMap([{ beat: 0, bpm: BPM }]);
    await transport.play(programmeOf(clicks, { length: CLICKS * BEAT, tempo }), {
      parts: ['click'],
    });
    const times = clicks.map(({ beat }) => transport.secondsAt(beat) ?? 0);
    timer = setTimeout(() => settle(times.slice(READY)), (CLICKS * 60_000) / BPM + 500);
  }

  function settle(times: readonly number[]) {
    measuring = false;
    const late = times
      .flatMap((time) => {
        const near = strikes.map((one) => one - time).filter((one) => one > -0.1 && one < 0.4);
        return near.length > 0 ? [Math.min(...near.map((one) => Math.abs(one)))] : [];
      })
      .toSorted((a, b) => a - b);
    const middle = late[Math.floor(late.length / 2)];
    if (middle === undefined || late.length < times.length / 2) {
      measured = 'Too few were heard: hold the microphone nearer, or play a note on each click.';
      return;
    }
    ear.setLatency(middle);
    measured = `Measured over ${late.length} clicks.`;
  }

  let opened = $state<string | null>(null);
</script>

<div class="grid gap-2 text-sm" data-listen-sheet>
  <label class="flex items-center gap-2">
    Listen to
    <select
      class="field min-w-0 flex-1"
      name="input"
      value={hearing ? ear.device : settings.current.input}
      onchange={(event) => ear.choose(event.currentTarget.value)}
    >
      <option value="">the browser’s input</option>
      {#each ear.devices as device (device.deviceId)}
        {#if device.deviceId !== ''}
          <option value={device.deviceId}>{device.label || 'An input'}</option>
        {/if}
      {/each}
      <option value={SIMULATED}>the simulated guitarist</option>
    </select>
  </label>
  {#if (hearing ? ear.device : settings.current.input) === SIMULATED}
    <label class="flex items-center gap-2">
      Practice player
      <select
        class="field min-w-0 flex-1"
        name="mistakes"
        value={mistakes}
        onchange={(event) =>
          onmistakes(MISTAKES.find((one) => one === event.currentTarget.value) ?? 'none')}
      >
        {#each MISTAKES as one (one)}<option value={one}>{MISTAKE_NAMES[one]}</option>{/each}
      </select>
    </label>
  {/if}
  <button class="button min-h-9 justify-self-start" onclick={ear.toggle}>
    {hearing ? 'Stop listening' : ear.state === 'asking' ? 'Asking…' : 'Listen'}
  </button>
  {#if hearing}
    <label class="flex items-center gap-2">
      Level
      <meter class="h-2 flex-1" min="0" max="1" low={0.02} high={0.95} value={ear.peak}></meter>
    </label>
    <p class="flex flex-wrap items-center gap-x-2">
      <span>Input delay {Math.round(ear.latency * 1000)} ms</span>
      <input
        class="w-24"
        type="range"
        name="latency"
        aria-label="Latency in milliseconds"
        min="0"
        max="400"
        value={Math.round(ear.latency * 1000)}
        onchange={(event) => ear.setLatency(event.currentTarget.valueAsNumber / 1000)}
      />
      <button class="button min-h-8" disabled={measuring} onclick={() => void measure()}
        >{measuring ? 'Clicking…' : 'Measure'}</button
      >
    </p>
    <p class="text-ink-soft">
      {measured ||
        'To measure: let the microphone hear eight clicks, or play a note on each of them.'}
    </p>
  {/if}
  {#if ear.problem}<p class="text-now-text" role="status">{ear.problem}</p>{/if}
  <label class="flex flex-wrap items-center gap-x-2">
    <span>Or open a recording of {recording}; it starts on beat one, at this tempo</span>
    <input
      class="max-w-full"
      type="file"
      name="recording"
      accept="audio/*"
      onchange={async (event) => {
        const file = event.currentTarget.files?.[0];
        if (file) opened = await onrecording(file);
      }}
    />
  </label>
  {#if opened}<p role="status">{opened}</p>{/if}
  <p class="text-xs text-ink-soft">
    Sound stays on this machine and is deleted when you leave, unless you keep it with a take. Use
    headphones at a moderate volume, so that the microphone does not hear the band.
  </p>
</div>
