<!-- A stint written by hand, now or later. -->
<script lang="ts">
  import { FREE } from '$core/log/stints';
  import { PROGRESSION } from '$core/log/practice';
  import type { LoggedChart } from './logged';
  import { localMoment, SAID, type Said, type StintContent, stintSchema } from './messages';
  import { exerciseName } from './words';

  interface Props {
    readonly charts: readonly LoggedChart[];
    readonly onadd: (stint: StintContent) => Promise<void>;
  }

  let { charts, onadd }: Props = $props();

  let day = $state(localMoment().slice(0, 16));
  let chart = $state('');
  let exercise = $state<string>('targets');
  let zone = $state(0);
  let minutes = $state(10);
  let tempo = $state(100);
  let went = $state<Said | ''>('');
  let problem = $state('');
  const of = $derived(charts.find(({ id }) => id === chart) ?? charts[0] ?? null);

  function add(event: SubmitEvent) {
    event.preventDefault();
    const frets = of?.zones[zone] ?? of?.zones[0] ?? { low: 0, high: 12 };
    const at = new Date(day);
    const stint = stintSchema.safeParse({
      at: Number.isNaN(at.getTime()) ? day : localMoment(at),
      chart: of?.id ?? '',
      exercise,
      zone: frets,
      extent: 'form',
      minutes,
      tempo,
      tempoFrom: tempo,
      asked: went === '' ? null : SAID.asked,
      landed: went === '' ? null : SAID[went],
      note: '',
    });
    problem = stint.success ? '' : 'Give a day, half a minute to a day of minutes, and a tempo.';
    if (stint.success) void onadd(stint.data);
  }
</script>

<form class="mt-2 grid grid-cols-2 gap-2 rounded bg-sheet p-3 text-sm" onsubmit={add} novalidate>
  <label class="col-span-2 grid"
    >When<input class="field" type="datetime-local" name="at" bind:value={day} /></label
  >
  <label class="col-span-2 grid">
    Chart
    <select
      class="field"
      name="chart"
      value={of?.id}
      onchange={(event) => (chart = event.currentTarget.value)}
    >
      {#each charts as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
    </select>
  </label>
  <label class="grid">
    What
    <select class="field" name="exercise" bind:value={exercise}>
      <option value={FREE}>{exerciseName(FREE)}</option>
      {#each PROGRESSION as one (one)}<option value={one}>{exerciseName(one)}</option>{/each}
    </select>
  </label>
  <label class="grid">
    Frets
    <select class="field" name="zone" bind:value={zone}>
      {#each of?.zones ?? [] as one, index (one.low)}
        <option value={index}>{one.low} to {one.high}</option>
      {/each}
    </select>
  </label>
  <label class="grid"
    >Minutes<input
      class="field"
      type="number"
      name="minutes"
      min="0.5"
      max="1440"
      step="0.5"
      bind:value={minutes}
    /></label
  >
  <label class="grid"
    >Tempo<input
      class="field"
      type="number"
      name="bpm"
      min="20"
      max="400"
      bind:value={tempo}
    /></label
  >
  <label class="grid">
    It went
    <select class="field" name="went" bind:value={went}>
      <option value="">not said</option>
      <option value="clean">clean</option>
      <option value="shaky">shaky</option>
    </select>
  </label>
  <button class="button-strong self-end">Add</button>
  {#if problem}<p class="col-span-2 text-now-text" role="alert">{problem}</p>{/if}
</form>
