<!-- What is set once for a while: counting in, keys, turns, ramps, what shows ahead, the line, levels. -->
<script lang="ts">
  import { CLICKS } from '$core/band/click';
  import type { ExerciseKind } from 'corvel-core';
  import { STYLED_KINDS } from '$core/exercises/kinds';
  import { EXERCISE_WORDS } from '$core/exercises/words';
  import { LINE_STYLES, STYLE_ROWS } from '$core/lines/styles';
  import { SUBDIVISIONS } from '$core/time/subdivision';
  import { TEMPO_RANGE } from '$core/time/tempo';
  import Picked from '$lib/ui/Picked.svelte';
  import {
    type Ahead,
    type KeyWay,
    LINES,
    type PlayLine,
    type PlaySettings,
    type Turns,
  } from '$lib/study/playing';
  import { getStudy } from '$lib/study/study.svelte';
  import type { Pedals } from './pedals.svelte';
  import { getStage } from '$lib/stage/stage.svelte';

  interface Props {
    readonly pedals: Pedals;
    readonly onset: (changed: Partial<PlaySettings>) => void;
    readonly ontap: () => void;
  }

  let { pedals, onset, ontap }: Props = $props();

  const study = getStudy();
  const stage = getStage();
  const settings = $derived(stage.settings);
  const ramp = $derived(settings.ramp);

  const nameOf = (line: PlayLine) => (line === 'none' ? 'No line' : EXERCISE_WORDS[line].name);
  const KEY_NAMES: Readonly<Record<KeyWay, string>> = {
    same: 'the chart’s own',
    'half steps': 'a half step up each pass',
    fourths: 'round the fourths',
    'whole steps': 'a whole step up each pass',
    random: 'at random, none twice',
  };
  const TURN_NAMES: Readonly<Record<Turns, string>> = {
    none: 'play together',
    'sixty seconds': 'sixty seconds each',
    'four bars': 'four bars each',
    'bar by bar': 'a bar of target, a bar free',
    'pass by pass': 'Corvel a pass, then you',
  };
  const AHEAD_NAMES: Readonly<Record<Ahead, string>> = {
    always: 'always',
    'four beats': 'four beats before',
    'two beats': 'two beats before',
    'one beat': 'one beat before',
    nothing: 'hidden',
  };
  const COUNTS: readonly [number, string][] = [
    [0, 'off'],
    [1, 'one bar'],
    [2, 'two bars'],
  ];
  const RESTS: readonly [string, string][] = [
    ['0', 'never'],
    ['4', 'a bar in 4'],
    ['8', 'a bar in 8'],
    ['16', 'a bar in 16'],
    ['4 stops', 'a bar in 4, after a stop'],
    ['8 stops', 'a bar in 8, after a stop'],
  ];
  const ENDS: readonly [number, string][] = [
    [0, 'when I stop it'],
    ...[1, 2, 3, 4, 6, 8].map((count): [number, string] => [count, `after pass ${count}`]),
  ];

  /** The line is one list: nothing, exercises, and the sheets kept with the chart. */
  const lines = $derived([
    ...LINES.map((line): [string, string] => [line, nameOf(line)]),
    ...study.plan.sheets.map(({ id, name }): [string, string] => [`sheet ${id}`, `Kept: ${name}`]),
  ]);
  /** A style is had by what is made as a line. */
  const isLine = $derived(
    stage.lines.kept === null && STYLED_KINDS.has(settings.line as ExerciseKind),
  );
  function chooseLine(value: string) {
    const kept = study.plan.sheets.find(({ id }) => `sheet ${id}` === value);
    if (kept) onset({ sheet: kept.id });
    else onset({ sheet: null, line: LINES.find((one) => one === value) ?? 'none' });
  }
  const named = <Value extends string>(names: Readonly<Record<Value, string>>) =>
    Object.entries(names) as [Value, string][];
  function setRamp(changed: Partial<NonNullable<PlaySettings['ramp']>>) {
    if (ramp) onset({ ramp: { ...ramp, ...changed } });
  }
  const whole = (event: Event & { currentTarget: HTMLInputElement }, least: number, most: number) =>
    Math.round(Math.min(most, Math.max(least, event.currentTarget.valueAsNumber || least)));
</script>

