/** What landed on the stage: pass by pass, what was heard held against the targets. */
import { type HeardAt, type Landing, type Landings, landingsOf } from '$core/listening/landings';
import type { HeardNote } from '$core/listening/notes';
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
}

export function createLanded(stage: Stage, ear: Ear) {
  const transport = pageTransport();
  let done = $state.raw<PassLandings | null>(null);

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
  function held(pass: number, upTo: Beats, notes: readonly HeardAt[]): PassLandings | null {
    const chart = stage.chartIn(pass);
    if (!chart) return null;
    const targets = stage.targetsIn(pass).filter(({ beat }) => beat + decided <= upTo);
    const heard = notes.map((note) => ({ ...note, beat: stage.start + note.beat }));
    return { pass, ...landingsOf(chart, targets, heard) };
  }

  /** What of a pass has been decided when the music is at a beat of it. */
  function landingsIn(pass: number, upTo: Beats): PassLandings | null {
    const length = stage.form?.beats ?? 0;
    return held(pass, upTo, inPass(ear.heard, pass, -EARLY, length + EARLY));
  }

  const hearing = $derived(ear.state === 'hearing' && stage.playing);
  /** By half beats: nothing is worked out between them. */
  const upTo = $derived(Math.floor(2 * stage.beat) / 2);
  const now = $derived(hearing && upTo > 0 ? landingsIn(stage.pass, upTo) : null);

  // A pass is judged when its last targets are decided, in the pass after it.
  const over = $derived(
    hearing && stage.pass > 0 && upTo >= Math.min(decided, (stage.form?.beats ?? 0) / 2)
      ? stage.pass - 1
      : null,
  );
  $effect(() => {
    if (over === null || !stage.form || done?.pass === over) return;
    done = landingsIn(over, Infinity);
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
  function heardIn(pass: number) {
    const lead = EARLY / 4;
    const length = stage.form?.beats ?? 0;
    return inPass(ear.heard, pass, -lead, length - lead).map((note) => ({
      ...note,
      beat: stage.start + Math.max(0, note.beat),
    }));
  }

  /** Holds a recording of one pass, begun on its first beat, against the targets. */
  function judge(notes: readonly HeardNote[]): PassLandings | null {
    const beats = stage.tempo / 60;
    const heard = notes.map(({ seconds, length, midi, cents }) => {
      return { beat: seconds * beats, beats: length * beats, midi, cents };
    });
    const judged = held(0, Infinity, heard);
    if (judged) done = judged;
    return judged;
  }

  return {
    judge,
    heardIn,
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
