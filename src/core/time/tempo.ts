/** Tempo: beats a minute, and the time at which each beat falls. */
import { at } from '../lists';
import { BEAT, inBeats, type Beats, type BeatsPerMinute, type Seconds } from './units';

/** The tempos that are played, in beats a minute. */
export const TEMPO_RANGE = { low: 20, high: 400 } as const;

/**
 * The nearest tempo that is played at.
 *
 * @example withinTempo(9); // 20
 */
export const withinTempo = (bpm: BeatsPerMinute): BeatsPerMinute =>
  Math.min(TEMPO_RANGE.high, Math.max(TEMPO_RANGE.low, bpm));

/** Assumed where a chart states no tempo. */
export const DEFAULT_TEMPO: BeatsPerMinute = 120;

/** The tempo from a beat on. */
export interface TempoChange {
  readonly beat: Beats;
  readonly bpm: BeatsPerMinute;
}

/**
 * How long beats last at a tempo.
 *
 * @example secondsOf(6 * BEAT, 90); // 4
 */
export const secondsOf = (length: Beats, bpm: BeatsPerMinute): Seconds =>
  (inBeats(length) * 60) / bpm;

/**
 * How many beats some time takes at a tempo, to the nearest tick.
 *
 * @example inBeats(beatsIn(2, 90)); // 3
 */
export const beatsIn = (seconds: Seconds, bpm: BeatsPerMinute): Beats =>
  Math.round((seconds * bpm * BEAT) / 60);

/** Which second every beat falls on, and back to the nearest tick; beat 0 is second 0. Both run on below and above. */
export interface TempoMap {
  readonly secondsAt: (beat: Beats) => Seconds;
  readonly beatAt: (seconds: Seconds) => Beats;
}

/**
 * The map of tempos that hold from their beats on, the first of them also before.
 *
 * @example tempoMap([{ beat: 0, bpm: 60 }, { beat: 4 * BEAT, bpm: 120 }]).secondsAt(6 * BEAT); // 5
 */
export function tempoMap(changes: readonly TempoChange[]): TempoMap {
  const steps = changes.length > 0 ? changes : [{ beat: 0, bpm: DEFAULT_TEMPO }];
  const starts: number[] = [];
  for (const [index, { beat }] of steps.entries()) {
    const before = steps[index - 1];
    starts.push(
      before
        ? at(starts, index - 1) + secondsOf(beat - before.beat, before.bpm)
        : secondsOf(beat, at(steps, 0).bpm),
    );
  }
  const last = (holds: (index: number) => boolean) =>
    Math.max(
      0,
      steps.findLastIndex((_, index) => holds(index)),
    );
  return {
    secondsAt: (beat) => {
      const index = last((one) => at(steps, one).beat <= beat);
      const { beat: from, bpm } = at(steps, index);
      return at(starts, index) + secondsOf(beat - from, bpm);
    },
    beatAt: (seconds) => {
      const index = last((one) => at(starts, one) <= seconds);
      const { beat: from, bpm } = at(steps, index);
      return from + beatsIn(seconds - at(starts, index), bpm);
    },
  };
}
