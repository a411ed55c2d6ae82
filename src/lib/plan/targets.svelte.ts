/** Targets on Plan: the routes through the chart as it is planned, solved anew at every change. */
import { group } from 'd3-array';
import { onDestroy } from 'svelte';
import type { Lane } from '$core/crossings/lanes';
import type { Place } from '$core/neck/neck';
import type { Route, RouteRequest, RouteStop } from '$core/targets/route';
import { createTargetsWorker } from '$lib/workers/targets';
import type { PlanSession } from './session.svelte';

/** Routes looked at, of which those with a contour of their own are offered. */
const SOLVED = 24;
const OFFERED = 4;
/** Below this many milliseconds no progress is shown: it would only flicker. */
const PATIENCE = 150;

/** The first few routes whose pitches differ, not only their places. */
function differentContours(routes: readonly Route[]): readonly Route[] {
  const byContour = group(routes, ({ stops }) => stops.map(({ midi }) => midi).join(' '));
  return [...byContour.values()].flatMap((alike) => alike.slice(0, 1)).slice(0, OFFERED);
}

export function createTargets(session: PlanSession) {
  const worker = createTargetsWorker();
  let routes = $state.raw<readonly Route[]>([]);
  let solvedFor = $state.raw<RouteRequest | null>(null);
  let progress = $state<number | null>(null);

  const wanted = $derived(session.plan.targets.shown || session.plan.lane === 'route');
  const request = $derived.by((): RouteRequest | null => {
    if (!wanted || session.planned.length === 0) return null;
    const { prefer, contour, free } = session.plan.targets;
    return {
      neck: session.neck,
      chords: session.planned.map(({ chord, intent, material, index }) => ({
        chord,
        intent,
        material,
        pin: session.plan.pins[String(index)] ?? null,
      })),
      prefer,
      zone: free ? null : session.zone,
      contour,
      loop: true,
      count: SOLVED,
    };
  });

  async function solve(asked: RouteRequest) {
    const patience = setTimeout(() => (progress = 0), PATIENCE);
    const found = await worker.routes(asked, (share) => {
      if (progress !== null) progress = share;
    });
    clearTimeout(patience);
    // What no longer answers the question is never shown.
    if (asked !== request) return;
    routes = differentContours(found);
    solvedFor = asked;
    progress = null;
  }

  $effect(() => {
    if (request) void solve(request);
    else worker.cancel();
  });
  onDestroy(worker.cancel);

  const chosen = $derived(
    routes.length === 0
      ? null
      : (routes[Math.min(session.plan.targets.chosen, routes.length - 1)] ?? null),
  );
  const fits = $derived(chosen !== null && chosen.stops.length === session.planned.length);
  const stops = $derived(fits && chosen ? chosen.stops : []);

  return {
    /** The routes offered, the best first. */
    get routes() {
      return routes;
    },
    get chosen() {
      return fits ? chosen : null;
    },
    /** Share of the solving done; null when nothing is being solved for long. */
    get progress() {
      return progress;
    },
    /** Whether what is shown answers what is asked now. */
    get settled() {
      return request === null || solvedFor === request;
    },
    stopAt: (index: number | undefined): RouteStop | null =>
      index === undefined ? null : (stops[index] ?? null),
    /** The route as a lane for the strip. */
    get lane(): Lane | null {
      return stops.length === 0
        ? null
        : stops.map(({ index, note, degree, halfSteps }) => ({ index, note, degree, halfSteps }));
    },
    cancel() {
      worker.cancel();
      progress = null;
    },
    isPinned: (index: number, place: Place): boolean => {
      const pin = session.plan.pins[String(index)];
      return pin?.string === place.string && pin.fret === place.fret;
    },
    choose(which: number) {
      session.changeTargets({ chosen: Math.max(0, Math.min(which, routes.length - 1)) });
    },
  };
}

export type Targets = ReturnType<typeof createTargets>;
