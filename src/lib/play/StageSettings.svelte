<!-- What is set once for a while: counting in, keys, turns, ramps, what shows ahead, the line, levels. -->
<script lang="ts">
  import { EXERCISE_WORDS } from '$core/exercises/words';
  import { SUBDIVISIONS } from '$core/time/subdivision';
  import { TEMPO_RANGE } from '$core/time/tempo';
  import Picked from '$lib/ui/Picked.svelte';
  import Popover from '$lib/ui/Popover.svelte';
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
  import { getStage } from './stage.svelte';

  interface Props {
    readonly pedals: Pedals;
    readonly onset: (changed: Partial<PlaySettings>) => void;
  }

  let { pedals, onset }: Props = $props();

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
    nothing: 'nothing: by ear',
  };
  const COUNTS: readonly [number, string][] = [
    [0, 'not at all'],
    [1, 'one bar'],
    [2, 'two bars'],
  ];
  const RESTS: readonly [number, string][] = [
    [0, 'never'],
    [4, 'a bar in 4'],
    [8, 'a bar in 8'],
    [16, 'a bar in 16'],
  ];

  /** The line is one list: nothing, exercises, and the sheets kept with the chart. */
  const lines = $derived([
    ...LINES.map((line): [string, string] => [line, nameOf(line)]),
    ...study.plan.sheets.map(({ id, name }): [string, string] => [`sheet ${id}`, `Kept: ${name}`]),
  ]);
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
  class="grid shrink-0 grid-cols-[repeat(auto-fill,minmax(13.5rem,1fr))] gap-x-4 gap-y-1 text-sm whitespace-nowrap lg:gap-y-px [scrollbar-width:thin] lg:min-h-24 lg:shrink lg:overflow-y-auto"
>
  <Picked
    label="Line"
    name="line"
    value={stage.lines.kept ? `sheet ${stage.lines.kept.id}` : settings.line}
    options={lines}
    onpick={chooseLine}
  />
  <Picked
    label="In"
    name="subdivision"
    disabled={stage.lines.kept !== null || settings.line === 'none' || settings.line === 'targets'}
    value={settings.subdivision}
    options={SUBDIVISIONS.map((one) => [one, one])}
    onpick={(subdivision) => onset({ subdivision })}
  />
  <Picked
    label="Turns"
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
    label="Shown ahead"
    name="ahead"
    value={settings.ahead}
    options={named(AHEAD_NAMES)}
    onpick={(ahead) => onset({ ahead })}
  />
  <Picked
    label="Counted in"
    name="count"
    value={settings.count}
    options={COUNTS}
    onpick={(count) => onset({ count })}
  />
  <Picked
    label="Band rests"
    name="rests"
    value={settings.rests}
    options={RESTS}
    onpick={(rests) => onset({ rests })}
  />
  <div class="setting">
    {@render ticked('staff', 'Staff and tablature', settings.staff, (staff) => onset({ staff }))}
  </div>
  <div class="setting">
    {@render ticked('hidden', 'Hidden in my turn', settings.hidden, (hidden) => onset({ hidden }))}
  </div>
  <div class="setting">
    Pedals
    <Popover label="Pedals" title="What a pedal does" button="button min-h-8" sheet="w-[26rem]">
      {#snippet trigger()}Set up{/snippet}
      {#await import('./PedalSheet.svelte') then { default: PedalSheet }}
        <PedalSheet {pedals} />
      {/await}
    </Popover>
  </div>
  <div class="setting {ramp ? 'sm:col-span-2' : ''}">
    {@render ticked('ramp', 'Faster by', ramp !== null, (on) =>
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
    {:else}<span class="text-ink-soft">steady</span>{/if}
  </div>
</div>

<style>
  .setting {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.5rem;
    min-height: 2.25rem;
  }
</style>
