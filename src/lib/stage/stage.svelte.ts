/** What the stage shows and plays: passes of the loop in their keys, the band and the line over them. */
import { createContext, untrack } from 'svelte';
import { feelFor } from '$core/band/band';
import type { Solo } from '$core/band/events';
import { rememberOf } from '$core/cache';
import type { Passage } from 'corvel-core';
import { type Feel, readFeel } from '$core/time/feel';
import { feelAt } from '$core/time/swing';
import { DEFAULT_TEMPO, withinTempo } from '$core/time/tempo';
import type { Beats } from '$core/time/units';
import { lineEvents, pitchesIn, type Programme, type SoundEvent } from '$lib/audio/programme';
import { pageTransport } from '$lib/audio/transport.svelte';
import type { ToBePlayed } from '$lib/listening/guitarist.svelte';
import type { PlaySettings } from '$lib/study/playing';
import type { Study } from '$lib/study/study.svelte';
import { createCaller } from '$lib/workers/compute';
import { courseOf, type Pass, passAt, passNumbered, roundOf } from './course';
import { after, begin, type Happening, type History, shiftIn } from './history';
import { shiftFollowed } from './following.svelte';
import { createLines, type Lines } from './lines.svelte';
import { type SessionProgramme, sessionProgramme } from './session';
import { formsOf, stager } from './staged';
import { createStanding } from './standing.svelte';
import { tempoAt } from './tempos';

/** A line as it sounds in a feel; it is asked for at every tick of the clock. */
const soundsOf = rememberOf((line: Passage) =>
  rememberOf((feel: Feel) => lineEvents({ ...line, feel })),
);
const SILENCE: readonly SoundEvent[] = [];

/** What has been begun, and what came of it: the passes, their keys and tempos. */
function createPasses(study: Study) {
  const transport = pageTransport();
  const settings = $derived(study.view.play);
  const round = $derived(study.chart ? roundOf(study.chart, study.loop) : null);
  const chartTempo = $derived(settings.tempo ?? study.chart?.source.tempo ?? DEFAULT_TEMPO);
  /** The band's feel, its swing as wide as this tempo lets it be; the line is played in it too. */
  const feel = $derived.by(() => {
    if (!study.chart) return null;
    const { source } = study.chart;
    return feelAt(feelFor(readFeel(source.feel), source.time), chartTempo);
  });
  let played = $state.raw<History | null>(null);

  const beginning = () =>
    round &&
    begin({
      round,
      bpm: chartTempo,
      ramp: settings.ramp,
      way: settings.keys,
      seed: settings.seed,
    });
  /** What is played; while nothing plays, what would be. */
  const history = $derived(transport.playing ? played : beginning());
  /** By its number only: a frame of the clock makes no new one. */
  const number = $derived(transport.pass);
  const passIn = (wanted: number): Pass | null => history && passNumbered(history.course, wanted);
  const sounding = $derived(passIn(number));

  return {
    get settings() {
      return settings;
    },
    get round() {
      return round;
    },
    get history() {
      return history;
    },
    get number() {
      return number;
    },
    get sounding() {
      return sounding;
    },
    passIn,
    shift(wanted: number) {
      const followed = transport.playing ? null : shiftFollowed(study.id);
      return followed ?? (history ? shiftIn(history, wanted) : 0);
    },
    get feel() {
      return feel;
    },
    /** The tempo sounding; the one to begin with while nothing plays. */
    get tempo() {
      return transport.playing && played
        ? tempoAt(played.tempos, transport.through ?? 0)
        : chartTempo;
    },
    begin() {
      played = beginning();
      return played;
    },
    happens(what: Happening) {
      if (played) played = after(played, what, settings.ramp);
    },
  };
}

/** Has the band of the pass to come made elsewhere while this one sounds. */
function makesBandAhead(playing: () => SessionProgramme | null, pass: () => number) {
  const bands = createCaller('band');
  $effect(() => bands.close);
  $effect(() => {
    const session = playing();
    const coming = pass() + 1;
    const wanted = session?.wanted(coming);
    if (!session || !wanted) return;
    void untrack(() => bands.ask(wanted)).then(
      (band) => session.put(coming, band),
      // It is made when it is needed.
      () => undefined,
    );
  });
}

/** What a player is asked for: the line of each pass, or its targets; nothing in a pass that is shown. */
const asksOf =
  (
    passes: ReturnType<typeof createPasses>,
    lines: Lines,
    isShown: (number: number) => boolean,
  ): (() => ToBePlayed | null) =>
  () =>
    passes.history && {
      seed: passes.settings.seed,
      begins: (number) => passes.passIn(number)?.begins ?? 0,
      notes: (number) => {
        if (isShown(number)) return [];
        const sung = lines.lineIn(number);
        return sung && passes.feel
          ? pitchesIn(soundsOf(sung)(passes.feel))
          : lines.targetsIn(number);
      },
    };

