import { expect, test } from 'vitest';
import { isoWeek, lastWeeks } from './weeks';

test('a day is of the week whose Monday came last', () => {
  expect(isoWeek('2026-06-15')).toBe('2026-06-15');
  expect(isoWeek('2026-06-21')).toBe('2026-06-15');
  expect(isoWeek('2026-06-22')).toBe('2026-06-22');
  expect(isoWeek('2027-01-01')).toBe('2026-12-28');
  expect(isoWeek('never')).toBe('1970-01-05');
});

test('the last weeks are told by their Mondays, the oldest first', () => {
  expect(lastWeeks(3, '2026-06-17')).toEqual(['2026-06-01', '2026-06-08', '2026-06-15']);
  expect(lastWeeks(1, '2026-06-15')).toEqual(['2026-06-15']);
});
