<!-- The days: what was practised, where, how fast, how it went; each to be changed or taken out. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { group } from '$core/lists';
  import { onDestroy } from 'svelte';
  import { dayOf } from '$core/time/moments';
  import { type Sent } from '$lib/kept/outbox.svelte';
  import { askAnew } from '$lib/ui/anew';
  import { freshId } from '$lib/ui/ids';
  import { message, warn } from '$lib/ui/messages.svelte';
  import { once } from '$lib/ui/once';
  import {
    contentOf,
    deleteStint,
    importLog,
    isWaiting,
    keepStint,
    olderStints,
    restoreStint,
    withWaiting,
  } from './api';
  import type { LoggedChart } from './logged';
  import { NO_CHART, type StintContent, type StoredStint } from './messages';
  import StintForm from './StintForm.svelte';
  import { dayName, exerciseName, hasTempo, minutesName, wentWords } from './words';
  import { chosenFile } from '$lib/ui/chosenFile';
  import { counted } from '$core/words';

  interface Props {
    readonly stints: readonly StoredStint[];
    readonly charts: readonly LoggedChart[];
    readonly count: number;
    readonly today: string;
  }

  let { stints, charts, count, today }: Props = $props();

  const AWAY = 'The server does not answer. Nothing was changed.';
  /** What was listed when older ones were asked for, and those: a page that is read again has others for its last. */
  let older = $state.raw<readonly StoredStint[]>([]);
  const listed = $derived.by(() => {
    const ids = new Set(stints.map(({ id }) => id));
    return [...stints, ...older.filter(({ id }) => !ids.has(id))];
  });
  const shown = $derived(withWaiting(listed));
  async function showOlder() {
    const last = shown.at(-1);
    const found = last ? await olderStints(last) : [];
    if (found) older = [...listed, ...found];
    else warn('The server does not answer.');
  }
  const days = $derived([...group(shown, ({ at }) => dayOf(at))]);
  const title = (id: string) =>
    charts.find((chart) => chart.id === id)?.title ??
    (id === NO_CHART ? 'of no chart' : 'a chart no longer here');
  const went = ({ exercise, asked, landed }: StoredStint) => wentWords(exercise, asked, landed);
  let adding = $state(false);

  /** What was sent is in the list, or waits for the server; only what is refused is said. */
  async function told(sent: Promise<Sent>) {
    const { kind, ...rest } = await sent;
    if (kind === 'kept') await askAnew();
    else if ('message' in rest && rest.message !== '') warn(rest.message);
    return kind !== 'refused';
  }

  const add = once(async (stint: StintContent) => {
    if (await told(keepStint(freshId(), stint))) adding = false;
  });

  async function remove(stint: StoredStint) {
    const { id, exercise } = stint;
    if (!(await deleteStint(id))) {
      warn(AWAY);
      return;
    }
    const wasOlder = older.some((one) => one.id === id);
    older = older.filter((one) => one.id !== id);
    await askAnew();
    const restore = async () => {
      if (!(await restoreStint(id))) warn(AWAY);
      else if (wasOlder) older = [...older, stint];
      await askAnew();
    };
    message(`${exerciseName(exercise)} is deleted from the log.`, {
      duration: 10_000,
      action: { label: 'Undo', onClick: () => void restore() },
    });
  }

  /** A note that is being typed is kept within a second; the list is read again when its field is left. */
  const SOON = 600;
  let typed: { readonly stint: StoredStint; readonly text: string } | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;

  function keepTyped(): Promise<Sent> | null {
    clearTimeout(timer);
    const now = typed;
    typed = null;
    return now && keepStint(now.stint.id, { ...contentOf(now.stint), note: now.text }, now.stint);
  }

  function typing(stint: StoredStint, text: string) {
    if (typed && typed.stint.id !== stint.id) void keepTyped();
    typed = { stint, text };
    clearTimeout(timer);
    timer = setTimeout(() => void keepTyped(), SOON);
  }
  onDestroy(() => void keepTyped());

  async function note(stint: StoredStint, text: string) {
    typed = { stint, text };
    const sent = keepTyped();
    if (sent) await told(sent);
  }

  async function take(file: File) {
    message(await importLog(file));
    await askAnew();
  }
