<!-- Which exercise, over what of the chart, where on the neck, in which notes. -->
<script lang="ts">
  import { type ExerciseKind, EXERCISES } from 'corvel-core';
  import {
    type Beginning,
    BEGINNING_KINDS,
    MELODY_KINDS,
    STYLED_KINDS,
  } from '$core/exercises/kinds';
  import { EXERCISE_WORDS } from '$core/exercises/words';
  import { LICK_LIMITS } from '$core/licks/lick';
  import { stringSets } from '$core/neck/voicings';
  import type { Extent } from '$core/lines/spans';
  import { LINE_STYLES, type LineStyle, STYLE_ROWS } from '$core/lines/styles';
  import { SUBDIVISIONS } from '$core/time/subdivision';
  import { createLick } from '$lib/licks/api';
  import { getStudy } from '$lib/study/study.svelte';
  import { showSymbol } from '$lib/ui/glyphs';
  import { openPage, staying } from '$lib/ui/anew';
  import { inform, warn } from '$lib/ui/messages.svelte';
  import { once } from '$lib/ui/once';
  import Picked from '$lib/ui/Picked.svelte';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const study = getStudy();

  const settings = $derived(practice.settings);
  type Named<Value> = readonly (readonly [Value, string])[];
  const asNamed = <Value extends string>(values: readonly Value[]): Named<Value> =>
    values.map((value) => [value, value]);
  const KINDS: Named<ExerciseKind> = EXERCISES.map((kind) => [kind, EXERCISE_WORDS[kind].name]);
  const EXTENT_NAMES: Named<Extent> = [
    ['whole', 'the whole form'],
    ['isolate', 'one chord, looped'],
    ['pair', 'two chords, in turn'],
  ];
  const GROUPS: Named<number> = [
    [3, 'three'],
    [4, 'four'],
  ];
  const beginsOn = $derived<Named<Beginning | ''>>([
    ['', settings.kind === 'degrees' ? 'each in turn' : 'the root'],
    ...(settings.kind === 'degrees' ? ([['1', 'the root']] as const) : []),
    ['3', 'the third'],
    ['5', 'the fifth'],
    ['7', 'the seventh'],
  ]);
  const HOMES: Named<string> = [
    ['', 'with I'],
    ['1', 'after half a bar'],
    ['2', 'after 1 bar'],
    ['3', 'after 1½ bars'],
    ['4', 'after 2 bars'],
  ];
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
  const writeMelody = once(async () => {
    const { chart, document } = study;
    if (!chart) return;
    const stays = staying();
    const id = await createLick({
      title: `${chart.source.title || 'Untitled'}, the melody`,
      tags: ['melody'],
      source: 'mine',
      chart: document.text.slice(0, LICK_LIMITS.chart),
      notes: [],
    });
    if (id === null) warn('The server does not answer.');
    else if (!(await stays())) inform('The melody is in Licks.');
    else await openPage(`/licks/${id}`);
  });

  /** The style a line has by itself, once one is made. */
  const own = $derived.by(() => {
    const line = practice.settings.style === null ? practice.exercise?.line : null;
    return line ? `${STYLE_ROWS[line.style].name}, as the feel` : 'as the feel';
  });
  const styles = $derived<Named<LineStyle | ''>>([
    ['', own],
    ...LINE_STYLES.map((style) => [style, STYLE_ROWS[style].name] as const),
  ]);
  const beginnings = $derived<Named<number>>(
    study.planned.map(({ index, bar, chord }) => [
      index,
      `bar ${bar}: ${showSymbol(chord.symbol)}`,
    ]),
  );
  const zoneNames = $derived<Named<string>>(
    zones.map((zone) => [zoneId(zone), `${zone.low}–${zone.high}`]),
  );
  const setNames = $derived<Named<string>>(sets.map((set) => [set.join('-'), set.join(' ')]));
  /** The melody itself is moved to the zone, unless it is asked for as it is. */
  const octaves = $derived<Named<string>>([
    ...(settings.kind === 'melody' ? ([['', 'nearest to the zone']] as const) : []),
    [settings.kind === 'melody' ? '0' : '', 'as written'],
    ['-1', 'an octave lower'],
    ['1', 'an octave higher'],
  ]);
</script>

{#snippet list<Value extends string | number>(
  label: string,
  name: string,
  value: Value,
  options: readonly (readonly [Value, string])[],
  onpick: (value: Value) => void,
)}
  <Picked {label} {name} {value} {options} {onpick} inline lettersToPage />
{/snippet}

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
  {@render list('Exercise', 'kind', settings.kind, KINDS, (kind) => practice.change({ kind }))}
  {@render list('In', 'subdivision', settings.subdivision, asNamed(SUBDIVISIONS), (subdivision) =>
    practice.change({ subdivision }),
  )}
  {@render list('Over', 'extent', settings.extent, EXTENT_NAMES, (extent) =>
    practice.change({ extent }),
  )}
  {#if settings.extent !== 'whole'}
    {@render list('From', 'from', settings.from, beginnings, (from) => practice.change({ from }))}
  {/if}
  {@render list('Zone', 'zone', zoneId(settings.zone), zoneNames, (id) => {
    const zone = zones.find((one) => zoneId(one) === id);
    if (zone) practice.change({ zone: { low: zone.low, high: zone.high } });
  })}
  {#if STYLED_KINDS.has(settings.kind)}
    {@render list('Style', 'style', settings.style ?? '', styles, (style) =>
      practice.change({ style: style === '' ? null : style }),
    )}
  {/if}
  {#if MELODY_KINDS.has(settings.kind) && study.plan.melody !== null}
    {@render list('Octave', 'octave', String(settings.octave ?? ''), octaves, (octave) =>
      practice.change({ octave: octave === '' ? null : Number(octave) }),
    )}
  {/if}
  {#if settings.kind === 'groups'}
    {@render list('Of', 'group', settings.group, GROUPS, (group) => practice.change({ group }))}
  {/if}
  {#if BEGINNING_KINDS.has(settings.kind)}
    {@render list('Begin on', 'begin', settings.begin ?? '', beginsOn, (begin) =>
      practice.change({ begin: begin === '' ? null : begin }),
    )}
  {/if}
  {#if ON_STRINGS.has(settings.kind)}
    {@render list('Strings', 'strings', settings.strings.join('-'), setNames, (id) => {
      const set = sets.find((one) => one.join('-') === id);
      if (set) practice.change({ strings: [...set] });
    })}
  {/if}
  {#if settings.kind === 'switch'}
    {@render list('Home', 'switch', String(practice.switchAt ?? ''), HOMES, (halves) =>
      practice.setSwitch(halves === '' ? null : Number(halves)),
    )}
  {/if}
  {#if MELODY_KINDS.has(settings.kind)}
    {#if study.plan.melody !== null}
      <button class="button-quiet" onclick={practice.dropMelody}>Remove the melody</button>
    {:else if !practice.opened}
      <button class="button" data-write-melody onclick={writeMelody}>Write the melody</button>
    {/if}
  {/if}
</div>
