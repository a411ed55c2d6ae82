/** Targets on Plan: the routes through the chart as it is planned, solved anew at every change. */
import type { Lane } from '$core/crossings/lanes';
import type { Place } from '$core/neck/neck';
import type { RouteRequest } from '$core/targets/request';
import type { RouteStop } from '$core/targets/route';
import { changeTargets } from '$lib/study/edits';
import { routeRequest } from '$lib/study/routes';
import type { Study } from '$lib/study/study.svelte';
import { createAnswer } from '$lib/workers/answer.svelte';

/** Ways through the form that are offered. */
const OFFERED = 4;

export function createTargets(study: Study) {
  const request = $derived<RouteRequest | null>(
    study.planned.length === 0 ? null : { ...routeRequest(study), count: OFFERED },
  );
  const answer = createAnswer('routes', () => request);
  const routes = $derived(answer.value ?? []);
  const chosen = $derived(routes[Math.min(study.plan.targets.chosen, routes.length - 1)] ?? null);
  const fits = $derived(chosen !== null && chosen.stops.length === study.planned.length);
  const stops = $derived(fits && chosen ? chosen.stops : []);

  return {
    /** The routes offered, the best first. */
    get routes() {
      return routes;
    },
    get chosen() {
      return fits ? chosen : null;
    },
    get progress() {
      return answer.progress;
    },
    get failure() {
      return answer.failure;
    },
    get settled() {
      return answer.settled;
    },
    cancel: answer.cancel,
    stopAt: (index: number | undefined): RouteStop | null =>
      index === undefined ? null : (stops[index] ?? null),
    /** The route as a lane for the strip. */
    get lane(): Lane | null {
      return stops.length === 0
        ? null
        : stops.map(({ index, note, degree, halfSteps }) => ({ index, note, degree, halfSteps }));
    },
    isPinned: (index: number, place: Place): boolean => {
      const pin = study.plan.pins[String(index)];
      return pin?.string === place.string && pin.fret === place.fret;
    },
    choose(which: number) {
      study.edit(changeTargets({ chosen: Math.max(0, Math.min(which, routes.length - 1)) }));
    },
  };
}

export type Targets = ReturnType<typeof createTargets>;
