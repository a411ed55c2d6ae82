/** What a practice sheet is made of, and the exercise made from it. */
import type { ExerciseKind, Passage } from 'corvel-core';
import { fitZone, stringCount } from '$core/neck/neck';
import { type ExerciseRequest, homeOf } from '$core/exercises/request';
import { notesOver, patternFrom } from '$core/exercises/own/from';
import { MELODY_KINDS } from '$core/exercises/kinds';
import { EXERCISE_WORDS } from '$core/exercises/words';
import { motifOf } from '$core/lines/motif';
import { overChart } from '$core/licks/lick';
import { readPassageJson, writePassageJson } from '$core/formats/passage/json';
import type { StoredLick } from '$lib/licks/messages';
import { latersOf } from '$lib/study/choices';
import { keepSheet, setMelody } from '$lib/study/edits';
import { madeWith } from '$lib/study/made';
import { melodyOver } from '$lib/study/melody';
import { asMelody, KEPT_PASSAGE_LIMIT, type PracticeSheet } from '$lib/study/plan';
import type { Study } from '$lib/study/study.svelte';
import { createAnswer } from '$lib/workers/answer.svelte';
import { noteLength } from '$core/time/subdivision';
import { notesFrom } from '$core/licks/kept';

type SheetSettings = Omit<PracticeSheet, 'id' | 'name' | 'passage'>;

const START: Omit<SheetSettings, 'zone'> = {
  kind: 'line',
  subdivision: 'eighths',
  extent: 'whole',
  from: 0,
  strings: [1, 2, 3],
  group: 4,
  seed: 1,
  style: null,
  octave: null,
  pattern: null,
  begin: null,
  direction: null,
};

export function createPractice(study: Study, from: number) {
  let settings = $state.raw<SheetSettings>({ ...START, zone: study.zone, from });
  let kept = $state<string | null>(null);
  /** The seed whose plan a line keeps to while its notes change; null for each its own. */
  let idea = $state<number | null>(null);
  /** The lick whose motif lines are made of; null for one of their own. */
  let lick = $state.raw<StoredLick | null>(null);
  /** The exercise that a pattern was made from, with that pattern. */
  let madeFrom = $state.raw<{ kind: ExerciseKind; pattern: string } | null>(null);
  /** Half bars after the ii at which one sound gives way to I; null where I comes by itself. */
  let switchAt = $state<number | null>(null);
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
      later: latersOf(chart, planned),
      prefer: study.plan.targets.prefer,
      pins: study.plan.pins,
      idea,
      switchAt,
      motif: lick && motifOf(study.neck, overChart(chart, key, study.neck, notesFrom(lick.notes))),
      melody: MELODY_KINDS.has(settings.kind)
        ? melodyOver(study.plan, chart, key, study.neck)
        : null,
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
    get idea() {
      return idea;
    },
    /** Keeps the plan of the line that is shown, or lets each line have its own again. */
    keepIdea(keeps: boolean) {
      idea = keeps ? settings.seed : null;
    },
    get lick() {
      return lick;
    },
    takeMotif(from: StoredLick | null) {
      lick = from;
    },
    get switchAt() {
      return switchAt;
    },
    setSwitch(half: number | null) {
      switchAt = half;
    },
    /** Makes what was opened the tune's melody; a sentence where that cannot be. */
    keepMelody(): string | null {
      if (!opened) return null;
      const melody = asMelody(opened.notes);
      if (!melody && opened.notes.length > 0) return 'This melody is too long for a chart.';
      study.edit(setMelody(melody));
      opened = null;
      settings = { ...settings, kind: 'melody' };
      return null;
    },
    dropMelody: () => study.edit(setMelody(null)),
    change,
    open(passage: Passage) {
      opened = passage;
      kept = null;
    },
    close() {
      opened = null;
      kept = null;
    },
    /** The exercise a pattern was made from; null for none. */
    get madeFrom() {
      return madeFrom !== null && settings.pattern === madeFrom.pattern ? madeFrom.kind : null;
    },
    /** Makes a pattern of what is played over a chord; a sentence where there is none for it. */
    turnIntoPattern(index: number): string | null {
      const { chart, planned, key, neck } = study;
      const passage = answer.value?.passage;
      const played = chart?.chords[index];
      const material = planned[index]?.material;
      if (!chart || !passage || !played || !material) return 'There is nothing to play over yet.';
      const { unit } = chart.source.time;
      const over = passage.notes.filter(({ chord }) => chord === index);
      const pattern = patternFrom({
        neck,
        chord: played.chord,
        beat: played.beat,
        scale: [...material.notes, ...homeOf(key)],
        notes: notesOver(over, played.beat, played.beats),
        long: noteLength(settings.subdivision, unit),
        unit,
      });
      if (pattern === null)
        return `What is played over ${played.chord.symbol} cannot be written as a pattern.`;
      madeFrom = { kind: settings.kind, pattern };
      change({ kind: 'own', pattern, direction: null });
      return null;
    },
    /** Keeps what is shown with the chart under a name; a sentence where that cannot be. */
    keep(name: string): string | null {
      // It is kept already, and nothing else is said of it.
      if (kept !== null && name.trim() === '') return null;
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
      // The instrument may be another than the sheet was kept for.
      const zone = fitZone(study.neck, sheet.zone.low, sheet.zone.high);
      const there = sheet.strings.filter((string) => string <= stringCount(study.neck));
      const strings = there.length > 0 ? there : settings.strings;
      const { kind, extent, from: first } = sheet;
      settings = { ...madeWith(sheet), kind, extent, from: first, zone, strings };
      opened = read?.ok ? read.passage : null;
      kept = id;
    },
  };
}

export type Practice = ReturnType<typeof createPractice>;
