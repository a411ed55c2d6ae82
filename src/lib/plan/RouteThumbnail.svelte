<!-- A route's contour, small: its notes over time at their pitch. -->
<script lang="ts">
  import { extent } from 'd3-array';
  import { linear } from '$lib/ui/scale';
  import { curveStepAfter, line } from 'd3-shape';
  import type { Chart } from 'corvel-core';
  import type { Route } from '$core/targets/route';
  import { chartBeats } from '$core/chart/form';

  interface Props {
    readonly route: Route;
    readonly chart: Chart;
  }

  let { route, chart }: Props = $props();

  const WIDTH = 150;
  const HEIGHT = 34;
  const beatOf = (index: number) => chart.chords[index]?.beat ?? 0;
  const path = $derived.by(() => {
    const pitches = extent(route.stops, ({ midi }) => midi) as [number, number];
    const end = chartBeats(chart);
    const x = linear([0, end], [2, WIDTH - 2]);
    const y = linear([pitches[0] - 1, pitches[1] + 1], [HEIGHT - 3, 3]);
    return line<(typeof route.stops)[number]>(
      ({ index }) => x(beatOf(index)),
      ({ midi }) => y(midi),
    ).curve(curveStepAfter)(route.stops);
  });
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT}" class="block w-full" aria-hidden="true">
  <path class="fill-none stroke-current" stroke-width="2" d={path} />
</svg>
