/** A lane over the bars: one note for each chord, drawn at its real pitch. */
import { extent } from 'd3-array';
import type { Chart, Note } from 'corvel-core';
import { contourOf, type Lane } from '$core/crossings/lanes';
import type { Interval } from '$core/notes/notes';
import { linear } from '$lib/ui/scale';

/** What the strip draws for one chord of a lane; `x` are shares of the chord's bar. */
export interface ContourStop {
  readonly index: number;
  readonly note: Note;
  readonly degree: Interval;
  readonly from: number;
  readonly to: number;
  readonly y: number;
  /** The way to the stop after: its height, and how many half steps it is; null for the last. */
  readonly onward: { readonly y: number; readonly halfSteps: number } | null;
}

export const CONTOUR_HEIGHT = 36;
const MARGIN = { above: 13, below: 4 } as const;
/** Half steps the lane shows at the least, so that a half step stays a small move. */
const LEAST_RANGE = 6;

/** Heights of a lane's stops, chord by chord. */
export function contourStops(chart: Chart, lane: Lane): ReadonlyMap<number, ContourStop> {
  const heights = contourOf(lane);
  const [low = 0, high = 0] = extent(heights) as [number, number] | [undefined, undefined];
  const spare = Math.max(0, LEAST_RANGE - (high - low)) / 2;
  const scale = linear([low - spare, high + spare], [CONTOUR_HEIGHT - MARGIN.below, MARGIN.above]);
  return new Map(
    lane.flatMap(({ index, note, degree }, place): [number, ContourStop][] => {
      const played = chart.chords[index];
      const bar = chart.bars[(played?.bar ?? 0) - 1];
      if (!played || !bar) return [];
      const from = (played.beat - bar.beat) / bar.beats;
      const next = lane[place + 1];
      const onward = next ? { y: scale(heights[place + 1] ?? 0), halfSteps: next.halfSteps } : null;
      const stop: ContourStop = {
        index,
        note,
        degree,
        from,
        to: from + played.beats / bar.beats,
        y: scale(heights[place] ?? 0),
        onward,
      };
      return [[index, stop]];
    }),
  );
}

/** How heavy a move is drawn: half steps the heaviest, leaps the thinnest. */
export function moveWeight(halfSteps: number): number {
  const size = Math.abs(halfSteps);
  if (size === 1) return 4.5;
  return size <= 2 ? 2 : 1;
}
