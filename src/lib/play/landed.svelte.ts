/** What landed on the stage: pass by pass, what was heard held against the targets. */
import { type HeardAt, type Landing, type Landings, landingsOf } from '$core/listening/landings';
import type { HeardNote } from '$core/listening/notes';
import type { TakenNote } from '$core/listening/take';
import type { Beats, Seconds } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import { onBeats } from '$lib/listening/beats';
import type { Ear } from '$lib/listening/ear.svelte';
import type { Loop } from '$lib/study/playing';
import { loopAround } from '$lib/study/loops';
import type { Stage } from './stage.svelte';

/** Beats after a target when it is decided: its window, and what hearing takes in seconds. */
const WINDOW: Beats = 1;
const HEARING: Seconds = 0.35;
/** How near a beat of the count a click that is heard falls, in beats. */
const ON_BEAT: Beats = 0.15;
/** Beats before a pass that may belong to it. */
const EARLY: Beats = 1;

export interface PassLandings extends Landings {
  readonly pass: number;
  /** Which time of playing it belongs to: passes are counted anew in each. */
  readonly run: number;
  /** What was heard in it, in beats of the chart. */
  readonly taken: readonly TakenNote[];
  /** When it was played, in seconds of the clock; null for a recording. */
  readonly span: { readonly from: Seconds; readonly to: Seconds } | null;
}

export function createLanded(stage: Stage, ear: Ear) {
  const transport = pageTransport();
  let done = $state.raw<PassLandings | null>(null);
  let run = 0;

  const decided = $derived(WINDOW + (HEARING * stage.tempo) / 60);

  /** Notes in beats from the beginning of a pass, those of a stretch of it. */
  function inPass<N extends { readonly at: Seconds; readonly length: Seconds }>(
    notes: readonly N[],
    pass: number,
    from: Beats,
    to: Beats,
  ) {
    const zero = pass * (stage.form?.beats ?? 0);
    return onBeats(transport, notes, zero).filter(({ beat }) => beat >= from && beat < to);
  }

  /** Notes held against the targets of a pass that are decided at a beat of it. */
  function held(pass: number, upTo: Beats, notes: readonly HeardAt[]): Landings | null {
    const chart = stage.chartIn(pass);
    if (!chart) return null;
    const targets = stage.targetsIn(pass).filter(({ beat }) => beat + decided <= upTo);
    const heard = notes.map((note) => ({ ...note, beat: stage.start + note.beat }));
    return landingsOf(chart, targets, heard);
  }

  /** What of a pass has been decided when the music is at a beat of it. */
  function landingsIn(pass: number, upTo: Beats): Landings | null {
    const length = stage.form?.beats ?? 0;
    return held(pass, upTo, inPass(ear.heard, pass, -EARLY, length + EARLY));
  }

  const hearing = $derived(ear.state === 'hearing' && stage.playing);
  /**
   * How far into the pass the music is and the ear has come: on a busy machine it listens later than it
   * sounds. By half beats: nothing is worked out between them.
   */
  const upTo = $derived.by(() => {
    const zero = stage.pass * (stage.form?.beats ?? 0);
    const listened = (transport.beatAt(ear.through) ?? -Infinity) - zero;
    return Math.floor(2 * Math.min(stage.beat, listened)) / 2;
  });
  const now = $derived(
    hearing && upTo > 0 && !stage.isShown(stage.pass) ? landingsIn(stage.pass, upTo) : null,
  );

  // A pass is judged when its last targets are decided, in the pass after it.
  const over = $derived(
    hearing && stage.pass > 0 && upTo >= Math.min(decided, (stage.form?.beats ?? 0) / 2)
      ? stage.pass - 1
      : null,
  );
  $effect(() => {
    if (
      over === null ||
      !stage.form ||
      stage.isShown(over) ||
      (done?.run === run && done.pass === over)
    )
      return;
    const pass = landingsIn(over, Infinity);
    if (pass) done = passAsItIs(over, pass);
  });

  /** A pass with what was heard in it so far. */
  function passAsItIs(pass: number, landings: Landings): PassLandings {
    const length = stage.form?.beats ?? 0;
    const from = transport.secondsAt(pass * length);
    const to = transport.secondsAt((pass + 1) * length);
    const span =
      from === null || to === null ? null : { from, to: Math.min(to, ear.now() + HEARING) };
    return { pass, run, ...landings, taken: heardIn(pass), span };
  }

  // One that is broken off is judged as far as it went.
  let broken: PassLandings | null = null;
  $effect(() => {
    if (now && now.asked > 0) broken = passAsItIs(stage.pass, now);
  });
  $effect(() => {
    if (hearing) return;
    if (broken && (done?.run !== run || broken.pass > done.pass)) done = broken;
    broken = null;
    run += 1;
  });

  /** Clicks of the count that came in through the microphone: three are no chance. */
  const COUNTED = 3;
  let counted = 0;
  let lastStruck = 0;
  $effect(() => {
    const { struck } = ear;
    if (struck === null || struck === lastStruck || !stage.playing || stage.beat >= 0) return;
    lastStruck = struck;
    const through = transport.beatAt(struck - ear.latency);
    const onBeat = through !== null && Math.abs(through - Math.round(through)) < ON_BEAT;
    counted = onBeat && through < -ON_BEAT ? counted + 1 : counted;
    if (counted >= COUNTED) ear.hearsBand();
  });

  /** What each chord of the strip shows: this pass as far as it is, else the pass before. */
  const marks = $derived.by((): readonly Landing[] => {
    const first = done?.landings ?? [];
    const decided = now?.landings ?? [];
    return [
      ...decided,
      ...first.filter(({ index }) => decided.every((one) => one.index !== index)),
    ];
  });

  /** The first target of the last pass that asks to be listened for. */
  const missed = $derived(done?.landings.find(({ verdict }) => verdict !== 'landed') ?? null);

  /** What was heard in a pass, in beats of the chart. */
  function heardIn(pass: number): readonly TakenNote[] {
    const lead = EARLY / 4;
    const length = stage.form?.beats ?? 0;
    return inPass(ear.heard, pass, -lead, length - lead).map((note) => ({
      ...note,
      beat: stage.start + Math.max(0, note.beat),
    }));
  }

  /** Holds a recording of one pass, begun on its first beat, against the targets. */
  function judge(notes: readonly HeardNote[]): Landings | null {
    const beats = stage.tempo / 60;
    const heard = notes.map(({ seconds, length, ...rest }) => {
      return { ...rest, beat: seconds * beats, beats: length * beats };
    });
    const judged = held(0, Infinity, heard);
    const taken = heard.map((note) => ({ ...note, beat: stage.start + note.beat }));
    if (judged) done = { pass: 0, run: -1, ...judged, taken, span: null };
    return judged;
  }

  return {
    judge,
    get now() {
      return now;
    },
    get done() {
      return done;
    },
    get marks() {
      return marks;
    },
    /** The target that was decided last in this pass. */
    get latest(): Landing | null {
      return now?.landings.at(-1) ?? null;
    },
    /** Two chords round the target to listen for, as a loop. */
    around(): Loop | null {
      const chart = stage.chartIn(0);
      if (!chart || !missed) return null;
      return loopAround(chart, Math.max(0, missed.index - 1), 'two chords');
    },
  };
}

export type Landed = ReturnType<typeof createLanded>;
