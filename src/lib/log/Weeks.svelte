<!-- Minutes by week, and today's. -->
<script lang="ts">
  import { max } from 'd3-array';
  import { isoWeek, lastWeeks } from './weeks';
  import { minutesName } from './words';

  interface Props {
    /** Minutes by the Monday of their week. */
    readonly weeks: Readonly<Record<string, number>>;
    readonly today: string;
    /** Minutes of today. */
    readonly played: number;
  }

  let { weeks, today, played }: Props = $props();

  const COUNT = 12;
  const shown = $derived(
    lastWeeks(COUNT, today).map((week) => ({ week, minutes: weeks[week] ?? 0 })),
  );
  const most = $derived(Math.max(1, max(shown, ({ minutes }) => minutes) ?? 1));
  const now = $derived(weeks[isoWeek(today)] ?? 0);
  const before = $derived(shown.at(-2)?.minutes ?? 0);
  const says = $derived(
    now === 0 && before === 0
      ? 'Nothing was practised this week or last.'
      : `${played > 0 ? `${minutesName(played)} today, ` : ''}${minutesName(now)} this week, ${minutesName(before)} last week.`,
  );
  const format = new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    timeZone: 'UTC',
  });
</script>

<section aria-labelledby="weeks" class="break-inside-avoid">
  <h2 id="weeks" class="heading text-xl">Weeks</h2>
  <p class="first-letter:uppercase mt-1 text-sm">{says}</p>
  <ol class="mt-2 flex h-24 items-end gap-1.5" aria-label="Minutes by week">
    {#each shown as { week, minutes } (week)}
      <li
        class="flex h-full min-w-0 flex-1 flex-col justify-end"
        title="{format.format(new Date(week))}: {minutesName(minutes)}"
      >
        <span class="sr-only">Week of {format.format(new Date(week))}: {minutesName(minutes)}</span>
        <span
          class="{minutes === 0 ? 'border-b border-line-strong' : 'bg-ink'} block"
          style:height="{Math.round((minutes / most) * 100)}%"
        ></span>
      </li>
    {/each}
  </ol>
</section>
