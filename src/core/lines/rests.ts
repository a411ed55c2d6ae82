/** How much of a line is silence: enough to breathe, not so much that it falls apart. */
import { at } from '../lists';
import type { Beats } from '../time/units';
import type { Onset } from './onsets';
import type { LineMetre } from './rhythm';

/** Shares of the time a line rests. */
export const RESTS = { least: 0.15, most: 0.34 } as const;

/** No note is shortened below this part of a beat, and none below half of itself. */
const SHORTEST: Beats = 0.5;
const STEP: Beats = 0.25;

/** The share of a time in which nothing sounds. */
export function restShare(
  notes: readonly { readonly beat: Beats; readonly beats: Beats }[],
  end: Beats,
): number {
  let sounding = 0;
  let reached = 0;
  for (const { beat, beats } of notes) {
    const from = Math.max(reached, beat);
    const to = Math.min(end, beat + beats);
    if (to > from) sounding += to - from;
    reached = Math.max(reached, to);
  }
  return end > 0 ? 1 - sounding / end : 0;
}

/**
 * The onsets of a line with their lengths mended: long notes give way where the line never rests,
 * and ring on where it falls silent for too long. Turns for the player stay silent.
 */
export function restsIn(
  onsets: readonly Onset[],
  end: Beats,
  { bar }: LineMetre,
  calls: boolean,
): readonly Onset[] {
  const lengths = onsets.map(({ beats }) => beats);
  const share = () =>
    restShare(
      onsets.map(({ beat }, index) => ({ beat, beats: at(lengths, index) })),
      end,
    );
  const last = onsets.length - 1;
  for (let round = 0; round < 16 && share() < RESTS.least; round++) {
    for (const [index, onset] of onsets.entries()) {
      const length = at(lengths, index);
      const long = onset.ends || length > 2 * SHORTEST + 1e-6;
      if (index === last || !long || length - STEP < SHORTEST - 1e-6) continue;
      lengths[index] = length - STEP;
      if (share() >= RESTS.least) break;
    }
  }
  if (!calls) {
    const longest = { inside: bar / 2, ending: bar };
    for (let round = 0; round < 16 && share() > RESTS.most; round++) {
      for (const [index, onset] of onsets.entries()) {
        const breath = onset.ends && index !== last ? SHORTEST : 0;
        const most = Math.min(
          Math.min(onset.room, end - onset.beat) - breath,
          onset.ends ? longest.ending : longest.inside,
        );
        const length = at(lengths, index);
        if (length + STEP > most + 1e-6) continue;
        lengths[index] = length + STEP;
        if (share() <= RESTS.most) break;
      }
    }
  }
  return onsets.map((onset, index) => ({ ...onset, beats: at(lengths, index) }));
}
