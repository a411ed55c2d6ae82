/** Where the music is: the chord that sounds, the change to come, whose turn it is. */
import { lastBy } from '$core/band/form';
import type { Chart } from 'corvel-core';
import type { Beats } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import type { Study } from '$lib/study/study.svelte';
import { type Pass, type Round, roundOf } from './course';
import type { Lines } from './lines.svelte';
import { type Change, changeAfter, leftTo, type Moment } from './moment';
import { leftOfTurn, type Turn, turnAt } from './session';
import type { Staged } from './staged';
import type { PlaySettings } from '$lib/study/playing';

interface Of {
  readonly study: Study;
  readonly settings: () => PlaySettings;
  /** The round that was chosen, and the pass that sounds. */
  readonly round: () => Round | null;
  readonly pass: () => Pass | null;
  readonly passIn: (number: number) => Pass | null;
  readonly staged: (number: number) => Staged | null;
  readonly lines: Lines;
  /** Whether the first pass is played to the player, the second his. */
  readonly shows: () => boolean;
}

/** Without a chart there are no bars. */
const NOWHERE: Round = { loop: { from: 0, to: 0 }, start: 0, beats: 0 };

/** The chord that begins a stretch of the chart, or is held into it. */
const firstOf = (chart: Chart, start: Beats): number => Math.max(0, lastBy(chart.chords, start));

export function createStanding(of: Of) {
  const { study, lines, staged, passIn } = of;
  const transport = pageTransport();

  const beat = $derived(transport.beat ?? 0);
  const number = $derived(of.pass()?.number ?? 0);
  const playing = $derived(transport.playing);
  /**
   * The bars that go round here: of the pass that sounds; while nothing plays, those that were chosen, or
   * the form where the player stands outside them.
   */
  const here = $derived.by((): Round => {
    const { chart } = study;
    const sounding = of.pass();
    if (playing && sounding) return sounding;
    const chosen = of.round();
    const bar = (chart?.chords[study.nowIndex]?.bar ?? 1) - 1;
    if (!chart || !chosen) return NOWHERE;
    const { loop, start } = chosen;
    const within = bar >= loop.from && bar < loop.to;
    const stands = within || firstOf(chart, start) === study.nowIndex;
    return stands ? chosen : (roundOf(chart, null) ?? NOWHERE);
  });
  const first = $derived(study.chart ? firstOf(study.chart, here.start) : 0);
  /** Time from the beginning of what goes round; where nothing plays, where the player stands. */
  const at = $derived(
    playing
      ? Math.max(0, beat)
      : Math.max(0, (study.chart?.chords[study.nowIndex]?.beat ?? 0) - here.start),
  );
  const index = $derived(
    playing && study.chart ? firstOf(study.chart, here.start + at) : study.nowIndex,
  );

  const roundIn = (pass: number): Round => (playing ? passIn(pass) : null) ?? here;
  /** The change after a chord of a pass; the beginning of the next pass where no other comes. */
  function changeFrom(pass: number, sounding: number): Change | null {
    const { chart } = study;
    if (!chart) return null;
    const round = roundIn(pass);
    const change = changeAfter(chart, sounding, { ...round, first: firstOf(chart, round.start) });
    // The next pass may go round other bars.
    return change.again ? { ...change, index: firstOf(chart, roundIn(pass + 1).start) } : change;
  }
  const change = $derived(changeFrom(number, index));
  /** The pass a change in a pass leads to. */
  const passAfter = (pass: number, to: Change | null) => pass + (to?.again ? 1 : 0);
  /** What a chord of a pass and the one it changes to are played with. */
  function momentAt(pass: number, sounding: number, to: Change | null): Moment {
    const coming = passAfter(pass, to);
    const beatOf = study.chart?.chords[sounding]?.beat ?? 0;
    const begins = Math.max(0, beatOf - roundIn(pass).start);
    return {
      now: staged(pass)?.planned[sounding] ?? null,
      next: (to && staged(coming)?.planned[to.index]) ?? null,
      target: lines.stopsIn(pass)[sounding] ?? null,
      nextTarget: (to && lines.stopsIn(coming)[to.index]) ?? null,
      beats: Math.max(0, (to?.beat ?? begins) - begins),
    };
  }
  const moment = $derived(momentAt(number, index, change));
  const coming = $derived.by(() => {
    if (!change) return null;
    const after = passAfter(number, change);
    return momentAt(after, change.index, changeFrom(after, change.index));
  });
  /** How long it is to the change, in whole beats begun. */
  const left = $derived(change ? leftTo(change, at) : 0);
  /** The bar of the chart, and the bars played before it. */
  const bar = $derived(study.chart ? Math.max(0, lastBy(study.chart.bars, here.start + at)) : 0);
  const seconds = $derived.by(() => {
    const { through } = transport;
    if (!playing || through === null || through < 0) return 0;
    const zero = transport.secondsAt(0) ?? 0;
    return Math.floor(Math.max(0, (transport.secondsAt(through) ?? zero) - zero));
  });
  const turn = $derived.by((): Turn | null => {
    if (!playing) return null;
    if (of.shows() && number < 2) return number === 0 ? 'corvel' : 'player';
    const before = of.pass()?.bar ?? 0;
    const played = before + bar - here.loop.from;
    return turnAt(of.settings().turns, { bar: played, pass: number, seconds });
  });

  return {
    /** Time from the beginning of the pass; below 0 while it is counted in. */
    get beat() {
      return beat;
    },
    get index() {
      return index;
    },
    get first() {
      return first;
    },
    get bar() {
      return bar;
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
    get seconds() {
      return seconds;
    },
    get turn() {
      return turn;
    },
    /** Seconds of the turn that are left, where turns go by the clock. */
    get leftOfTurn() {
      return of.settings().turns === 'sixty seconds' && playing ? leftOfTurn(seconds) : null;
    },
  };
}
