<!-- What to practise next: blocks with their reasons, each to be started, put off or made longer. -->
<script lang="ts">
  import TheoryLink from '$lib/ui/TheoryLink.svelte';
  import Play from '@lucide/svelte/icons/play';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { Block } from '$core/log/blocks';
  import { FREE } from '$core/log/stints';
  import { cellKey } from '$core/log/stints';
  import { openPage, staying } from '$lib/ui/anew';
  import { showSymbol } from '$lib/ui/glyphs';
  import { blockAddress } from './links';
  import type { LoggedChart } from './logged';
  import { exerciseName, hasTempo } from './words';

  interface Props {
    readonly blocks: readonly Block[];
    readonly charts: readonly LoggedChart[];
    readonly minutes: number;
    readonly skipped: readonly string[];
  }

  let { blocks, charts, minutes, skipped }: Props = $props();

  const LENGTHS = [5, 10, 20, 30, 45, 60];
  const title = (id: string) => charts.find((chart) => chart.id === id)?.title ?? 'A chart';
  /** The block that was begun last, so that the next one is offered. */
  const begun = $derived(Number(page.url.searchParams.get('begun') ?? -1));
  const next = $derived(blocks[begun + 1] ?? null);

  function ask(change: (asked: URLSearchParams) => void) {
    const url = new URL(page.url);
    change(url.searchParams);
    void goto(`${url.pathname}?${url.searchParams.toString()}`, {
      keepFocus: true,
      noScroll: true,
      replaceState: true,
    });
  }
  const length = (to: number) =>
    ask((asked) => {
      asked.set('minutes', String(to));
      asked.delete('begun');
      asked.delete('at');
    });
  const keyOf = ({ chart, exercise, zone }: Block) => cellKey(chart, exercise, zone);
  const skip = (block: Block) =>
    ask((asked) => {
      asked.append('skip', keyOf(block));
    });
  const longer = (block: Block) => ask((asked) => asked.append('longer', keyOf(block)));

  async function start(block: Block, index: number) {
    const stays = staying();
    const url = new URL(page.url);
    for (const name of ['begun', 'over']) url.searchParams.delete(name);
    // What is played from here on is in the log; the session stays as it was proposed.
    if (!url.searchParams.has('at')) url.searchParams.set('at', String(Date.now()));
    const session = url.searchParams.toString();
    // Coming back leads on to the block after it.
    url.searchParams.set('begun', String(index));
    await goto(`${url.pathname}?${url.searchParams.toString()}`, { replaceState: true });
    if (await stays()) await openPage(blockAddress(block, session, index));
  }

  function onkeydown({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent) {
    if (ctrlKey || metaKey || altKey || !next) return;
    const typing =
      target instanceof Element && target.closest('input, textarea, select, button, a');
    if (key === ' ' && !typing) void start(next, blocks.indexOf(next));
  }
</script>

<svelte:window {onkeydown} />

<section aria-labelledby="next-session" data-next-session>
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    <h2 id="next-session" class="heading text-xl">Next session</h2>
    <label class="flex items-center gap-2 text-sm">
      I have
      <select
        class="field"
        name="session-minutes"
        value={minutes}
        onchange={(event) => length(Number(event.currentTarget.value))}
      >
        {#each [...new Set([...LENGTHS, minutes])].sort((a, b) => a - b) as one (one)}
          <option value={one}>{one} minutes</option>
        {/each}
      </select>
    </label>
    {#if next}
      <button class="button-strong ml-auto" onclick={() => void start(next, begun + 1)}>
        <Play size={16} aria-hidden="true" />{begun < 0 ? 'Start' : 'Go on'} (Space)
      </button>
    {/if}
  </div>
  {#if charts.length === 0}
    <p class="mt-2">
      There is no chart to practise yet. <a class="underline" href="/">Type one in the Book</a>, or
      add the demo charts there.
    </p>
  {/if}
  <ol class="@container mt-2 grid gap-1.5">
    {#each blocks as block, index (cellKey(block.chart, block.exercise, block.zone))}
      <li
        class="grid grid-cols-[4.5rem_minmax(0,1fr)_auto] items-start gap-x-3 @max-xl:grid-cols-[3.5rem_minmax(0,1fr)] border-l-4 bg-sheet px-3 py-2 {index ===
        begun + 1
          ? 'border-next'
          : index <= begun
            ? 'border-line opacity-60'
            : 'border-line-strong'}"
        data-block={block.exercise}
      >
        <p class="text-lg font-semibold tabular-nums">
          {block.minutes}<span class="ml-1 text-xs font-normal text-ink-soft">min</span>
        </p>
        <div class="min-w-0">
          <p class="font-semibold">
            {exerciseName(block.exercise)}
            <span class="font-normal text-ink-soft">
              {title(block.chart)}, frets {block.zone.low} to {block.zone.high}{hasTempo(
                block.exercise,
              )
                ? `, ${block.tempo} bpm`
                : ''}{block.exercise === FREE || !hasTempo(block.exercise)
                ? ''
                : `, ${block.extent}`}
            </span>
          </p>
          <p class="text-sm text-ink-soft">{showSymbol(block.reason)}</p>
        </div>
        <div class="flex gap-1 @max-xl:col-start-2 @max-xl:-ml-3">
          <button class="button-quiet min-h-9 text-sm" onclick={() => void start(block, index)}
            >Play<span class="sr-only"> {exerciseName(block.exercise)}</span></button
          >
          <button
            class="button-quiet min-h-9 text-sm"
            title="Two minutes longer; later blocks get shorter"
            onclick={() => longer(block)}
            >Longer<span class="sr-only">: {exerciseName(block.exercise)}</span></button
          >
          {#if block.exercise !== FREE}
            <button
              class="button-quiet min-h-9 text-sm"
              title="Choose something else today"
              onclick={() => skip(block)}
              >Not today<span class="sr-only">: {exerciseName(block.exercise)}</span></button
            >
          {/if}
        </div>
      </li>
    {/each}
  </ol>
  {#if skipped.length > 0}
    <button class="button-quiet mt-1 text-sm" onclick={() => ask((asked) => asked.delete('skip'))}
      >Bring back what you postponed ({skipped.length})</button
    >
  {/if}
  <TheoryLink part="practice" of="practice" />
</section>
