/** Passes held against their targets, folded into what is shown and kept: each pass is judged once. */
import type { Landings } from 'corvel-core';
import type { TakenNote } from '$core/listening/take';
import type { Seconds } from '$core/time/units';

export interface PassLandings extends Landings {
  readonly pass: number;
  /** Which time of playing it belongs to: passes are counted anew in each. */
  readonly run: number;
  /** What was heard in it, in time of the chart. */
  readonly taken: readonly TakenNote[];
  /** When it was played, in seconds of the clock; null for a recording. */
  readonly span: { readonly from: Seconds; readonly to: Seconds } | null;
}

/** A pass before it is known which time of playing it belongs to. */
type Judged = Omit<PassLandings, 'run'>;

export interface Judging {
  readonly run: number;
  /** The pass that was judged last. */
  readonly done: PassLandings | null;
  /** The pass that sounds, as far as it was heard, where anything was asked for by now. */
  readonly going: Judged | null;
}

export const NOTHING_JUDGED: Judging = { run: 0, done: null, going: null };

/** A recording belongs to no time of playing. */
const RECORDED = -1;

export type Heard =
  | { readonly what: 'going' | 'ended' | 'recorded'; readonly pass: Judged }
  | { readonly what: 'stopped' };

/** What has been judged once something more was heard. */
export function judged(judging: Judging, heard: Heard): Judging {
  const { run, done, going } = judging;
  const isDone = (pass: Judged) => done !== null && done.run === run && done.pass >= pass.pass;
  switch (heard.what) {
    case 'going':
      return heard.pass.asked > 0 ? { ...judging, going: heard.pass } : judging;
    case 'ended':
      if (isDone(heard.pass)) return judging;
      return { run, done: { ...heard.pass, run }, going: null };
    case 'recorded':
      return { ...judging, done: { ...heard.pass, run: RECORDED } };
    case 'stopped':
      // What is broken off is judged as far as it went.
      return {
        run: run + 1,
        done: going && !isDone(going) ? { ...going, run } : done,
        going: null,
      };
  }
}
