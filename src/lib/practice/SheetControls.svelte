<!-- Which exercise, over what of the chart, where on the neck, in which notes. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { type ExerciseKind, EXERCISES, MELODY_KINDS, STYLED_KINDS } from '$core/exercises/kinds';
  import { EXERCISE_WORDS } from '$core/exercises/words';
  import { LICK_LIMITS } from '$core/licks/lick';
  import { stringSets } from '$core/neck/voicings';
  import { type Extent, EXTENTS } from '$core/lines/spans';
  import { LINE_STYLES, STYLE_ROWS } from '$core/lines/styles';
  import { SUBDIVISIONS } from '$core/time/subdivision';
  import { createLick } from '$lib/licks/api';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { warn } from '$lib/ui/messages.svelte';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const study = getStudy();

  const settings = $derived(practice.settings);
  const EXTENT_NAMES: Readonly<Record<Extent, string>> = {
    whole: 'the whole form',
    isolate: 'one chord, looped',
    pair: 'two chords, in turn',
  };
  const zoneId = ({ low, high }: { low: number; high: number }) => `${low}-${high}`;
  const zones = $derived([
    ...study.zones,
    ...(study.zones.some((zone) => zoneId(zone) === zoneId(settings.zone)) ? [] : [settings.zone]),
  ]);
  /** The exercises that keep to one set of strings. */
  const ON_STRINGS: ReadonlySet<ExerciseKind> = new Set([
    ...(['one-string-set', 'inversions', 'triads'] as const),
  ]);
  const sets = $derived([
    ...stringSets(study.neck),
    ...(settings.kind === 'inversions' ? stringSets(study.neck, 'drop-2') : []),
  ]);

  /** The melody written as a lick over the whole form, from where it is put back here. */
  async function writeMelody() {
    const { chart, document } = study;
    if (!chart) return;
    const id = await createLick({
      ...{ title: `${chart.source.title || 'Untitled'}, the melody`, tags: ['melody'] },
      ...{ source: 'mine', chart: document.text.slice(0, LICK_LIMITS.chart), notes: [] },
    });
    if (id === null) warn('The server does not answer.');
    else await goto(`/licks/${id}`);
  }

  const picked = <T extends string>(values: readonly T[], event: Event): T | undefined =>
    values.find((value) => value === (event.currentTarget as HTMLSelectElement).value);
  /** The style a line has by itself, once one is made. */
  const own = $derived.by(() => {
    const line = practice.settings.style === null ? practice.exercise?.line : null;
    return line ? `${STYLE_ROWS[line.style].name}, as the feel` : 'as the feel';
  });
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
  <label class="flex items-center gap-1.5">
    <span class="text-ink-soft">Exercise</span>
    <select
      class="field"
      name="kind"
      value={settings.kind}
      onchange={(event) => {
        const kind = picked(EXERCISES, event);
        if (kind) practice.change({ kind });
      }}
    >
      {#each EXERCISES as kind (kind)}<option value={kind}>{EXERCISE_WORDS[kind].name}</option
        >{/each}
    </select>
  </label>
  <label class="flex items-center gap-1.5">
    <span class="text-ink-soft">In</span>
    <select
      class="field"
      name="subdivision"
      value={settings.subdivision}
      onchange={(event) => {
        const subdivision = picked(SUBDIVISIONS, event);
        if (subdivision) practice.change({ subdivision });
      }}
    >
      {#each SUBDIVISIONS as one (one)}<option value={one}>{one}</option>{/each}
    </select>
  </label>
  <label class="flex items-center gap-1.5">
    <span class="text-ink-soft">Over</span>
    <select
      class="field"
      name="extent"
      value={settings.extent}
      onchange={(event) => {
        const extent = picked(EXTENTS, event);
        if (extent) practice.change({ extent });
      }}
    >
      {#each EXTENTS as one (one)}<option value={one}>{EXTENT_NAMES[one]}</option>{/each}
    </select>
  </label>
  {#if settings.extent !== 'whole'}
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">From</span>
      <select
        class="field"
        value={String(settings.from)}
        onchange={(event) => practice.change({ from: Number(event.currentTarget.value) })}
      >
        {#each study.planned as { index, bar, chord } (index)}
          <option value={String(index)}>bar {bar}: {showSymbol(chord.symbol)}</option>
        {/each}
      </select>
    </label>
  {/if}
  <label class="flex items-center gap-1.5">
    <span class="text-ink-soft">Zone</span>
    <select
      class="field"
      name="zone"
      value={zoneId(settings.zone)}
      onchange={(event) => {
        const zone = zones.find((one) => zoneId(one) === event.currentTarget.value);
        if (zone) practice.change({ zone: { low: zone.low, high: zone.high } });
      }}
    >
      {#each zones as zone (zoneId(zone))}
        <option value={zoneId(zone)}>{zone.low}–{zone.high}</option>
      {/each}
    </select>
  </label>
  {#if STYLED_KINDS.has(settings.kind)}
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">Style</span>
      <select
        class="field"
        name="style"
        value={practice.settings.style ?? ''}
        onchange={(event) => {
          const style = LINE_STYLES.find((one) => one === event.currentTarget.value) ?? null;
          practice.change({ style });
        }}
      >
        <option value="">{own}</option>
        {#each LINE_STYLES as one (one)}<option value={one}>{STYLE_ROWS[one].name}</option>{/each}
      </select>
    </label>
  {/if}
  {#if MELODY_KINDS.has(settings.kind) && study.plan.melody !== null}
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">Octave</span>
      <select
        class="field"
        name="octave"
        value={String(settings.octave ?? '')}
        onchange={(event) => {
          const { value } = event.currentTarget;
          practice.change({ octave: value === '' ? null : Number(value) });
        }}
      >
        {#if settings.kind === 'melody'}<option value="">nearest to the zone</option>{/if}
        <option value={settings.kind === 'melody' ? '0' : ''}>as written</option>
        <option value="-1">an octave lower</option>
        <option value="1">an octave higher</option>
      </select>
    </label>
  {/if}
  {#if settings.kind === 'groups'}
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">Of</span>
      <select
        class="field"
        name="group"
        value={String(settings.group)}
        onchange={(event) => practice.change({ group: Number(event.currentTarget.value) })}
      >
        <option value="3">three</option>
        <option value="4">four</option>
      </select>
    </label>
  {/if}
  {#if ON_STRINGS.has(settings.kind)}
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">Strings</span>
      <select
        class="field"
        value={settings.strings.join('-')}
        onchange={(event) => {
          const set = sets.find((one) => one.join('-') === event.currentTarget.value);
          if (set) practice.change({ strings: [...set] });
        }}
      >
        {#each sets as set (set.join('-'))}<option value={set.join('-')}>{set.join(' ')}</option
          >{/each}
      </select>
    </label>
  {/if}
  {#if settings.kind === 'switch'}
    <label class="flex items-center gap-1.5">
      <span class="text-ink-soft">Home</span>
      <select
        class="field"
        name="switch"
        value={practice.switchAt === null ? '' : String(practice.switchAt)}
        onchange={(event) => {
          const { value } = event.currentTarget;
          practice.setSwitch(value === '' ? null : Number(value));
        }}
      >
        <option value="">with I</option>
        {#each [1, 2, 3, 4] as half (half)}
          <option value={String(half)}>after {half / 2} {half === 2 ? 'bar' : 'bars'}</option>
        {/each}
      </select>
    </label>
  {/if}
  {#if MELODY_KINDS.has(settings.kind)}
    {#if study.plan.melody !== null}
      <button class="button-quiet" onclick={practice.dropMelody}>Remove the melody</button>
    {:else if !practice.opened}
      <button class="button" data-write-melody onclick={writeMelody}>Write the melody</button>
    {/if}
  {/if}
</div>
