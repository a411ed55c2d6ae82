/** Weeks of the log, by ISO 8601: Monday first, as it was where it was played. */

const DAY = 86_400_000;

/** The Monday of a moment's week, as a date. */
export function isoWeek(at: string): string {
  const day = Date.parse(`${at.slice(0, 10)}T00:00:00Z`);
  if (!Number.isFinite(day)) return '1970-01-05';
  const weekday = (new Date(day).getUTCDay() + 6) % 7;
  return new Date(day - weekday * DAY).toISOString().slice(0, 10);
}

/** The Mondays of the last so many weeks, the oldest first. */
export function lastWeeks(count: number, today: string): readonly string[] {
  const last = Date.parse(isoWeek(today));
  return Array.from({ length: count }, (_, index) =>
    new Date(last - (count - 1 - index) * 7 * DAY).toISOString().slice(0, 10),
  );
}
