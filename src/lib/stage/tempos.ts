/** The tempos of passes: steady, or faster every so many of them. */
import { type TempoChange, TEMPO_RANGE, withinTempo } from '$core/time/tempo';
import type { Beats, BeatsPerMinute } from '$core/time/units';
import type { Ramp } from '$lib/study/playing';

/**
 * The tempo of passes: steady, or faster every so many of them up to a goal (slower, where the goal is
 * below). `begins` says with which beat each of them begins, the first being number 0.
 */
export function tempoFrom(
  bpm: BeatsPerMinute,
  ramp: Ramp | null,
  begins: (pass: number) => Beats,
): readonly TempoChange[] {
  const changes: TempoChange[] = [{ beat: begins(0), bpm: withinTempo(bpm) }];
  if (!ramp) return changes;
  const way = Math.sign(ramp.goal - bpm);
  let now = withinTempo(bpm);
  for (let pass = ramp.every; now !== ramp.goal && way !== 0; pass += ramp.every) {
    now = withinTempo(now + way * ramp.by);
    if ((ramp.goal - now) * way <= 0) now = ramp.goal;
    changes.push({ beat: begins(pass), bpm: now });
    if (now === TEMPO_RANGE.high || now === TEMPO_RANGE.low) break;
  }
  return changes;
}

/** The tempo that holds at a beat. */
export const tempoAt = (changes: readonly TempoChange[], beat: Beats): BeatsPerMinute =>
  (changes.findLast((one) => one.beat <= beat) ?? changes[0])?.bpm ?? TEMPO_RANGE.low;