export function createStage(study: Study) {
  const transport = pageTransport();
  const passes = createPasses(study);
  const { passIn, shift } = passes;
  /** Whether the first pass is played to the player: the targets with the ways into them. */
  let shows = $state(false);
  const isShown = (number: number) => shows && number === 0;
  const staged = $derived.by(() => {
    const { chart, key, planned } = study;
    return chart ? stager({ chart, key, planned }, study.document.text) : null;
  });
  const stagedIn = (number: number) => staged?.(shift(number)) ?? null;
  const lines = createLines({
    study,
    passIn,
    shift,
    isShown,
    settings: () => passes.settings,
    staged: () => staged,
    pass: () => passes.number,
  });
  const standing = createStanding({
    study,
    passIn,
    lines,
    staged: stagedIn,
    settings: () => passes.settings,
    round: () => passes.round,
    pass: () => passes.sounding,
    shows: () => shows,
  });
  const forms = $derived(staged && formsOf(staged));
  const formIn = (number: number) => {
    const pass = passIn(number);
    return (pass && forms?.(pass.loop, shift(number))) ?? null;
  };
  const form = $derived(formIn(passes.number));
  let playing = $state.raw<SessionProgramme | null>(null);
  /** What a listener hears of the player. */
  let hears: (() => Solo | null) | null = null;
  /** The pass the player has called the last. */
  let lastTime = $state<number | null>(null);
  const last = (): number | null => {
    if (shows) return null;
    const { choruses } = passes.settings;
    return lastTime ?? (choruses > 0 ? Math.max(choruses - 1, passes.number) : null);
  };
  makesBandAhead(
    () => (transport.playing ? playing : null),
    () => passes.number,
  );

  function programme(
    { course, tempos }: Pick<History, 'course' | 'tempos'>,
    {
      feel = passes.feel,
      played = (number) => number,
      last = null,
      intro = false,
    }: {
      feel?: Feel | null;
      played?: (number: number) => number;
      last?: number | null;
      intro?: boolean;
    } = {},
  ): SessionProgramme | null {
    const first = formIn(played(0));
    if (!first || !feel || first.bars.length === 0) return null;
    const { click, turns, rests, stops, count, seed } = passes.settings;
    return sessionProgramme({
      feel,
      seed,
      click,
      turns,
      rests,
      stops,
      count,
      before: playing,
      course,
      tempo: tempos,
      intro,
      last,
      hears: () => hears?.() ?? null,
      pickUp: lines.lineIn(played(0))?.pickUp ?? 0,
      pass: (number) => {
        const sung = lines.lineIn(played(number));
        // After what was shown the player is alone once.
        const alone = shows && number === 1;
        return {
          form: formIn(played(number)) ?? first,
          line: sung && !alone ? soundsOf(sung)(feel) : SILENCE,
        };
      },
    });
  }

  const set = (changed: Partial<PlaySettings>) => {
    study.look({ play: { ...study.view.play, ...changed } });
  };

  /** Begins at a beat of the first pass, or at its beginning. */
  async function play(from?: Beats, showing = false) {
    shows = showing;
    lastTime = null;
    const history = passes.begin();
    const intro = passes.settings.intro && from === undefined && !showing;
    playing = history && programme(history, { last: last(), intro });
    if (playing) await transport.play(playing, from === undefined ? {} : { from });
  }

  /** Takes what was changed up while it plays. */
  function takeUp() {
    const { history } = passes;
    if (!transport.playing || !history) return;
    playing = programme(history, { last: last() });
    if (playing) transport.change(playing);
  }
  function happens(what: Happening) {
    if (!transport.playing) return;
    passes.happens(what);
    takeUp();
  }

  return {
    lines,
    standing,
    get settings() {
      return passes.settings;
    },
    set,
    get form() {
      return form;
    },
    get feel() {
      return passes.feel;
    },
    get tempo() {
      return passes.tempo;
    },
    /** Another tempo, at once where it plays; the ramp goes on from it. */
    setTempo(bpm: number) {
      const within = Math.round(withinTempo(bpm));
      set({ tempo: within });
      happens({ what: 'tempo', bpm: within, reached: transport.reached });
    },
    /** A pass that went poorly: slower from the next one on. */
    slower: () => happens({ what: 'poor', reached: transport.reached }),
    /** Other bars, or other keys: from the pass to come on. */
    takeUpLoop() {
      const { round } = passes;
      if (round) happens({ what: 'loop', round, reached: transport.reached });
    },
    takeUpKeys() {
      const { keys: way, seed } = passes.settings;
      happens({ what: 'keys', way, seed, reached: transport.reached });
    },
    /** Calls the pass that sounds the last, or takes that back. */
    callLast() {
      const { history } = passes;
      if (!transport.playing || !history) return;
      lastTime = lastTime === null ? passAt(history.course, transport.reached).number : null;
      takeUp();
    },
    /** Whether the band leads in, after the count. */
    get leadsIn() {
      return (transport.through ?? 0) < 0 && (transport.through ?? 0) >= -(playing?.lead ?? 0);
    },
    /** Whether the pass that sounds is the last. */
    get isLast() {
      return transport.playing && last() === passes.number;
    },
    /** Has the band listen to the player: it leaves room, and answers. */
    listensTo(solo: () => Solo | null) {
      hears = solo;
    },
    play,
    /** Plays the ways into the targets once, then leaves the loop to the player. */
    showMe: () => play(undefined, true),
    isShown,
    takeUp,
    /** One pass at a steady tempo, for a file: as it is played, or as a score has it. */
    steady(as: 'played' | 'written'): Programme | null {
      const { sounding, number, tempo, feel } = passes;
      if (!sounding || !feel) return null;
      return programme(
        { course: courseOf(sounding), tempos: [{ beat: 0, bpm: tempo }] },
        { feel: as === 'played' ? feel : { ...feel, swing: null }, played: () => number, last: 0 },
      );
    },
    get playing() {
      return transport.playing;
    },
    /** The number of the pass that sounds, and any pass. */
    get pass() {
      return passes.number;
    },
    passIn,
    /** Half steps of a pass above the written key. */
    shift,
    /** The chart of a pass, in its key. */
    chartIn: (number: number) => stagedIn(number)?.chart ?? null,
    /** The chord the pass begins with, by which its key is known. */
    get keyName() {
      return stagedIn(passes.number)?.planned[standing.first]?.chord.symbol ?? '';
    },
    toBePlayed: asksOf(passes, lines, isShown),
  };
}

export type Stage = ReturnType<typeof createStage>;

/** The stage shown. */
export const [getStage, setStage] = createContext<Stage>();
