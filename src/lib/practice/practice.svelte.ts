/** What a practice sheet is made of, and the exercise made from it. */
import { onDestroy } from 'svelte';
import type { Exercise, ExerciseRequest } from '$core/exercises/exercises';
import { EXERCISE_WORDS } from '$core/exercises/kinds';
import type { Passage } from '$core/phrases/played';
import type { Sheet } from '$lib/plan/plan';
import type { PlanSession } from '$lib/plan/session.svelte';
import { createTargetsWorker } from '$lib/workers/targets';

export type SheetSettings = Omit<Sheet, 'id' | 'name'>;

const START: Omit<SheetSettings, 'zone'> = {
  kind: 'line',
  subdivision: 'eighths',
  extent: 'whole',
  from: 0,
  strings: [1, 2, 3],
  seed: 1,
};

export function createPractice(session: PlanSession, from: number) {
  const worker = createTargetsWorker();
  let settings = $state.raw<SheetSettings>({ ...START, zone: session.zone, from });
  let kept = $state<string | null>(null);
  let exercise = $state.raw<Exercise | null>(null);
  /** A melody read from a file, shown in place of the exercise. */
  let opened = $state.raw<Passage | null>(null);
  let working = $state(false);

  const request = $derived.by((): ExerciseRequest | null => {
    const { chart, planned } = session;
    if (!chart || planned.length === 0) return null;
    return {
      ...settings,
      chart,
      neck: session.neck,
      zones: session.zones,
      materials: planned.map(({ material }) => material),
      intents: planned.map(({ intent }) => intent),
      prefer: session.plan.targets.prefer,
      pins: session.plan.pins,
    };
  });

  $effect(() => {
    const asked = request;
    if (!asked) return;
    working = true;
    void worker.exercise(asked).then((made) => {
      // What no longer answers the question is never shown.
      if (asked !== request) return;
      exercise = made;
      working = false;
    });
  });
  onDestroy(worker.cancel);

  function change(changed: Partial<SheetSettings>) {
    settings = { ...settings, ...changed };
    kept = null;
    opened = null;
  }

  return {
    get settings() {
      return settings;
    },
    get exercise() {
      return exercise;
    },
    get passage(): Passage | null {
      return opened ?? exercise?.passage ?? null;
    },
    get opened() {
      return opened;
    },
    get working() {
      return working;
    },
    /** The sheet of the chart that is shown; null while it is not kept. */
    get kept() {
      return kept;
    },
    change,
    open(passage: Passage) {
      opened = passage;
    },
    close() {
      opened = null;
    },
    /** Keeps what is shown with the chart under a name. */
    keep(name: string) {
      const id = crypto.randomUUID();
      const named = name.trim() || EXERCISE_WORDS[settings.kind].name;
      session.keepSheet({ ...settings, id, name: named.slice(0, 80) });
      kept = id;
    },
    take(sheet: Sheet) {
      const { id, kind, subdivision, extent, from: first, zone, strings, seed } = sheet;
      settings = { kind, subdivision, extent, from: first, zone, strings, seed };
      opened = null;
      kept = id;
    },
  };
}

export type Practice = ReturnType<typeof createPractice>;
