<!-- The log: what to practise next, what is covered, the weeks, the days. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { Ladder } from '$core/log/ladder';
  import type { Block } from '$core/log/session';
  import type { State } from '$core/log/stints';
  import { dayOf } from '$core/time/moments';
  import type { Zone } from '$core/neck/neck';
  import Keys from '$lib/frame/Keys.svelte';
  import CoverageMap from './CoverageMap.svelte';
  import Days from './Days.svelte';
  import { localMoment, type StoredStint } from './messages';
  import type { DoneBlock } from './done';
  import NextSession from './NextSession.svelte';
  import SessionOver from './SessionOver.svelte';
  import { today } from './today.svelte';
  import WholeBook from './WholeBook.svelte';
  import Weeks from './Weeks.svelte';

  export interface LoggedChart {
    readonly id: string;
    readonly title: string;
    readonly zones: readonly Zone[];
    readonly tempo: number;
    readonly change: number;
  }

  export interface LoggedCell {
    readonly chart: string;
    readonly exercise: string;
    readonly zone: Zone;
    readonly minutes: number;
    readonly last: string | null;
    readonly state: State;
    readonly tempos: readonly { readonly at: string; readonly tempo: number }[];
  }

  interface Props {
    readonly charts: readonly LoggedChart[];
    readonly stints: readonly StoredStint[];
    readonly count: number;
    readonly weeks: Readonly<Record<string, number>>;
    readonly blocks: readonly Block[];
    readonly minutes: number;
    readonly cells: readonly LoggedCell[];
    readonly ladders: Readonly<Record<string, Ladder>>;
    readonly skipped: readonly string[];
    /** When an archive was taken in that can be taken back. */
    readonly taken: string | null;
    /** What was done of a session that has ended; null where none has. */
    readonly over: { readonly done: readonly DoneBlock[]; readonly tomorrow: Block | null } | null;
  }

  let {
    charts,
    stints,
    count,
    weeks,
    blocks,
    minutes,
    cells,
    ladders,
    skipped,
    over,
    taken,
  }: Props = $props();

  // What was played last is written while this page opens: it belongs to the summary.
  let seen = today.changes;
  $effect(() => {
    if (over === null || today.changes === seen) return;
    seen = today.changes;
    void invalidateAll();
  });

  const day = dayOf(localMoment());
  const playedToday = $derived(
    stints.filter(({ at }) => dayOf(at) === day).reduce((sum, { minutes: own }) => sum + own, 0),
  );
</script>

<Keys actions={{}} />

<main class="grid gap-x-8 gap-y-6 p-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
  <h1 class="sr-only">Log</h1>
  <div class="grid content-start gap-6">
    {#if over}
      <SessionOver {...over} {charts} />
    {:else}
      <NextSession {blocks} {charts} {minutes} {skipped} />
    {/if}
    <CoverageMap {charts} {cells} {ladders} />
    <WholeBook {taken} />
  </div>
  <div class="grid content-start gap-6">
    <Weeks {weeks} today={day} played={playedToday} />
    <Days {stints} {charts} {count} today={day} />
  </div>
</main>
