<!-- How fast one thing was played, time after time. -->
<script lang="ts">
  import { extent } from 'd3-array';
  import { line } from 'd3-shape';
  import type { LoggedCell } from './logged';
  import { exerciseName } from './words';
  import { counted } from '$core/words';

  let { cell }: { readonly cell: LoggedCell } = $props();

  const [WIDTH, HEIGHT, PAD] = [320, 56, 8];
  const tempos = $derived(cell.tempos.map(({ tempo }) => tempo));
  const bounds = $derived(extent(tempos));
  const points = $derived(
    tempos.map((tempo, index): [number, number] => {
      const [low = tempo, high = tempo] = bounds;
      const share = high === low ? 0.5 : (tempo - low) / (high - low);
      return [
        PAD + (index / Math.max(1, tempos.length - 1)) * (WIDTH - 2 * PAD),
        HEIGHT - PAD - share * (HEIGHT - 2 * PAD),
      ];
    }),
  );
  const says = $derived(
    `${exerciseName(cell.exercise)}, frets ${cell.zone.low} to ${cell.zone.high}: from ${tempos[0]} to ${tempos.at(-1)} bpm, ${counted(tempos.length, 'time')}.`,
  );
</script>

<figure class="mt-3">
  <figcaption class="text-sm">{says}</figcaption>
  <svg
    viewBox="0 0 {WIDTH} {HEIGHT}"
    class="mt-1 h-14 w-80 max-w-full"
    role="img"
    aria-label={says}
  >
    <path d={line()(points) ?? ''} class="fill-none stroke-ink" stroke-width="1.8" />
    {#each points as [x, y], index (index)}
      <circle cx={x} cy={y} r="3" class="fill-paper stroke-ink" stroke-width="1.6" />
    {/each}
  </svg>
</figure>
