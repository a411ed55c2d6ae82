/** What the stage’s neck shows of a moment: the marks of both chords, their targets, the ways in. */
import { rememberOf } from '$core/cache';
import { markNeck } from '$core/neck/marks';
import type { Place } from '$core/neck/neck';
import { approachNotes } from '$core/targets/approach';
import type { RouteStop } from '$core/targets/route';
import { type DrawnMark, drawnChange } from '$lib/neck/drawn';
import { labelMark } from '$lib/neck/labels';
import type { PlannedChord } from '$lib/study/choices';
import type { Study } from '$lib/study/study.svelte';
import type { Moment } from '$lib/stage/moment';

export interface Picture {
  readonly marks: readonly DrawnMark[];
  /** The chord that sounds and its target. */
  readonly now: PlannedChord | null;
  readonly target: RouteStop | null;
  /** The chord that comes, where it is shown, and its target. */
  readonly next: PlannedChord | null;
  readonly nextTarget: RouteStop | null;
  /** Notes that lead into the target that comes. */
  readonly ways: readonly Place[];
}

const NO_MARKS: readonly DrawnMark[] = [];
const NO_WAYS: readonly Place[] = [];

/** Nothing: for a turn that is played from memory. */
export const BLANK: Picture = {
  marks: NO_MARKS,
  now: null,
  target: null,
  next: null,
  nextTarget: null,
  ways: NO_WAYS,
};

/** Whether two pictures are drawn alike: what they are made of is remembered, and the same again. */
export const samePicture = (one: Picture, other: Picture): boolean =>
  one.marks === other.marks &&
  one.target === other.target &&
  one.next === other.next &&
  one.nextTarget === other.nextTarget &&
  one.ways === other.ways;

/** Shows moments on the neck as it is now, with what comes or without; what was made is remembered. */
export function picturesOf(
  study: Pick<Study, 'neck' | 'zone' | 'key' | 'view'>,
): (moment: Moment, ahead: boolean) => Picture {
  const { neck, zone, key } = study;
  const { labels } = study.view;
  const playedOver = ({ chord, material }: PlannedChord) => ({ chord, notes: material.notes });
  const make = (now: PlannedChord, next: PlannedChord | null): readonly DrawnMark[] => {
    const around = {
      now: now.chord,
      next: next?.chord ?? null,
      key,
      zone,
      collection: now.material.collection,
    };
    return markNeck(neck, zone, playedOver(now), next && playedOver(next)).map((mark) =>
      drawnChange(mark, labelMark(mark, labels, around)),
    );
  };
  const alone = rememberOf((now: PlannedChord) => make(now, null));
  const before = rememberOf((now: PlannedChord) =>
    rememberOf((next: PlannedChord) => make(now, next)),
  );
  const waysOf = rememberOf(({ chord, material }: PlannedChord) =>
    rememberOf((stop: RouteStop): readonly Place[] =>
      (['below', 'above'] as const).flatMap((from) =>
        approachNotes(neck, stop, { chord, scale: material.notes, zone }, from).slice(-1),
      ),
    ),
  );
  return ({ now, next, target, nextTarget }, ahead) => {
    if (!now) return { ...BLANK, target };
    if (!ahead || !next) return { ...BLANK, marks: alone(now), now, target };
    const ways = nextTarget ? waysOf(next)(nextTarget) : NO_WAYS;
    return { marks: before(now)(next), now, target, next, nextTarget, ways };
  };
}
