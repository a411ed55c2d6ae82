<!-- The ladder of a chart: its rungs in order, the one to play now, each leading to where it is played. -->
<script lang="ts">
  import type { Ladder } from '$core/log/ladder';
  import { at } from '$core/lists';
  import { FREE } from '$core/log/stints';
  import { screenFor } from './links';
  import StateMark from './StateMark.svelte';
  import { exerciseName, STATE_WORDS } from './words';

  interface Props {
    readonly chart: string;
    readonly ladder: Ladder;
  }

  let { chart, ladder }: Props = $props();

  const now = $derived(at(ladder.rungs, ladder.now));
  const next = $derived(ladder.rungs[ladder.now + 1]);
  const says = $derived(
    now.exercise === FREE
      ? 'Every rung is solid: play freely.'
      : `Play “${exerciseName(now.exercise)}” at ${now.tempo} bpm.${
          next ? ` “${exerciseName(next.exercise)}” opens when it is solid.` : ''
        } You may jump to any rung.`,
  );
</script>

<section class="mt-3 text-sm" aria-labelledby="ladder" data-ladder>
  <h3 id="ladder" class="heading text-base">
    Ladder, frets {ladder.zone.low} to {ladder.zone.high}
  </h3>
  <p>{says}</p>
  <ol class="mt-1 flex flex-wrap gap-x-1">
    {#each ladder.rungs as { exercise, state, opened, tempo }, place (exercise)}
      <li>
        <a
          class="flex min-h-9 items-center gap-1.5 rounded px-2 hover:bg-sheet pointer-coarse:min-h-11 {place ===
          ladder.now
            ? 'font-bold'
            : opened
              ? ''
              : 'text-ink-soft'}"
          href={screenFor({ chart, exercise, zone: ladder.zone, tempo, extent: 'form' })}
          aria-current={place === ladder.now ? 'step' : undefined}
          data-rung={exercise}
        >
          <span class="tabular-nums">{place + 1}</span>
          <StateMark {state} />
          {exerciseName(exercise)}
          <span class="sr-only">: {STATE_WORDS[state]}{opened ? '' : ', not open yet'}</span>
        </a>
      </li>
    {/each}
  </ol>
</section>
