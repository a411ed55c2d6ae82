/** What landed on the stage: pass by pass, what was heard held against the targets. */
import { type Landing, type Landings, landingsOf } from '$core/listening/landings';
import type { HeardNote } from '$core/listening/notes';
import type { Beats, Seconds } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
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

/** What sounds now as a note. */
function asNote({ at, pitch, length }: { at: Seconds; pitch: number; length: Seconds }) {
  const midi = Math.round(pitch);
  return { at, length, midi, cents: Math.round(100 * (pitch - midi)) };
}

export function createLanded(stage: Stage, ear: Ear) {
  const transport = pageTransport();
  let done = $state.raw<PassLandings | null>(null);

  const decided = $derived(WINDOW + (HEARING * stage.tempo) / 60);

  /** The targets of a pass within the loop that are decided at a beat of it. */
  function targetsIn(pass: number, upTo: Beats) {
    const chart = stage.chartIn(pass);
    const { form, start } = stage;
    if (!chart || !form) return [];
    const end = start + form.beats;
    return stage.stopsIn(pass).filter(({ index }) => {
      const beat = chart.chords[index]?.beat ?? -1;
      return beat >= start && beat < end && beat - start + decided <= upTo;
    });
  }

  /** What of a pass has been decided when the music is at a beat of it. */
  function landingsIn(pass: number, upTo: Beats): PassLandings | null {
    const chart = stage.chartIn(pass);
    const { form, start } = stage;
    if (!chart || !form) return null;
    const { sounding } = ear;
    // What still sounds counts as much as what is over.
    const open = sounding && { ...sounding, length: Math.max(0.05, ear.now() - sounding.at) };
    const heard = [...ear.notes, ...(open ? [asNote(open)] : [])].flatMap(
      ({ at, length, midi, cents }) => {
        const through = transport.beatAt(at);
        const over = transport.beatAt(at + length);
        if (through === null || over === null) return [];
        const beat = through - pass * form.beats;
        const within = beat >= -EARLY && beat < form.beats + EARLY;
        return within ? [{ beat: start + beat, beats: over - through, midi, cents }] : [];
      },
    );
    return { pass, ...landingsOf(chart, targetsIn(pass, upTo), heard) };
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
    const { form, start } = stage;
    if (!form) return [];
    return ear.notes.flatMap(({ at, length, midi, bent, from }) => {
      const through = transport.beatAt(at);
      const over = transport.beatAt(at + length);
      if (through === null || over === null) return [];
      const beat = through - pass * form.beats;
      const within = beat >= -EARLY / 4 && beat < form.beats - EARLY / 4;
      return within
        ? [{ beat: start + Math.max(0, beat), beats: over - through, midi, bent, from }]
        : [];
    });
  }

  /** Holds a recording of one pass, begun on its first beat, against the targets. */
  function judge(notes: readonly HeardNote[]): PassLandings | null {
    const chart = stage.chartIn(0);
    if (!chart) return null;
    const beats = stage.tempo / 60;
    const heard = notes.map(({ seconds, length, midi, cents }) => {
      return { beat: stage.start + seconds * beats, beats: length * beats, midi, cents };
    });
    done = { pass: 0, ...landingsOf(chart, targetsIn(0, Infinity), heard) };
    return done;
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
