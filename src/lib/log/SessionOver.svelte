<!-- The end of a session: what was played of it, what was solid, and what comes next time. -->
<script lang="ts">
  import type { Block } from '$core/log/blocks';
  import { RULES } from '$core/log/stints';
  import { goto } from '$app/navigation';
  import type { DoneBlock } from './done';
  import type { LoggedChart } from './logged';
  import { exerciseName, minutesName, wentWords } from './words';
  import { counted } from '$core/words';

  interface Props {
    readonly done: readonly DoneBlock[];
    readonly tomorrow: Block | null;
    readonly charts: readonly LoggedChart[];
  }

  let { done, tomorrow, charts }: Props = $props();

  const title = (id: string) => charts.find((chart) => chart.id === id)?.title ?? 'a chart';
  const minutes = $derived(done.reduce((sum, one) => sum + one.minutes, 0));
  const played = $derived(done.filter((one) => one.minutes > 0));
  const solid = $derived(
    played.filter(
      ({ asked, landed }) => asked !== null && asked > 0 && (landed ?? 0) / asked >= RULES.solid,
    ),
  );
  const named = (all: readonly DoneBlock[]) =>
    all.map(({ block }) => exerciseName(block.exercise).toLowerCase()).join(', ');
</script>

<section aria-labelledby="session-over" data-session-over>
  <h2 id="session-over" class="heading text-xl">
    {played.length === done.length ? 'The session is over' : 'The session as far as it was played'}
  </h2>
  <p>
    {played.length === 0
      ? 'Nothing was played long enough to be in the log: half a minute is enough.'
      : `You practised for ${minutesName(minutes)}, ${played.length} of ${counted(done.length, 'block')}.`}
    {#if solid.length > 0}Nine of ten or more landed in: {named(solid)}.{/if}
  </p>
  <ol class="mt-2 grid gap-1">
    {#each done as { block, minutes: own, asked, landed }, place (place)}
      <li
        class="border-l-4 border-line-strong bg-sheet px-3 py-1 text-sm"
        data-done={block.exercise}
      >
        <span class="font-semibold">{exerciseName(block.exercise)}</span>
        {title(block.chart)}:
        {own === 0
          ? 'not played'
          : `${minutesName(own)} of ${minutesName(block.minutes)}`}{wentWords(
          block.exercise,
          asked,
          landed,
        )
          ? `, ${wentWords(block.exercise, asked, landed)}`
          : ''}
      </li>
    {/each}
  </ol>
  {#if tomorrow}
    <p class="mt-2" data-tomorrow>
      Tomorrow begins with {exerciseName(tomorrow.exercise).toLowerCase()} over {title(
        tomorrow.chart,
      )}, frets {tomorrow.zone.low} to {tomorrow.zone.high}.
    </p>
  {/if}
  <p class="mt-3 flex gap-2">
    <a class="button-strong" href="/">To the Book</a>
    <button class="button" onclick={() => void goto('/log')}>Another session</button>
  </p>
</section>
