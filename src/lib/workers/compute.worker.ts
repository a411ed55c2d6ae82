/** The computations that would make a page stutter, done away from it. A new one is a row here. */
import { expose } from 'comlink';
import { bandOf, type BandOptions } from '$core/band/band';
import type { BandForm } from '$core/band/form';
import type { Neck } from 'corvel-core';
import { makeExercise } from '$core/exercises/exercises';
import type { RouteRequest } from '$core/targets/request';
import { solveRoutes } from '$core/targets/route';
import { openChart } from '$lib/formats/charts';
import { openPassage } from '$lib/formats/passages';

const computations = {
  /** Answered as soon as the worker is loaded. */
  ready: () => true,
  routes: (request: RouteRequest, onProgress: (share: number) => void) =>
    solveRoutes(request, { onProgress }),
  exercise: makeExercise,
  band: ({ form, ...options }: BandOptions & { readonly form: BandForm }) => bandOf(form, options),
  openChart: (bytes: Uint8Array) => openChart(bytes),
  openPassage: ({ bytes, neck }: { readonly bytes: Uint8Array; readonly neck: Neck }) =>
    openPassage(bytes, neck),
};

/** What can be asked of the worker, by name: a request, and progress told where there is any. */
export type Computations = typeof computations;

expose(computations);
