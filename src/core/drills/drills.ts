/**
 * Drills: one question at a time about chords, degrees and the neck, made from a chart and a zone
 * or from what every player meets, the same for the same seed; each answer with why it is right.
 */
import { type Place, samePlace } from '../neck/neck';
import { pitchClass } from '../notes/notes';
import { seeded } from '../random';
import { hearDegree, hearOverChord, hearQuality } from './byEar';
import {
  type Drill,
  DRILL_KINDS,
  type DrillAnswer,
  type DrillKind,
  type DrillSetting,
} from './kinds';
import type { Making } from './making';
import { findDegree, halfStepAhead, nameBox, nameDegree, nameNote } from './onNeck';
import { spellChord, whatIsMissing } from './spelling';

const MAKERS: Readonly<Record<DrillKind, (making: Making) => Drill>> = {
  'find-degree': findDegree,
  'name-degree': nameDegree,
  'name-note': nameNote,
  'spell-chord': spellChord,
  'half-step-ahead': halfStepAhead,
  'what-is-missing': whatIsMissing,
  'name-box': nameBox,
  'hear-quality': hearQuality,
  'hear-degree': hearDegree,
  'hear-over-chord': hearOverChord,
};

/** A drill of a kind; the same for the same seed and setting. */
export const makeDrill = (kind: DrillKind, seed: number, setting: DrillSetting): Drill =>
  MAKERS[kind]({ ...setting, draw: seeded(seed * 31 + DRILL_KINDS.indexOf(kind)) });

/** Whether an answer is right: a note by its sound, places all of them and no other. */
export function isRight({ answer }: Drill, given: DrillAnswer): boolean {
  if (answer.places) {
    const { places: wanted } = answer;
    const got = given.places ?? [];
    const isIn = (list: readonly Place[]) => (place: Place) =>
      list.some((one) => samePlace(one, place));
    return wanted.every(isIn(got)) && got.every(isIn(wanted));
  }
  if (answer.note !== undefined)
    return given.note !== undefined && pitchClass(given.note) === pitchClass(answer.note);
  if (answer.degree !== undefined) return given.degree === answer.degree;
  return given.choice === answer.choice;
}
