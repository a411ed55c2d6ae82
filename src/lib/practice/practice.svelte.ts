/** What a practice sheet is made of, and the exercise made from it. */
import { fitZone, stringCount } from '$core/neck/neck';
import type { ExerciseRequest } from '$core/exercises/exercises';
import { EXERCISE_WORDS } from '$core/exercises/kinds';
import { readPassageJson, writePassageJson } from '$core/formats/passage/json';
import type { Passage } from '$core/phrases/passage';
import { keepSheet } from '$lib/study/edits';
import { KEPT_PASSAGE_LIMIT, type PracticeSheet } from '$lib/study/plan';
import type { Study } from '$lib/study/study.svelte';
import { createAnswer } from '$lib/workers/answer.svelte';

export type SheetSettings = Omit<PracticeSheet, 'id' | 'name' | 'passage'>;

const START: Omit<SheetSettings, 'zone'> = {
  kind: 'line',
  subdivision: 'eighths',
  extent: 'whole',
  from: 0,
  strings: [1, 2, 3],
  group: 4,
  seed: 1,
};

export function createPractice(study: Study, from: number) {
  let settings = $state.raw<SheetSettings>({ ...START, zone: study.zone, from });
  let kept = $state<string | null>(null);
  /** A melody read from a file, shown in place of the exercise. */
  let opened = $state.raw<Passage | null>(null);

  const request = $derived.by((): ExerciseRequest | null => {
    const { chart, planned, key } = study;
    if (!chart || planned.length === 0) return null;
    return {
      ...settings,
      chart,
      key,
      neck: study.neck,
      zones: study.zones,
      materials: planned.map(({ material }) => material),
      intents: planned.map(({ intent }) => intent),
      prefer: study.plan.targets.prefer,
      pins: study.plan.pins,
    };
  });
  const answer = createAnswer('exercise', () => request);

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
      return answer.value;
    },
    get passage(): Passage | null {
      return opened ?? answer.value?.passage ?? null;
    },
    get opened() {
      return opened;
    },
    get working() {
      return !answer.settled && answer.failure === null;
    },
    get failure() {
      return answer.failure;
    },
    /** The sheet of the chart that is shown; null while it is not kept. */
    get kept() {
      return kept;
    },
    change,
    open(passage: Passage) {
      opened = passage;
      kept = null;
    },
    close() {
      opened = null;
      kept = null;
    },
    /** Keeps what is shown with the chart under a name; a sentence where that cannot be. */
    keep(name: string): string | null {
      const passage = opened ? writePassageJson(opened).content : null;
      if (passage !== null && passage.length > KEPT_PASSAGE_LIMIT) {
        return 'This melody is too long to be kept with the chart.';
      }
      const id = crypto.randomUUID();
      const named = name.trim() || opened?.title || EXERCISE_WORDS[settings.kind].name;
      study.edit(keepSheet({ ...settings, id, name: named.slice(0, 80), passage }));
      kept = id;
      return null;
    },
    /** Shows a kept sheet again. */
    take({ id, passage, ...sheet }: PracticeSheet) {
      const read = passage === null ? null : readPassageJson(passage);
      const { kind, subdivision, extent, from: first, group, seed } = sheet;
      // The instrument may be another than the sheet was kept for.
      const zone = fitZone(study.neck, sheet.zone.low, sheet.zone.high);
      const there = sheet.strings.filter((string) => string <= stringCount(study.neck));
      const strings = there.length > 0 ? there : settings.strings;
      settings = { kind, subdivision, extent, from: first, zone, strings, group, seed };
      opened = read?.ok ? read.passage : null;
      kept = id;
    },
  };
}

export type Practice = ReturnType<typeof createPractice>;
