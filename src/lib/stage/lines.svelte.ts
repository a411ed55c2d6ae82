/** What is played over the band in each pass: its targets and its line, worked out for the key of the pass. */
import { rememberOf } from '$core/cache';
import type { Chart, Passage } from 'corvel-core';
import { readPassageJson } from '$core/formats/passage/json';
import { approachNotes } from '$core/targets/approach';
import type { RouteStop } from '$core/targets/route';
import type { Beats } from '$core/time/units';
import type { PlaySettings } from '$lib/study/playing';
import type { Study } from '$lib/study/study.svelte';
import { createAnswer } from '$lib/workers/answer.svelte';
import type { Pass } from './course';
import { cutPassage, landingStops, targetLine } from './line';
import { passRequests } from './requests';
import type { Staged } from './staged';

/** A target within a pass, by its beat from the beginning of it. */
interface PassTarget extends RouteStop {
  readonly beat: Beats;
  readonly beats: Beats;
}

interface Over {
  readonly study: Study;
  readonly settings: () => PlaySettings;
  /** The chart in the key of so many half steps; null without a chart. */
  readonly staged: () => ((halfSteps: number) => Staged) | null;
  /** The pass that sounds, and any pass with its key. */
  readonly pass: () => number;
  readonly passIn: (number: number) => Pass | null;
  readonly shift: (number: number) => number;
  /** Whether a pass is played to the player: the targets with the ways into them. */
  readonly isShown: (number: number) => boolean;
}

/** Where a line lands in a chart; it is asked for at every change. */
const landingsIn = rememberOf((line: Passage) =>
  rememberOf((chart: Chart) => landingStops(chart, line)),
);

const parity = (number: number) => (number % 2 === 0 ? 'even' : 'odd');

export function createLines({ study, settings, staged, pass, passIn, shift, isShown }: Over) {
  const kept = $derived(study.plan.sheets.find(({ id }) => id === settings().sheet) ?? null);
  const requests = $derived.by(() => {
    const at = staged();
    return at && passRequests({ study, settings: settings(), kept, at });
  });
  /** Passes of even and of odd number are worked out apart: one sounds while the next is made. */
  const asked = $derived.by(() => {
    const now = pass();
    const [even, odd] = now % 2 === 0 ? [now, now + 1] : [now + 1, now];
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
  /** A melody kept as it was read: it stays where it is, whatever the key. */
  const melody = $derived.by((): Passage | null => {
    const read = kept?.passage ? readPassageJson(kept.passage) : null;
    return read?.ok ? read.passage : null;
  });

  const stagedIn = (number: number): Staged | null => staged()?.(shift(number)) ?? null;

  /** The targets of the plan, over the whole chart, in the key of a pass. */
  const plannedIn = (number: number): readonly RouteStop[] => {
    const answer = routes[parity(number)];
    // Another way through the form may have been chosen on Plan.
    const chosen = Math.min(study.plan.targets.chosen, (answer.value?.length ?? 1) - 1);
    return (answer.settled && answer.value?.[chosen]?.stops) || [];
  };
  /** The targets of a pass as a line, each led into by a half step or a step of what is played. */
  function waysIn(number: number): Passage | null {
    const at = stagedIn(number);
    if (!at) return null;
    const { neck, zone } = study;
    return targetLine(at.chart, at.key, neck, plannedIn(number), (stop) => {
      const planned = at.planned[stop.index];
      if (!planned) return null;
      const setting = { chord: planned.chord, scale: planned.material.notes, zone };
      return approachNotes(neck, stop, setting, 'below').at(-1) ?? null;
    });
  }
  /** What is played over the whole chart. */
  function madeIn(number: number): Passage | null {
    if (isShown(number)) return waysIn(number);
    if (melody) return melody;
    const at = stagedIn(number);
    if (at && kept === null && settings().line === 'targets')
      return targetLine(at.chart, at.key, study.neck, plannedIn(number));
    const answer = exercises[parity(number)];
    return answer.settled && asked[parity(number)]?.exercise
      ? (answer.value?.passage ?? null)
      : null;
  }
  const whole = $derived(madeIn(pass()));
  const nextWhole = $derived(madeIn(pass() + 1));
  /** The same; for the pass that sounds, and for the next, it is made once. */
  const wholeIn = (number: number): Passage | null => {
    const now = pass();
    return number === now ? whole : number === now + 1 ? nextWhole : madeIn(number);
  };
  /** The target over each chord in a pass: where the line that plays lands; without one, what the plan aims at. */
  function stopsIn(number: number): readonly (RouteStop | null)[] {
    const chart = stagedIn(number)?.chart;
    const line = chart && !isShown(number) ? wholeIn(number) : null;
    return chart && line ? landingsIn(line)(chart) : plannedIn(number);
  }
  /** Those that lie within the pass. */
  function targetsIn(number: number): readonly PassTarget[] {
    const chart = stagedIn(number)?.chart;
    const here = passIn(number);
    if (!chart || !here) return [];
    return stopsIn(number).flatMap((stop) => {
      const chord = stop && chart.chords[stop.index];
      const beat = (chord?.beat ?? -1) - here.start;
      return chord && beat >= 0 && beat < here.beats ? [{ ...stop, beat, beats: chord.beats }] : [];
    });
  }

  /** The line of a pass; null where nothing is played over the band. */
  function lineIn(number: number): Passage | null {
    const here = passIn(number);
    const all = here && wholeIn(number);
    return all && cutPassage(all, here.start, here.start + here.beats);
  }
  const line = $derived(lineIn(pass()));
  const nextLine = $derived(lineIn(pass() + 1));

  return {
    stopsIn,
    targetsIn,
    /** The line of a pass; that of the pass which sounds, and of the next, is made once. */
    lineIn: (number: number): Passage | null => {
      const now = pass();
      return number === now ? line : number === now + 1 ? nextLine : lineIn(number);
    },
    get kept() {
      return kept;
    },
    /** Whether a line that is wanted is still being made. */
    get working() {
      return !exercises[parity(pass())].settled;
    },
    get failure() {
      return exercises.even.failure ?? exercises.odd.failure;
    },
  };
}

export type Lines = ReturnType<typeof createLines>;
