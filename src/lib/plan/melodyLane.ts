/** The tune's melody as a lane under the bars: the note each chord is met with. */
import { type Chart, type Neck, pitchAt } from 'corvel-core';
import { degreeOver } from '$core/chords/over';
import type { Lane, LaneStop } from '$core/crossings/lanes';
import type { PlayedNote } from '$core/phrases/passage';

export function laneOfMelody(chart: Chart, neck: Neck, melody: readonly PlayedNote[]): Lane {
  const stops: LaneStop[] = [];
  let last: number | null = null;
  for (const { chord, beat, beats, index } of chart.chords) {
    const sounding = melody.find((one) => one.beat <= beat && one.beat + one.beats > beat);
    const note = sounding ?? melody.find((one) => one.beat > beat && one.beat < beat + beats);
    if (!note) continue;
    const midi = pitchAt(neck, note);
    stops.push({
      index,
      note: note.note,
      degree: degreeOver(chord, note.note),
      halfSteps: last === null ? 0 : midi - last,
    });
    last = midi;
  }
  return stops;
}
