/** What the stage shows and plays: the loop, its passes in their keys, the band and the line over it. */
import { createContext, onDestroy, untrack } from 'svelte';
import { bandForm, lastBy } from '$core/band/form';
import { feelFor } from '$core/band/band';
import { readPassageJson } from '$core/formats/passage/json';
import { rememberBy, rememberOf } from '$core/cache';
import type { Passage } from '$core/phrases/passage';
import type { RouteStop } from '$core/targets/route';
import { approachNotes } from '$core/targets/approach';
import { readFeel } from '$core/time/feel';
import { DEFAULT_TEMPO, type TempoChange, TEMPO_RANGE, withinTempo } from '$core/time/tempo';
import { lineEvents, pitchesIn, type Programme, type SoundEvent } from '$lib/audio/programme';
import { pageTransport } from '$lib/audio/transport.svelte';
import type { ToBePlayed } from '$lib/listening/guitarist.svelte';
import type { PlaySettings } from '$lib/study/playing';
import type { Study } from '$lib/study/study.svelte';
import { createAnswer } from '$lib/workers/answer.svelte';
import { createCaller } from '$lib/workers/compute';
import { shiftOf } from './keys';
import { cutPassage, targetLine } from './line';
import { type Change, changeAfter, type Moment } from './moment';
import { passRequests } from './requests';
import { fitLoop } from '$lib/study/loops';
import {
  leftOfTurn,
  type SessionProgramme,
  sessionProgramme,
  tempoAt,
  tempoFrom,
  turnAt,
} from './session';
import { stager } from './staged';

/** Beats a minute slower after a pass the player marks as poor, where no ramp says how many. */
const SLOWER = 4;
/** A line as it sounds; it is asked for at every tick of the clock. */
const soundsOf = rememberOf(lineEvents);