</script>

<svelte:window onpagehide={() => void keepTyped()} />

<section aria-labelledby="days" data-days>
  <div class="flex flex-wrap items-baseline gap-x-4">
    <h2 id="days" class="heading text-xl">Days</h2>
    <button class="button-quiet text-sm" aria-expanded={adding} onclick={() => (adding = !adding)}
      ><Plus size={15} aria-hidden="true" />Add by hand</button
    >
    <a class="button-quiet ml-auto text-sm" href="/api/stints?as=csv" download>CSV</a>
    <a class="button-quiet text-sm" href="/api/stints?as=json" download>JSON</a>
    <label class="button-quiet cursor-pointer text-sm">
      Open
      <input
        class="sr-only"
        type="file"
        accept=".json,.csv,application/json,text/csv"
        name="log-file"
        onchange={(event) => {
          const file = chosenFile(event.currentTarget);
          if (file) void take(file);
        }}
      />
    </label>
  </div>
  {#if adding}<StintForm {charts} onadd={add} />{/if}
  {#if count === 0}
    <p class="mt-2 text-sm text-ink-soft">Anything you play for half a minute is logged here.</p>
  {/if}
  <div
    class="max-h-[32rem] overflow-y-auto [scrollbar-width:thin] lg:max-h-[calc(100dvh-20rem)] print:max-h-none print:overflow-visible"
  >
    {#each days as [day, own] (day)}
      <h3 class="mt-3 text-sm font-semibold">
        {dayName(day, today)}
        <span class="font-normal text-ink-soft"
          >{minutesName(own.reduce((sum, { minutes }) => sum + minutes, 0))}</span
        >
      </h3>
      <ul>
        {#each own as stint (stint.id)}
          <li
            class="grid break-inside-avoid grid-cols-[minmax(0,1fr)_auto] gap-x-2 border-t border-line py-1 text-sm"
            data-stint={stint.exercise}
          >
            <p class="min-w-0">
              <span class="font-semibold">{exerciseName(stint.exercise)}</span>
              {title(stint.chart)}, frets {stint.zone.low} to {stint.zone.high}
              <span class="text-ink-soft tabular-nums">
                {stint.at.slice(11, 16)} · {minutesName(stint.minutes)}{hasTempo(stint.exercise)
                  ? ` · ${stint.tempoFrom === stint.tempo ? '' : `${stint.tempoFrom} to `}${stint.tempo} bpm`
                  : ''}{went(stint)
                  ? ` · ${went(stint)}${stint.earlierRule ? ', judged by an earlier rule' : ''}`
                  : ''}{isWaiting(stint.id) ? ' · waits for the server' : ''}
              </span>
            </p>
            <button
              class="button-quiet min-h-8"
              aria-label="Delete {exerciseName(stint.exercise)} at {stint.at.slice(
                11,
                16,
              )} from the log"
              onclick={() => void remove(stint)}><Trash size={14} aria-hidden="true" /></button
            >
            <input
              class="field col-span-2 mt-0.5 w-full border-transparent bg-transparent px-1 text-sm placeholder:text-ink-soft hover:border-line print:placeholder-shown:hidden"
              aria-label="Note on {exerciseName(stint.exercise)} at {stint.at.slice(11, 16)}"
              placeholder="A note"
              maxlength="2000"
              value={stint.note}
              oninput={(event) => typing(stint, event.currentTarget.value)}
              onchange={(event) => void note(stint, event.currentTarget.value)}
            />
          </li>
        {/each}
      </ul>
    {/each}
  </div>
  {#if count > listed.length}
    <p class="mt-2 text-sm text-ink-soft print:hidden">
      The last {listed.length} of {counted(count, 'entry', 'entries')}.
      <button class="underline" onclick={() => void showOlder()}>Show older ones</button>
    </p>
  {/if}
</section>
