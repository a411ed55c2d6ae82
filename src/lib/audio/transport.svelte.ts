/**
 * The transport: the only clock. It plays a programme, schedules its sound ahead, and says which
 * beat it is; drawing asks it. Nothing scheduled sounds after it is stopped.
 */
import type { Beats, Seconds } from '$core/time/units';
import { DEFAULT_MIX, gainsOf, type Mix } from './mix';
import { openOutput, type Output, type Sound } from './output';
import { SOUND_PARTS, type SoundPart } from './parts';
import type { PassOf, Programme } from './programme';

/**
 * How far ahead sound is scheduled: little, so that a change is soon heard; but a page in the
 * background is woken once a second or so. What sounds soon is handed over whatever it takes, the
 * rest a stretch of milliseconds at a time, so that the page goes on being drawn.
 */
const AHEAD = { seen: 0.45, hidden: 1.4 } as const;
const SOON = { seen: 0.2, hidden: AHEAD.hidden } as const;
const STRETCH = 1;
/** Before the first note, so that it is not late. */
const LEAD: Seconds = 0.1;

/** A programme, and the second of the clock at which its beat 0 falls; it holds from a beat on. */
interface Stretch {
  readonly programme: Programme;
  readonly zero: Seconds;
  readonly from: Beats;
}

interface PlayOptions {
  /** The beat of the first pass it begins at, after its count. */
  readonly from?: Beats;
  /** Parts whose sounds are fetched first. */
  readonly parts?: readonly SoundPart[];
}

/**
 * A transport over an output that is opened when something is first played.
 *
 * @example
 * const transport = createTransport();
 * await transport.play(passageProgramme(passage));
 * transport.beat; // 3 * BEAT + BEAT / 4, within the pass
 * transport.stop();
 */