export function createStage(study: Study) {
  const transport = pageTransport();
  const settings = $derived(study.view.play);
  const loop = $derived(study.chart ? fitLoop(study.chart, settings.loop) : { from: 0, to: 0 });
  const staged = $derived.by(() => {
    const { chart, key, planned } = study;
    return chart ? stager({ chart, key, planned }, study.document.text) : null;
  });
  const shift = (pass: number) => shiftOf(settings.keys, pass, settings.seed);
  const pass = $derived(transport.pass);

  const kept = $derived(study.plan.sheets.find(({ id }) => id === settings.sheet) ?? null);
  const requests = $derived(staged && passRequests({ study, settings, kept, at: staged }));
  /** Passes of even and of odd number are worked out apart: one sounds while the next is made. */
  const asked = $derived.by(() => {
    const [even, odd] = pass % 2 === 0 ? [pass, pass + 1] : [pass + 1, pass];
    return { even: requests?.(shift(even)), odd: requests?.(shift(odd)) };
  });
  const routes = {
    even: createAnswer('routes', () => asked.even?.routes ?? null),
    odd: createAnswer('routes', () => asked.odd?.routes ?? null),
  };
  const exercises = {
    even: createAnswer('exercise', () => asked.even?.exercise ?? null),
    odd: createAnswer('exercise', () => asked.odd?.exercise ?? null),
  };
  const parity = (number: number) => (number % 2 === 0 ? 'even' : 'odd');

  const stopsIn = (number: number): readonly RouteStop[] => {
    const answer = routes[parity(number)];
    // Another way through the form may have been chosen on Plan.
    const chosen = Math.min(study.plan.targets.chosen, (answer.value?.length ?? 1) - 1);
    return (answer.settled && answer.value?.[chosen]?.stops) || [];
  };
  /** The targets of a pass that lie within the loop, each with its beat from the loop's beginning. */
  function targetsIn(number: number) {
    const chart = staged?.(shift(number)).chart;
    const length = form?.beats ?? 0;
    return stopsIn(number).flatMap((stop) => {
      const chord = chart?.chords[stop.index];
      const beat = (chord?.beat ?? -1) - start;
      return chord && beat >= 0 && beat < length ? [{ ...stop, beat, beats: chord.beats }] : [];
    });
  }
  /** A melody kept as it was read: it stays where it is, whatever the key. */
  const melody = $derived.by((): Passage | null => {
    const read = kept?.passage ? readPassageJson(kept.passage) : null;
    return read?.ok ? read.passage : null;
  });
  /** Whether the first pass is played to the player: the targets with the ways into them. */
  let shows = $state(false);
  const isShown = (number: number) => shows && number === 0;
  /** The targets of a pass as a line, each led into by a half step or a step of what is played. */
  function waysIn(number: number): Passage | null {
    const at = staged?.(shift(number));
    if (!at) return null;
    const { neck, zone } = study;
    return targetLine(at.chart, at.key, neck, stopsIn(number), (stop) => {
      const planned = at.planned[stop.index];
      if (!planned) return null;
      const setting = { chord: planned.chord, scale: planned.material.notes, zone };
      return approachNotes(neck, stop, setting, 'below').at(-1) ?? null;
    });
  }
  /** The line of a pass within the loop; null where nothing is played over the band. */
  function lineIn(number: number): Passage | null {
    const at = staged?.(shift(number));
    if (!at) return null;
    const bars = at.chart.bars;
    const from = bars[loop.from]?.beat ?? 0;
    const last = bars[loop.to - 1];
    const to = last ? last.beat + last.beats : from;
    const answer = exercises[parity(number)];
    if (isShown(number)) {
      const ways = waysIn(number);
      return ways && cutPassage(ways, from, to);
    }
    const whole =
      melody ??
      (kept === null && settings.line === 'targets'
        ? targetLine(at.chart, at.key, study.neck, stopsIn(number))
        : answer.settled && asked[parity(number)]?.exercise
          ? (answer.value?.passage ?? null)
          : null);
    return whole && cutPassage(whole, from, to);
  }
  const line = $derived(lineIn(pass));
  const nextLine = $derived(lineIn(pass + 1));

  const chartTempo = $derived(settings.tempo ?? study.chart?.source.tempo ?? DEFAULT_TEMPO);
  let tempos = $state.raw<readonly TempoChange[]>([]);
  /** The tempo sounding; the one to begin with while nothing plays. */
  const tempo = $derived(transport.playing ? tempoAt(tempos, transport.through ?? 0) : chartTempo);

  const forms = $derived(
    staged &&
      rememberBy(String, (halfSteps: number) => {
        const at = staged(halfSteps);
        const chosen = at.planned.map(({ material }) => material.notes);
        return bandForm(at.chart, { ...loop, chosen });
      }),
  );
  const formIn = (number: number) => forms?.(shift(number)) ?? null;
  const form = $derived(formIn(0));
  const feel = $derived(
    study.chart ? feelFor(readFeel(study.chart.source.feel), study.chart.source.time) : null,
  );

  function programme(tempo: readonly TempoChange[] = tempos): SessionProgramme | null {
    if (!form || !feel || form.bars.length === 0) return null;
    const { click, turns, rests, count, seed } = settings;
    const none: readonly SoundEvent[] = [];
    return sessionProgramme({
      ...{ feel, seed, click, turns, rests, count, tempo, before: playing },
      pickUp: lineIn(0)?.pickUp ?? 0,
      pass: (number) => {
        const sung = number === pass ? line : number === pass + 1 ? nextLine : lineIn(number);
        // After what was shown the player is alone once.
        const alone = shows && number === 1;
        return { form: formIn(number) ?? form, line: sung && !alone ? soundsOf(sung) : none };
      },
    });
  }

  const set = (changed: Partial<PlaySettings>) => {
    study.look({ play: { ...study.view.play, ...changed } });
  };

  let playing = $state.raw<SessionProgramme | null>(null);
  const bands = createCaller('band');
  onDestroy(bands.close);
  // The band of the pass to come is made elsewhere while this one sounds.
  $effect(() => {
    const session = playing;
    const coming = pass + 1;
    const wanted = transport.playing ? session?.wanted(coming) : null;
    if (!session || !wanted) return;
    void untrack(() => bands.ask(wanted)).then(
      (band) => session.put(coming, band),
      // It is made when it is needed.
      () => undefined,
    );
  });

  /** Begins at a beat of the loop, or at its beginning. */
  async function play(from?: number, showing = false) {
    if (!form) return;
    shows = showing;
    tempos = tempoFrom(0, chartTempo, settings.ramp, form.beats);
    playing = programme();
    if (playing) await transport.play(playing, from === undefined ? {} : { from });
  }

  /** Takes what was changed up while it plays. */
  function takeUp() {
    if (transport.playing) playing = programme();
    if (transport.playing && playing) transport.change(playing);
  }

  /** Another tempo, at once where it plays; the ramp goes on from it. */
  function setTempo(bpm: number) {
    const within = Math.round(withinTempo(bpm));
    set({ tempo: within });
    if (!transport.playing || !form) return;
    const now = transport.reached;
    const nextPass = form.beats * (Math.floor(now / form.beats) + 1);
    tempos = [
      ...tempos.filter(({ beat }) => beat < now),
      { beat: now, bpm: within },
      ...tempoFrom(nextPass - form.beats, within, settings.ramp, form.beats).slice(1),
    ];
    takeUp();
  }

  /** A pass that went poorly: slower from the next one on. */
  function slower() {
    if (!transport.playing || !form) return;
    const nextPass = form.beats * Math.max(1, Math.ceil(transport.reached / form.beats - 1e-6));
    const slow = tempoAt(tempos, nextPass - 1e-3) - (settings.ramp?.by ?? SLOWER);
    const goal = Math.max(TEMPO_RANGE.low, slow);
    tempos = [
      ...tempos.filter(({ beat }) => beat < nextPass - 1e-6),
      ...tempoFrom(nextPass, goal, settings.ramp, form.beats),
    ];
    takeUp();
  }

  // Where it is.
  const beat = $derived(transport.beat ?? 0);
  const start = $derived(study.chart?.bars[loop.from]?.beat ?? 0);
  const first = $derived(study.chart ? Math.max(0, lastBy(study.chart.chords, start)) : 0);
  /** The chord the player stands on while nothing plays: within the loop, or its first. */
  const standing = $derived.by(() => {
    const bar = (study.chart?.chords[study.nowIndex]?.bar ?? 1) - 1;
    return bar >= loop.from && bar < loop.to ? study.nowIndex : first;
  });
  /** Beats from the beginning of the loop; where nothing plays, where the player stands. */
  const at = $derived(
    transport.playing
      ? Math.max(0, beat)
      : Math.max(0, (study.chart?.chords[standing]?.beat ?? 0) - start),
  );
  const index = $derived(
    transport.playing && study.chart
      ? Math.max(0, lastBy(study.chart.chords, start + at))
      : standing,
  );
  const changeFrom = (sounding: number): Change | null =>
    study.chart && form
      ? changeAfter(study.chart, sounding, { start, beats: form.beats, first })
      : null;
  const change = $derived(changeFrom(index));
  /** The pass a change in a pass leads to. */
  const passAfter = (number: number, to: Change | null) => number + (to?.again ? 1 : 0);
  /** What a chord of a pass and the one it changes to are played with. */
  function momentAt(number: number, sounding: number, to: Change | null): Moment {
    const coming = passAfter(number, to);
    const begins = Math.max(0, (study.chart?.chords[sounding]?.beat ?? 0) - start);
    return {
      now: staged?.(shift(number)).planned[sounding] ?? null,
      next: (to && staged?.(shift(coming)).planned[to.index]) ?? null,
      target: stopsIn(number)[sounding] ?? null,
      nextTarget: (to && stopsIn(coming)[to.index]) ?? null,
      beats: Math.max(0, (to?.beat ?? begins) - begins),
    };
  }
  const moment = $derived(momentAt(pass, index, change));
  const coming = $derived(
    change && momentAt(passAfter(pass, change), change.index, changeFrom(change.index)),
  );
  /** Beats to the change, whole ones begun. */
  const left = $derived(change ? Math.max(0, Math.ceil(change.beat - at - 1e-6)) : 0);
  const bar = $derived(form ? pass * form.bars.length + Math.max(0, lastBy(form.bars, at)) : 0);
  const seconds = $derived.by(() => {
    const { through, playing } = transport;
    if (!playing || through === null || through < 0) return 0;
    const zero = transport.secondsAt(0) ?? 0;
    return Math.floor(Math.max(0, (transport.secondsAt(through) ?? zero) - zero));
  });
  const turn = $derived.by(() => {
    if (!transport.playing) return null;
    if (shows && pass < 2) return pass === 0 ? 'corvel' : 'player';
    return turnAt(settings.turns, { bar, pass, seconds });
  });

  return {
    get settings() {
      return settings;
    },
    set,
    get loop() {
      return loop;
    },
    get form() {
      return form;
    },
    get feel() {
      return feel;
    },
    get tempo() {
      return tempo;
    },
    setTempo,
    slower,
    play,
    /** Plays the ways into the targets once, then leaves the loop to the player. */
    showMe: () => play(undefined, true),
    /** Whether a pass is played to the player, who only listens. */
    isShown,
    takeUp,
    /** What is played, at a steady tempo, to be written to a file. */
    steady: (): Programme | null => programme(tempoFrom(0, tempo, null, 1)),
    get line() {
      return line;
    },
    get kept() {
      return kept;
    },
    /** Whether a line that is wanted is still being made. */
    get working() {
      return !exercises[parity(pass)].settled;
    },
    get failure() {
      return exercises.even.failure ?? exercises.odd.failure;
    },
    /** Beats from the beginning of the loop; below 0 while it is counted in. */
    get beat() {
      return beat;
    },
    get playing() {
      return transport.playing;
    },
    get pass() {
      return pass;
    },
    get index() {
      return index;
    },
    /** The chord the pass begins with, by which its key is known. */
    get keyName() {
      return staged?.(shift(pass)).planned[first]?.chord.symbol ?? '';
    },
    get change() {
      return change;
    },
    /** What sounds and what it changes to. */
    get moment() {
      return moment;
    },
    /** What will be the moment after the change. */
    get coming() {
      return coming;
    },
    get left() {
      return left;
    },
    /** The chart of a pass, in its key, and the targets there. */
    chartIn: (number: number) => staged?.(shift(number)).chart ?? null,
    targetsIn,
    lineIn,
    /** What a player is asked for: the line of each pass, or its targets. */
    toBePlayed: (): ToBePlayed | null =>
      form && {
        length: form.beats,
        seed: settings.seed,
        notes: (number) => {
          if (isShown(number)) return [];
          const sung = lineIn(number);
          return sung ? pitchesIn(soundsOf(sung)) : targetsIn(number);
        },
      },
    /** The beat of the chart that the loop begins with. */
    get start() {
      return start;
    },
    get turn() {
      return turn;
    },
    /** Seconds of the turn that are left, where turns go by the clock. */
    get leftOfTurn() {
      return settings.turns === 'sixty seconds' && transport.playing ? leftOfTurn(seconds) : null;
    },
    get seconds() {
      return seconds;
    },
  };
}

export type Stage = ReturnType<typeof createStage>;

/** The stage shown. */
export const [getStage, setStage] = createContext<Stage>();
