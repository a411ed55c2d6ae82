<!-- The log: what to practise next, what is covered, the weeks, the days. -->
<script lang="ts">
  import type { Ladder } from '$core/log/ladder';
  import type { Block } from '$core/log/blocks';
  import { dayOf } from '$core/time/moments';
  import Keys from '$lib/frame/Keys.svelte';
  import { askAnew } from '$lib/ui/anew';
  import CoverageMap from '$lib/log/CoverageMap.svelte';
  import Days from '$lib/log/Days.svelte';
  import type { LoggedCell, LoggedChart } from '$lib/log/logged';
  import { localMoment, type StoredStint } from '$lib/log/messages';
  import type { DoneBlock } from '$lib/log/done';
  import NextSession from '$lib/log/NextSession.svelte';
  import SessionOver from '$lib/log/SessionOver.svelte';
  import { today } from '$lib/log/today.svelte';
  import WholeBook from '$lib/log/WholeBook.svelte';
  import Weeks from '$lib/log/Weeks.svelte';

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
    void askAnew();
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