export function createTransport(open: () => Promise<Output> = openOutput) {
  let output: Output | null = null;
  /** What plays, and what it takes over to when what is scheduled of it is over. */
  let stretches = $state.raw<readonly Stretch[]>([]);
  let through = $state<Beats | null>(null);
  let silent = $state<string | null>(null);
  let remark = $state<string | null>(null);
  /** The share of the sounds that is there while they are fetched; null when none are. */
  let fetching = $state<number | null>(null);
  let mix = $state.raw<Mix>(DEFAULT_MIX);
  /** Beats up to which everything has been scheduled, and what of it is not handed over yet. */
  let scheduled: Beats = 0;
  const waiting: Sound[] = [];
  let endTicks: (() => void) | null = null;
  let frame = 0;
  /** Counts what was asked, so that what was called off before it began never begins. */
  let asked = 0;

  const last = (): Stretch | undefined => stretches[stretches.length - 1];

  function stop() {
    asked += 1;
    fetching = null;
    endTicks?.();
    endTicks = null;
    if (frame !== 0) cancelAnimationFrame(frame);
    frame = 0;
    if (stretches.length > 0) output?.silence();
    stretches = [];
    waiting.length = 0;
    through = null;
  }

  const secondsIn = ({ programme, zero }: Stretch, beat: Beats): Seconds =>
    zero + programme.tempo.secondsAt(beat);

  /** The stretch that holds at a second of the clock. */
  const holdingAt = (seconds: Seconds): Stretch | undefined =>
    stretches.findLast((one, index) => index === 0 || secondsIn(one, one.from) <= seconds);

  /** Beats counted on through all passes, at a second of the clock. */
  function beatAt(seconds: Seconds): Beats | null {
    const holding = holdingAt(seconds);
    return holding ? holding.programme.tempo.beatAt(seconds - holding.zero) : null;
  }

  function feed() {
    const playing = last();
    if (!playing || !output) return;
    const { programme, zero } = playing;
    const now = output.now();
    const seen = typeof document !== 'undefined' && document.visibilityState === 'visible';
    const page = seen ? 'seen' : 'hidden';
    const to = programme.tempo.beatAt(now + AHEAD[page] - zero);
    if (to > scheduled) {
      for (const event of programme.eventsBetween(scheduled, to)) {
        const begins = secondsIn(playing, event.beat);
        const seconds = secondsIn(playing, event.beat + event.beats) - begins;
        waiting.push({ event, at: begins + (event.late ?? 0) / 1000, seconds });
      }
      scheduled = to;
    }
    const began = performance.now();
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      output.sound({ ...next, at: Math.max(next.at, now) });
      const following = waiting[0];
      if (!following || following.at - now <= SOON[page]) continue;
      if (performance.now() - began > STRETCH) break;
    }
    const beat = beatAt(now);
    if (programme.ends !== null && beat !== null && beat >= programme.ends) stop();
  }

  function follow() {
    if (!output || stretches.length === 0) return;
    through = beatAt(output.now());
    frame = requestAnimationFrame(follow);
  }

  /** The pass that sounds; null when nothing plays. No derived: it would end with the page that asks first. */
  const sounding = (): PassOf | null =>
    through === null ? null : (last()?.programme.passAt(Math.max(0, through)) ?? null);

  /** Begins a programme at a beat of its first pass, counted in; ends what played before. */
  async function play(programme: Programme, options: PlayOptions = {}): Promise<void> {
    const { from = programme.start, parts = SOUND_PARTS } = options;
    stop();
    asked += 1;
    const mine = asked;
    output ??= await open();
    if (mine !== asked) return;
    silent = output.silent;
    fetching = 0;
    remark = await output.prepare(parts, (share) => {
      if (mine === asked) fetching = share;
    });
    if (mine !== asked) return;
    fetching = null;
    output.mix(gainsOf(mix));
    const { tempo, countIn, count } = programme;
    // A pick-up sounds within the count.
    const origin = Math.max(0, from);
    const begin = Math.min(from, origin - countIn);
    const zero = output.now() + LEAD - tempo.secondsAt(begin);
    const counting = { programme, zero, from: begin };
    stretches = [counting];
    for (const event of count) {
      const at = secondsIn(counting, origin + event.beat);
      const seconds = secondsIn(counting, origin + event.beat + event.beats) - at;
      output.sound({ event, at: at + (event.late ?? 0) / 1000, seconds });
    }
    scheduled = from;
    through = begin;
    endTicks = output.every(feed);
    feed();
    if (typeof requestAnimationFrame === 'function') follow();
  }

  return {
    /** The beat within the pass, as it was last drawn, a pick-up only before the first; null when nothing plays. */
    get beat() {
      return through === null ? null : through - (sounding()?.begins ?? 0);
    },
    /** The beat counted on through all passes. */
    get through() {
      return through;
    },
    /** The beat up to which sound is scheduled: what is changed now is heard from there. */
    get reached() {
      return scheduled;
    },
    /** Passes that are over. */
    get pass() {
      return sounding()?.number ?? 0;
    },
    get playing() {
      return stretches.length > 0;
    },
    get fetching() {
      return fetching;
    },
    /** Why nothing is heard, as a sentence; null where it is. */
    get silent() {
      return silent;
    },
    /** What is heard otherwise than it should be, as a sentence. */
    get remark() {
      return remark;
    },
    get mix() {
      return mix;
    },
    setMix(to: Mix) {
      mix = to;
      output?.mix(gainsOf(to));
    },
    play,
    stop,
    /** Goes on with another programme at the same beat, once what is scheduled has sounded. */
    change(programme: Programme) {
      const playing = last();
      if (!playing) return;
      const zero = secondsIn(playing, scheduled) - programme.tempo.secondsAt(scheduled);
      const now = output?.now() ?? 0;
      const holding = stretches.filter((one) => secondsIn(one, one.from) <= now);
      stretches = [...holding.slice(-1), { programme, zero, from: scheduled }];
    },
    /** The beat counted on through all passes at a second of the clock; null when nothing plays. */
    beatAt,
    /** The second of the clock at which a beat counted on through all passes falls. */
    secondsAt(beat: Beats): Seconds | null {
      const holding =
        stretches.findLast(({ from }) => from <= beat) ?? (stretches[0] as Stretch | undefined);
      return holding ? secondsIn(holding, beat) : null;
    },
  };
}

export type Transport = ReturnType<typeof createTransport>;

let shared: Transport | null = null;

/** The transport of this page: whatever plays, plays alone. */
export const pageTransport = (): Transport => (shared ??= createTransport());
