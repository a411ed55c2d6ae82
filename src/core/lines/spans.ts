/** What a passage is made over: chords in time with what is played on each. */
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
import type { Intent } from '../lenses/lens';
import type { Material } from '../lenses/material';
import { at, range } from '../lists';
import type { Beats } from '../time/units';

/** What is played over the rest of a chord, from so far into it. */
export interface Later {
  readonly material: Material;
  readonly after: Beats;
}

/** One chord in time. */
export interface ChordSpan {
  /** Index of the chord in the chart. */
  readonly index: number;
  readonly chord: Chord;
  readonly beat: Beats;
  readonly beats: Beats;
  readonly material: Material;
  readonly later?: Later | null;
  readonly intent: Intent;
}

/** What is played over a chord at a beat. */
export const materialAt = ({ beat: begins, material, later }: ChordSpan, beat: Beats): Material =>
  later && beat >= begins + later.after ? later.material : material;

/** The chords after its own that a note rings into, which ends at a beat. */
export function rungInto(
  spans: readonly ChordSpan[],
  own: number,
  end: Beats,
): readonly ChordSpan[] {
  const rung: ChordSpan[] = [];
  for (let next = own + 1; next < spans.length && at(spans, next).beat < end; next++) {
    rung.push(at(spans, next));
  }
  return rung;
}

/** The whole form, one chord looped, or a chord and the next in turn. */
export const EXTENTS = ['whole', 'isolate', 'pair'] as const;
export type Extent = (typeof EXTENTS)[number];

/** How often a chord, or a pair, goes round. */
const ROUNDS: Readonly<Record<Extent, number>> = { whole: 1, isolate: 4, pair: 4 };

/** The chords of an extent laid end to end from beat 0, starting at a chord of the chart. */
export function spansOf(
  chart: Chart,
  materials: readonly Material[],
  intents: readonly Intent[],
  extent: Extent = 'whole',
  from = 0,
  later: readonly (Later | null)[] = [],
): readonly ChordSpan[] {
  const { chords } = chart;
  const span = (index: number, beat: Beats): readonly ChordSpan[] => {
    const played = chords[index];
    const material = materials[index];
    if (!played || !material) return [];
    const { chord, beats } = played;
    return [
      {
        index,
        chord,
        beat,
        beats,
        material,
        later: later[index] ?? null,
        intent: intents[index] ?? 'lean',
      },
    ];
  };
  if (extent === 'whole') return chords.flatMap(({ index, beat }) => span(index, beat));
  const turn = extent === 'isolate' ? [from] : [from, (from + 1) % Math.max(1, chords.length)];
  let beat: Beats = 0;
  return range(0, ROUNDS[extent]).flatMap(() =>
    turn.flatMap((index) => {
      const found = span(index, beat);
      beat += found[0]?.beats ?? 0;
      return found;
    }),
  );
}
