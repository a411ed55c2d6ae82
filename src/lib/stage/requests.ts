/** What is asked for a pass: its targets, and the exercise that is its line. */
import { rememberBy } from '$core/cache';
import type { Neck } from 'corvel-core';
import type { ExerciseRequest } from '$core/exercises/request';
import { MELODY_KINDS } from '$core/exercises/kinds';
import type { RouteRequest } from '$core/targets/request';
import { overChart } from '$core/licks/lick';
import { movedLick } from '$core/licks/moving';
import type { LickNote } from '$core/licks/sounding';
import { stringCount } from '$core/neck/neck';
import { melodyOn } from '$lib/study/melody';
import { latersOf } from '$lib/study/choices';
import { type MadeWith, madeWith } from '$lib/study/made';
import type { Plan, PracticeSheet } from '$lib/study/plan';
import type { PlaySettings } from '$lib/study/playing';
import { routeRequest } from '$lib/study/routes';
import type { Study } from '$lib/study/study.svelte';
import type { Staged } from './staged';

interface PassRequests {
  /** Null where the line is no exercise. */
  readonly exercise: ExerciseRequest | null;
  readonly routes: RouteRequest;
}

interface Asked {
  readonly study: Pick<Study, 'neck' | 'zone' | 'zones' | 'plan'>;
  readonly settings: Pick<PlaySettings, 'line'> & MadeWith;
  /** The kept sheet that is the line; null for none. */
  readonly kept: PracticeSheet | null;
  readonly at: (halfSteps: number) => Staged;
}

/** The melody in the key of a pass, under the hand that plays it here. */
function sungIn(plan: Plan, neck: Neck, halfSteps: number): readonly LickNote[] {
  const melody = melodyOn(plan, neck);
  return halfSteps === 0 ? melody : movedLick(neck, melody, halfSteps, null);
}

/** Requests by the key of a pass: the same key asks the very same. */
export function passRequests({ study, settings, kept, at }: Asked) {
  const { neck, zone, zones, plan } = study;
  const { line } = settings;
  const there = settings.strings.filter((string) => string <= stringCount(neck));
  const strings = there.length > 0 ? there : [1];
  const { chosen } = plan.targets;
  return rememberBy(String, (halfSteps: number): PassRequests => {
    const { chart, key, planned } = at(halfSteps);
    // A pin is a place, which is no longer the same note in another key.
    const pins = halfSteps === 0 ? plan.pins : {};
    const wanted = kept ?? (line === 'none' || line === 'targets' ? null : { kind: line });
    const exercise: ExerciseRequest | null = wanted && {
      ...madeWith(settings),
      zone,
      strings,
      from: 0,
      ...kept,
      chart,
      key,
      neck,
      zones,
      pins,
      kind: wanted.kind,
      extent: 'whole',
      materials: planned.map(({ material }) => material),
      intents: planned.map(({ intent }) => intent),
      later: latersOf(chart, planned),
      prefer: plan.targets.prefer,
      melody: MELODY_KINDS.has(wanted.kind)
        ? overChart(chart, key, neck, sungIn(plan, neck, halfSteps))
        : null,
    };
    const routes = routeRequest({ plan: { ...plan, pins }, neck, planned, zone });
    return { exercise, routes: { ...routes, count: chosen + 1 } };
  });
}
