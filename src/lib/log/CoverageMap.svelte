<!-- What is covered: exercises by zones, chart by chart; each square leads to where it is played. -->
<script lang="ts">
  import type { Ladder } from '$core/log/ladder';
  import { PROGRESSION } from '$core/log/practice';
  import { cellKey, STATES, type State } from '$core/log/stints';
  import { group } from '$core/lists';
  import { screenFor } from './links';
  import type { LoggedCell, LoggedChart } from './logged';
  import LadderSteps from './LadderSteps.svelte';
  import StateMark from './StateMark.svelte';
  import TempoLine from './TempoLine.svelte';
  import { exerciseName, minutesName, STATE_WORDS } from './words';

  interface Props {
    readonly ladders: Readonly<Record<string, Ladder>>;
    readonly charts: readonly LoggedChart[];
    readonly cells: readonly LoggedCell[];
  }

  let { charts, cells, ladders }: Props = $props();

  const byKey = $derived(
    Object.fromEntries(cells.map((cell) => [cellKey(cell.chart, cell.exercise, cell.zone), cell])),
  );
  const byChart = $derived(group(cells, ({ chart }) => chart));
  /** The chart practised most is shown first. */
  const ordered = $derived(charts.toSorted((a, b) => minutesOf(b.id) - minutesOf(a.id)));
  const minutesOf = (id: string) =>
    (byChart.get(id) ?? []).reduce((sum, { minutes }) => sum + minutes, 0);
  let chosen = $state('');
  const chart = $derived(charts.find(({ id }) => id === chosen) ?? ordered[0] ?? null);
  const own = $derived(chart ? (byChart.get(chart.id) ?? []) : []);

  const ladder = $derived(chart ? ladders[chart.id] : undefined);

  /** What is learnt first, and whatever was played. */
  const SHOWN = 7;
  const rows = $derived(
    PROGRESSION.filter(
      (one, index) => index < SHOWN || own.some(({ exercise }) => exercise === one),
    ),
  );
  const counts = $derived.by(() => {
    const all = (chart?.zones.length ?? 0) * rows.length;
    const of = (state: State) => own.filter((cell) => cell.state === state).length;
    const played = own.filter(({ exercise }) => rows.some((one) => one === exercise)).length;
    return { solid: of('solid'), shaky: of('shaky'), stale: of('stale'), untouched: all - played };
  });
  const says = $derived(
    counts.solid + counts.shaky + counts.stale === 0
      ? 'Nothing is solid yet: every square leads to the stage, set up for it.'
      : `${counts.solid} solid, ${counts.shaky} shaky, ${counts.stale} not played for three weeks, ${counts.untouched} not played yet.`,
  );
  const cellOf = (exercise: string, zone: LoggedChart['zones'][number]) =>
    chart ? byKey[cellKey(chart.id, exercise, zone)] : undefined;
  const longest = $derived(
    own
      .toSorted((a, b) => b.tempos.length - a.tempos.length)
      .find(({ tempos }) => tempos.length > 1),
  );
</script>

<section aria-labelledby="coverage" data-coverage>
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    <h2 id="coverage" class="heading text-xl">What is covered</h2>
    {#if charts.length > 1}
      <label class="text-sm">
        <span class="sr-only">Chart</span>
        <select
          class="field"
          name="map-chart"
          value={chart?.id}
          onchange={(event) => (chosen = event.currentTarget.value)}
        >
          {#each ordered as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
        </select>
      </label>
    {/if}
  </div>
  {#if chart}
    {#if ladder}<LadderSteps chart={chart.id} {ladder} />{/if}
    <p class="mt-3 text-sm">{says}</p>
    <div class="mt-2 overflow-x-auto">
      <table class="text-sm">
        <caption class="sr-only">Exercises by zones of {chart.title}</caption>
        <thead>
          <tr>
            <th scope="col" class="pr-4 text-left font-normal text-ink-soft">Frets</th>
            {#each chart.zones as zone (zone.low)}
              <th scope="col" class="px-1 font-normal tabular-nums text-ink-soft"
                >{zone.low}–{zone.high}</th
              >
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each rows as exercise (exercise)}
            <tr>
              <th scope="row" class="pr-4 text-left font-normal">{exerciseName(exercise)}</th>
              {#each chart.zones as zone (zone.low)}
                {@const cell = cellOf(exercise, zone)}
                {@const state = cell?.state ?? 'untouched'}
                <td class="p-0 text-center">
                  <a
                    class="inline-grid size-9 place-items-center rounded hover:bg-sheet pointer-coarse:size-11"
                    href={screenFor({ chart: chart.id, exercise, zone, extent: 'form' })}
                    title="{exerciseName(exercise)}, frets {zone.low} to {zone.high}: {STATE_WORDS[
                      state
                    ]}{cell ? `, ${minutesName(cell.minutes)}` : ''}"
                    data-state={state}
                  >
                    <StateMark {state} />
                  </a>
                </td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <ul class="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-xs text-ink-soft">
      {#each STATES as state (state)}
        <li class="flex items-center gap-1.5"><StateMark {state} />{STATE_WORDS[state]}</li>
      {/each}
    </ul>
    {#if longest}<TempoLine cell={longest} />{/if}
  {/if}
</section>
