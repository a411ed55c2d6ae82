import { expect, test } from 'vitest';
import { localMoment, stintSave } from './messages';

/** A date as a clock reads it that is so many minutes behind Greenwich. */
function behind(moment: string, minutes: number): Date {
  const date = new Date(moment);
  date.getTimezoneOffset = () => minutes;
  return date;
}

test.each([
  ['2026-03-01T12:00:30Z', 0, '2026-03-01T12:00:30+00:00'],
  ['2026-03-01T12:00:30Z', -330, '2026-03-01T17:30:30+05:30'],
  ['2026-03-01T01:00:30Z', 210, '2026-02-28T21:30:30-03:30'],
])('%s, %i minutes behind, is %s', (moment, minutes, said) => {
  expect(localMoment(behind(moment, minutes))).toBe(said);
  expect(new Date(said).getTime()).toBe(new Date(moment).getTime());
});

test('a stint is made on revision 0, and on none below', () => {
  const { revision } = stintSave.shape;
  expect(revision.safeParse(0).success).toBe(true);
  expect(revision.safeParse(-1).success).toBe(false);
});