{#snippet ticked(name: string, label: string, on: boolean, ontick: (on: boolean) => void)}
  <label class="flex items-center gap-1.5">
    <input
      type="checkbox"
      {name}
      checked={on}
      onchange={(event) => ontick(event.currentTarget.checked)}
    />
    {label}
  </label>
{/snippet}

<div
  id="stage-more"
  class="grid grid-cols-[repeat(auto-fill,minmax(19rem,1fr))] gap-x-6 gap-y-1 whitespace-nowrap"
>
  <Picked
    label="Line"
    name="line"
    value={stage.lines.kept ? `sheet ${stage.lines.kept.id}` : settings.line}
    options={lines}
    onpick={chooseLine}
  />
  <Picked
    label="Note value"
    name="subdivision"
    disabled={stage.lines.kept !== null || settings.line === 'none' || settings.line === 'targets'}
    value={settings.subdivision}
    options={SUBDIVISIONS.map((one) => [one, one])}
    onpick={(subdivision) => onset({ subdivision })}
  />
  <Picked
    label="Style of the line"
    name="style"
    disabled={!isLine}
    value={settings.style ?? 'own'}
    options={[
      ['own', 'as the feel'],
      ...LINE_STYLES.map((one) => [one, STYLE_ROWS[one].name] as const),
    ]}
    onpick={(picked) => onset({ style: picked === 'own' ? null : picked })}
  />
  <Picked
    label="Trade with Corvel"
    name="turns"
    value={settings.turns}
    options={named(TURN_NAMES)}
    onpick={(turns) => onset({ turns })}
  />
  <Picked
    label="Keys"
    name="keys"
    value={settings.keys}
    options={named(KEY_NAMES)}
    onpick={(keys) => onset({ keys })}
  />
  <Picked
    label="Show the next chord"
    name="ahead"
    value={settings.ahead}
    options={named(AHEAD_NAMES)}
    onpick={(ahead) => onset({ ahead })}
  />
  <Picked
    label="Count-in"
    name="count"
    value={settings.count}
    options={COUNTS}
    onpick={(count) => onset({ count })}
  />
  <Picked
    label="Band drops out"
    name="rests"
    value={`${settings.rests}${settings.stops ? ' stops' : ''}`}
    options={RESTS}
    onpick={(picked) => onset({ rests: Number.parseInt(picked), stops: picked.includes('stops') })}
  />
  <Picked
    label="The band ends"
    name="choruses"
    value={settings.choruses}
    options={ENDS}
    onpick={(choruses) => onset({ choruses })}
  />
  <div class="setting">
    {@render ticked('intro', 'Introduction of four bars', settings.intro, (intro) =>
      onset({ intro }),
    )}
  </div>
  <div class="setting">
    {@render ticked('staff', 'Staff and tablature', settings.staff, (staff) => onset({ staff }))}
  </div>
  <div class="setting">
    {@render ticked('hidden', 'Hidden in my turn', settings.hidden, (hidden) => onset({ hidden }))}
  </div>
  <Picked
    label="Click"
    name="click"
    value={settings.click}
    options={CLICKS.map((one) => [one, one])}
    onpick={(click) => onset({ click })}
  />
  <div class="setting">
    Tempo
    <button class="button min-h-8" onclick={ontap} title="Tap the tempo (T)">Tap</button>
  </div>
  <div class="setting {ramp ? 'sm:col-span-2' : ''}">
    {@render ticked('ramp', 'Speed up', ramp !== null, (on) =>
      onset({
        ramp: on ? { by: 4, every: 2, goal: Math.min(TEMPO_RANGE.high, stage.tempo + 20) } : null,
      }),
    )}
    {#if ramp}
      <span class="flex items-center gap-1">
        <input
          class="field w-13"
          type="number"
          aria-label="Beats a minute faster"
          name="ramp-by"
          min="1"
          max="20"
          value={ramp.by}
          onchange={(event) => setRamp({ by: whole(event, 1, 20) })}
        />
        every
        <input
          class="field w-13"
          type="number"
          aria-label="Passes between"
          name="ramp-every"
          min="1"
          max="16"
          value={ramp.every}
          onchange={(event) => setRamp({ every: whole(event, 1, 16) })}
        />
        to
        <input
          class="field w-16"
          type="number"
          aria-label="Goal in beats a minute"
          name="ramp-goal"
          min={TEMPO_RANGE.low}
          max={TEMPO_RANGE.high}
          value={ramp.goal}
          onchange={(event) => setRamp({ goal: whole(event, TEMPO_RANGE.low, TEMPO_RANGE.high) })}
        />
      </span>
    {:else}<span class="text-ink-soft">off</span>{/if}
  </div>
</div>
{#each [['Levels', levels], ['Pedals', pedalling]] as const as [name, content] (name)}
  <details class="mt-2 border-t border-line pt-2">
    <summary class="min-h-8 cursor-pointer font-semibold">{name}</summary>
    {@render content()}
  </details>
{/each}

{#snippet levels()}
  {#await import('./Mixer.svelte') then { default: Mixer }}<Mixer />{/await}
{/snippet}
{#snippet pedalling()}
  {#await import('./PedalSheet.svelte') then { default: PedalSheet }}<PedalSheet {pedals} />{/await}
{/snippet}

<style>
  .setting {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.5rem;
    min-height: 2.25rem;
  }
</style>
