/** What landed on the stage: pass by pass, what was heard held against the targets. */
import { untrack } from 'svelte';
import type { HeardAt, Landings } from 'corvel-core';
import { type Landing, landingsOf } from '$core/listening/landings';
import type { HeardNote } from '$core/listening/notes';
import type { Beats, Seconds } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import { onBeats } from '$lib/listening/beats';
import type { Ear } from '$lib/listening/ear.svelte';
import { loopAround } from '$lib/study/loops';
import type { Loop } from '$lib/study/playing';
import type { Pass } from '$lib/stage/course';
import { type Heard, judged, NOTHING_JUDGED, type PassLandings } from '$lib/stage/judging';
import type { Stage } from '$lib/stage/stage.svelte';
import { beatsIn } from '$core/time/tempo';
import { aroundPass, heardUpTo, isHeardOut, isOfCount, takenIn } from './hearingPass';

/** How long after it was struck a note is heard for certain. */
const HEARING: Seconds = 0.35;
/** Clicks of the count that came in through the microphone: three are no chance. */
const COUNTED = 3;

/** Notices a microphone that hears the count: what it hears besides is the band. */
function noticesTheBand(stage: Stage, ear: Ear) {
  const transport = pageTransport();
  let counted = 0;
  let lastStruck = 0;
  $effect(() => {
    const { struck } = ear;
    if (struck === null || struck === lastStruck || !stage.playing || stage.standing.beat >= 0)
      return;
    lastStruck = struck;
    const through = transport.beatAt(struck - ear.latency);
    if (through !== null && isOfCount(through)) counted += 1;
    if (counted >= COUNTED) ear.hearsBand();
  });
}

/** What was heard in passes, in time from the beginning of each or of the chart. */
function createHearingOf(stage: Stage, ear: Ear) {
  const transport = pageTransport();

  /** What was heard, in time from the beginning of a pass. */
  const from = ({ begins }: Pass) => onBeats(transport, ear.heard, begins);

  return {
    around: (pass: Pass) => aroundPass(from(pass), pass),
    taken: (pass: Pass) => takenIn(from(pass), pass),
    span({ begins, beats }: Pass): PassLandings['span'] {
      const start = transport.secondsAt(begins);
      const to = transport.secondsAt(begins + beats);
      return start === null || to === null
        ? null
        : { from: start, to: Math.min(to, ear.now() + HEARING) };
    },
    upTo({ begins }: Pass): Beats {
      const listened = (transport.beatAt(ear.through) ?? -Infinity) - begins;
      return heardUpTo(stage.standing.beat, listened);
    },
  };
}

/** Judges the passes of a stage; `onended` is told of each that was played and heard. */
export function createLanded(stage: Stage, ear: Ear, onended: (pass: PassLandings) => void) {
  let judging = $state.raw(NOTHING_JUDGED);
  const hearingOf = createHearingOf(stage, ear);
  noticesTheBand(stage, ear);

  /** What hearing takes. */
  const behind = $derived(beatsIn(HEARING, stage.tempo));

  /** Notes held against the targets of a pass: what is certain where all up to a beat of it was heard. */
  function held(pass: Pass, upTo: Beats, notes: readonly HeardAt[]): Landings | null {
    const chart = stage.chartIn(pass.number);
    if (!chart) return null;
    const heard = notes.map((note) => ({ ...note, beat: pass.start + note.beat }));
    return landingsOf(chart, stage.lines.targetsIn(pass.number), heard, {
      bpm: stage.tempo,
      upTo: pass.start + upTo - behind,
    });
  }
  const judgedUpTo = (pass: Pass, upTo: Beats) =>
    stage.isShown(pass.number) ? null : held(pass, upTo, hearingOf.around(pass));

  const hearing = $derived(ear.state === 'hearing' && stage.playing);
  const sounding = $derived(stage.passIn(stage.pass));
  const upTo = $derived(sounding ? hearingOf.upTo(sounding) : -Infinity);
  const now = $derived(hearing && sounding && upTo > 0 ? judgedUpTo(sounding, upTo) : null);

  function fold(heard: Heard) {
    const before = judging.done;
    judging = judged(judging, heard);
    const { done } = judging;
    if (done && done !== before && done.span !== null) onended(done);
  }
  const asJudged = (pass: Pass, landings: Landings) => ({
    ...landings,
    pass: pass.number,
    taken: hearingOf.taken(pass),
    span: hearingOf.span(pass),
  });

  /** A pass is judged once its end has been heard, in the pass after it. */
  const over = $derived.by(() => {
    if (!hearing || !sounding || sounding.number === 0) return null;
    return isHeardOut(sounding, upTo, behind) ? sounding.number - 1 : null;
  });
  $effect(() => {
    if (over === null) return;
    untrack(() => {
      const pass = stage.passIn(over);
      const landings = pass && judgedUpTo(pass, Infinity);
      if (landings) fold({ what: 'ended', pass: asJudged(pass, landings) });
    });
  });
  $effect(() => {
    const landings = now;
    if (hearing && sounding && landings)
      untrack(() => fold({ what: 'going', pass: asJudged(sounding, landings) }));
  });
  $effect(() => {
    if (hearing) return () => untrack(() => fold({ what: 'stopped' }));
    return undefined;
  });

  const done = $derived(judging.done);
  /** What each chord of the strip shows: this pass as far as it is, else the pass before. */
  const marks = $derived.by((): readonly Landing[] => {
    const first = done?.landings ?? [];
    const soFar = now?.landings ?? [];
    return [...soFar, ...first.filter(({ index }) => soFar.every((one) => one.index !== index))];
  });
  /** The first target of the last pass that asks to be listened for. */
  const missed = $derived(done?.landings.find(({ verdict }) => verdict !== 'landed') ?? null);

  return {
    /** Holds a recording of one pass, begun on its first beat, against the targets. */
    judge(notes: readonly HeardNote[]): Landings | null {
      if (!sounding) return null;
      const heard = notes.map(({ seconds, length, ...rest }) => ({
        ...rest,
        beat: beatsIn(seconds, stage.tempo),
        beats: beatsIn(length, stage.tempo),
      }));
      const landings = held(sounding, Infinity, heard);
      const taken = heard.map((note) => ({ ...note, beat: sounding.start + note.beat }));
      const pass = sounding.number;
      if (landings) fold({ what: 'recorded', pass: { ...landings, pass, taken, span: null } });
      return landings;
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
