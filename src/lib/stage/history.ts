/**
 * What has happened while something is played, folded into what is played next: the course, the tempos, the
 * keys. `after` is the one place where a press, a pass that was poor or another loop becomes music.
 */
import { type TempoChange, TEMPO_RANGE, withinTempo } from '$core/time/tempo';
import type { Beats, BeatsPerMinute } from '$core/time/units';
import type { KeyWay, Ramp } from '$lib/study/playing';
import {
  BEFORE,
  type Course,
  courseOf,
  type Pass,
  passAt,
  passNumbered,
  type Round,
  withRound,
} from './course';
import { shiftOf } from './keys';
import { tempoAt, tempoFrom } from './tempos';

/** In which keys the passes from one on come. */
interface Keys {
  readonly pass: number;
  readonly way: KeyWay;
  readonly seed: number;
}

export interface History {
  readonly course: Course;
  readonly tempos: readonly TempoChange[];
  readonly keys: readonly [Keys, ...Keys[]];
}

/** What may happen. Beats are those up to which sound is made: nothing before them can change. */
export type Happening =
  | { readonly what: 'loop'; readonly round: Round; readonly reached: Beats }
  | { readonly what: 'tempo'; readonly bpm: BeatsPerMinute; readonly reached: Beats }
  | { readonly what: 'poor'; readonly reached: Beats }
  | {
      readonly what: 'keys';
      readonly way: KeyWay;
      readonly seed: number;
      readonly reached: Beats;
    };

export interface Begun {
  readonly round: Round;
  readonly bpm: BeatsPerMinute;
  readonly ramp: Ramp | null;
  readonly way: KeyWay;
  readonly seed: number;
}

/** Beats a minute slower after a pass the player marks as poor, where no ramp says how many. */
const SLOWER = 4;

/** What is played before anything has happened. */
export const begin = ({ round, bpm, ramp, way, seed }: Begun): History => ({
  course: courseOf(round),
  tempos: tempoFrom(bpm, ramp, (pass) => pass * round.beats),
  keys: [{ pass: 0, way, seed }],
});

/** The first pass that can still change, where sound is made up to a beat. */
export function openPass(course: Course, reached: Beats): Pass {
  const pass = passAt(course, Math.max(0, reached));
  // Where sound is made just up to a pass, that pass is still open.
  const open = pass.number > 0 && reached <= pass.begins;
  return open ? pass : passNumbered(course, pass.number + 1);
}

/** The tempos of a pass and of those after it anew; the ramp counts from it. */
function temposFrom(
  { course, tempos }: Pick<History, 'course' | 'tempos'>,
  { number, begins }: Pass,
  bpm: BeatsPerMinute,
  ramp: Ramp | null,
): readonly TempoChange[] {
  return [
    ...tempos.filter(({ beat }) => beat < begins),
    ...tempoFrom(bpm, ramp, (pass) => passNumbered(course, number + pass).begins),
  ];
}

/** What is played once something has happened. */
export function after(history: History, happening: Happening, ramp: Ramp | null): History {
  const { course, tempos, keys } = history;
  switch (happening.what) {
    case 'loop': {
      const { round, reached } = happening;
      const next = withRound(course, round, reached);
      const last = next.at(-1) ?? next[0];
      // What goes round already was chosen again: nothing happens.
      if (last === course.at(-1)) return history;
      // Where others were to follow and do not, the pass to come is the first that changes.
      const first = course.includes(last) ? openPass(next, reached) : passNumbered(next, last.pass);
      const bpm = tempoAt(tempos, Math.max(0, first.begins - BEFORE));
      return {
        ...history,
        course: next,
        tempos: temposFrom({ course: next, tempos }, first, bpm, ramp),
      };
    }
    case 'tempo': {
      const { bpm, reached } = happening;
      const within = withinTempo(bpm);
      // The pass that sounds is one of those the ramp counts.
      const [, ...following] = temposFrom(
        { course, tempos: [] },
        passAt(course, Math.max(0, reached)),
        within,
        ramp,
      );
      const before = tempos.filter(({ beat }) => beat < reached);
      return { ...history, tempos: [...before, { beat: reached, bpm: within }, ...following] };
    }
    case 'poor': {
      const open = openPass(course, happening.reached);
      const slow = tempoAt(tempos, open.begins - BEFORE) - (ramp?.by ?? SLOWER);
      const bpm = Math.max(TEMPO_RANGE.low, slow);
      return { ...history, tempos: temposFrom(history, open, bpm, ramp) };
    }
    case 'keys': {
      const { way, seed, reached } = happening;
      const pass = reached <= 0 ? 0 : openPass(course, reached).number;
      const before = keys.filter((one) => one.pass < pass);
      const [first, ...rest] = [...before, { pass, way, seed }];
      return first ? { ...history, keys: [first, ...rest] } : history;
    }
  }
}

/** Half steps of a pass above the chart's key. */
export function shiftIn({ keys }: Pick<History, 'keys'>, number: number): number {
  const { pass, way, seed } = keys.findLast((one) => one.pass <= number) ?? keys[0];
  return shiftOf(way, number - pass, seed);
}
