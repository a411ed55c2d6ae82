/** Solves routes and fills exercises away from the page, so that it never stutters. */
import { expose } from 'comlink';
import { type Exercise, type ExerciseRequest, makeExercise } from '$core/exercises/exercises';
import { type Route, type RouteRequest, solveRoutes } from '$core/targets/route';

const api = {
  routes: (request: RouteRequest, onProgress: (share: number) => void): readonly Route[] =>
    solveRoutes(request, { onProgress }),
  exercise: (request: ExerciseRequest): Exercise => makeExercise(request),
};

export type TargetsWorker = typeof api;

expose(api);
