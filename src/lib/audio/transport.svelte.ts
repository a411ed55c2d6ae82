/**
 * The transport: the only clock. It plays a programme, schedules its sound ahead, and says which
 * beat it is; drawing asks it. Nothing scheduled sounds after it is stopped.
 */
import type { Beats, Seconds } from '$core/time/units';
import { openOutput, type Output } from './output';
import { beatThrough, dueBetween, type Programme, secondsThrough } from './programme';

/** How far ahead sound is scheduled: a page in the background is woken once a second or so. */
const AHEAD: Seconds = 1.2;
/** Before the first note, so that it is not late. */
const LEAD: Seconds = 0.1;

interface Playing {
  readonly programme: Programme;
  readonly output: Output;
  /** The second of the clock at which beat 0 of the first pass falls. */
  readonly zero: Seconds;
}

/**
 * A transport over an output that is opened when something is first played.
 *
 * @example
 * const transport = createTransport();
 * await transport.play(passageProgramme(passage));
 * transport.beat; // 3.25, within the pass
 * transport.stop();
 */
export function createTransport(open: () => Promise<Output> = openOutput) {
  let output: Output | null = null;
  let playing = $state.raw<Playing | null>(null);
  let beat = $state<Beats | null>(null);
  let silent = $state<string | null>(null);
  /** Beats up to which everything has been scheduled. */
  let scheduled: Beats = 0;
  let endTicks: (() => void) | null = null;
  let frame = 0;
  /** Counts what was asked, so that what was called off before it began never begins. */
  let asked = 0;

  function stop() {
    asked += 1;
    endTicks?.();
    endTicks = null;
    if (frame !== 0) cancelAnimationFrame(frame);
    frame = 0;
    playing?.output.silence();
    playing = null;
    beat = null;
  }

  /** Beats counted on through all passes, at a second of the clock. */
  const throughAt = ({ programme, zero }: Playing, seconds: Seconds): Beats =>
    beatThrough(programme, seconds - zero);

  /** The beat within its pass; a pick-up only before the first. */
  const inPass = ({ programme: { loop, length } }: Playing, through: Beats): Beats =>
    loop && through >= length ? through % length : through;

  function feed() {
    if (!playing) return;
    const { programme, output: out, zero } = playing;
    const now = out.now();
    const to = throughAt(playing, now + AHEAD);
    for (const { event, at } of dueBetween(programme, scheduled, to)) {
      const starts = zero + secondsThrough(programme, at);
      out.sound({
        midi: event.midi,
        at: Math.max(starts, now),
        seconds: zero + secondsThrough(programme, at + event.beats) - starts,
        velocity: event.velocity,
      });
    }
    scheduled = Math.max(scheduled, to);
    if (!programme.loop && throughAt(playing, now) >= programme.length) stop();
  }

  function follow() {
    if (!playing) return;
    beat = inPass(playing, throughAt(playing, playing.output.now()));
    frame = requestAnimationFrame(follow);
  }

  /** Begins a programme at a beat of its first pass, after its count; ends what played before. */
  async function play(programme: Programme, from: Beats = programme.start): Promise<void> {
    stop();
    asked += 1;
    const mine = asked;
    output ??= await open();
    if (mine !== asked) return;
    silent = output.silent;
    const begin = from - programme.countIn;
    const zero = output.now() + LEAD - secondsThrough(programme, begin);
    playing = { programme, output, zero };
    scheduled = from;
    beat = begin;
    endTicks = output.every(feed);
    feed();
    if (typeof requestAnimationFrame === 'function') follow();
  }

  return {
    /** The beat within the pass, as it was last drawn; null when nothing plays. */
    get beat() {
      return beat;
    },
    get playing() {
      return playing !== null;
    },
    /** Why nothing is heard, as a sentence; null where it is. */
    get silent() {
      return silent;
    },
    play,
    stop,
    /** Goes on from another beat of the pass. */
    async seek(to: Beats): Promise<void> {
      if (playing) await play({ ...playing.programme, countIn: 0 }, to);
    },
    /** The beat counted on through all passes at a second of the clock; null when nothing plays. */
    beatAt: (seconds: Seconds): Beats | null => playing && throughAt(playing, seconds),
    /** The second of the clock at which a beat counted on through all passes falls. */
    secondsAt: (through: Beats): Seconds | null =>
      playing && playing.zero + secondsThrough(playing.programme, through),
  };
}

export type Transport = ReturnType<typeof createTransport>;

let shared: Transport | null = null;

/** The transport of this page: whatever plays, plays alone. */
export const pageTransport = (): Transport => (shared ??= createTransport());
