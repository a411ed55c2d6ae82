/** The log's words: states, times and amounts as a player says them. */
import type { ExerciseKind } from 'corvel-core';
import { EXERCISE_WORDS } from '$core/exercises/words';
import { lookUp } from '$core/lists';
import { DRILLS } from '$core/log/blocks';
import type { State } from '$core/log/stints';
import { counted } from '$core/words';

export const STATE_WORDS: Readonly<Record<State, string>> = {
  untouched: 'not played yet',
  new: 'begun',
  shaky: 'shaky',
  stale: 'not played for three weeks',
  solid: 'solid',
};

const OTHER: Readonly<Record<string, string>> = {
  free: 'Free playing',
  drills: 'Drills',
  lick: 'A lick',
  sheet: 'A kept sheet',
};

export const exerciseName = (exercise: string): string =>
  lookUp(EXERCISE_WORDS, exercise as ExerciseKind)?.name ?? lookUp(OTHER, exercise) ?? exercise;

export function minutesName(minutes: number): string {
  const whole = Math.round(minutes);
  if (minutes === 0) return 'no minutes';
  if (whole < 1) return 'half a minute';
  if (whole < 60) return counted(whole, 'minute');
  const rest = whole % 60;
  return `${Math.floor(whole / 60)} h${rest === 0 ? '' : ` ${rest} min`}`;
}

/** A day as it is spoken of: `Today`, `Yesterday`, `Wednesday 25 November`. */
export function dayName(day: string, today: string): string {
  const away = (Date.parse(today) - Date.parse(day)) / 86_400_000;
  if (away === 0) return 'Today';
  if (away === 1) return 'Yesterday';
  const format = new Intl.DateTimeFormat('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    timeZone: 'UTC',
    ...(away > 300 ? { year: 'numeric' as const } : {}),
  });
  return format.format(new Date(day));
}

/** Whether what is practised has a tempo: cards have none. */
export const hasTempo = (exercise: string): boolean => exercise !== DRILLS;

/** How a stint went, in words. */
export function wentWords(exercise: string, asked: number | null, landed: number | null): string {
  if (asked === null || landed === null || asked === 0) return '';
  return `${landed} of ${counted(asked, exercise === DRILLS ? 'card' : 'target')} ${exercise === DRILLS ? 'right' : 'landed'}`;
}
