/** The tune's melody as a lane under the bars: the note each chord is met with. */
import type { Chart, Neck } from 'corvel-core';
import { degreeOver } from '$core/chords/over';
import type { Lane, LaneStop } from '$core/crossings/lanes';
import { landedOn } from '$core/licks/sounding';
import type { PlayedNote } from '$core/phrases/passage';
import { techniqueOf } from '$core/phrases/techniques';

export function laneOfMelody(chart: Chart, neck: Neck, melody: readonly PlayedNote[]): Lane {
  const stops: LaneStop[] = [];
  let last: number | null = null;
  // A grace belongs to the note after it.
  const own = melody.filter(({ techniques }) => techniqueOf(techniques, 'grace') === undefined);
  for (const { chord, beat, beats, index } of chart.chords) {
    const sounding = own.find((one) => one.beat <= beat && one.beat + one.beats > beat);
    const met = sounding ?? own.find((one) => one.beat > beat && one.beat < beat + beats);
    if (!met) continue;
    const { midi, note } = landedOn(neck, chart.source.key, chord, met);
    stops.push({
      index,
      note,
      degree: degreeOver(chord, note),
      halfSteps: last === null ? 0 : midi - last,
    });
    last = midi;
  }
  return stops;
}
