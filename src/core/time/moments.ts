/** Moments as ISO 8601 writes them, with their offset from UTC: read without a clock or a zone. */

/** A time of day on a date where it was written: `2026-06-15T18:00:00+02:00`. */
export type Moment = string;
/** Milliseconds since the beginning of 1970 in UTC. */
export type Milliseconds = number;

const FORM =
  /^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)(?::(\d\d)(?:[.,](\d+))?)?(Z|[+-]\d\d(?::?\d\d)?)$/u;
const [SECOND, MINUTE, HOUR] = [1_000, 60_000, 3_600_000];

/** A day. */
export const DAY: Milliseconds = 86_400_000;

/** Days from 1970 to a date (Hinnant, "chrono-compatible low-level date algorithms", 2013). */
function daysTo(year: number, month: number, day: number): number {
  const shifted = month <= 2 ? year - 1 : year;
  const era = Math.floor(shifted / 400);
  const ofEra = shifted - era * 400;
  const ofYear = Math.floor((153 * ((month + 9) % 12) + 2) / 5) + day - 1;
  return (
    era * 146_097 + ofEra * 365 + Math.floor(ofEra / 4) - Math.floor(ofEra / 100) + ofYear - 719_468
  );
}

function offsetOf(zone: string): Milliseconds {
  if (zone === 'Z') return 0;
  const digits = zone.slice(1).replace(':', '').padEnd(4, '0');
  const away = Number(digits.slice(0, 2)) * HOUR + Number(digits.slice(2)) * MINUTE;
  return zone.startsWith('-') ? -away : away;
}

/**
 * When a moment is; not a number where it is not written as one.
 *
 * @example timeOf('1970-01-02T01:00:00+01:00'); // 86400000
 */
export function timeOf(at: Moment): Milliseconds {
  const match = FORM.exec(at);
  if (!match) return Number.NaN;
  const [year, month, day, hour, minute, second] = match.slice(1, 7).map((one) => Number(one ?? 0));
  const fraction = Number(`0.${match[7] ?? '0'}`);
  return (
    daysTo(year ?? 0, month ?? 1, day ?? 1) * DAY +
    (hour ?? 0) * HOUR +
    (minute ?? 0) * MINUTE +
    ((second ?? 0) + fraction) * SECOND -
    offsetOf(match[8] ?? 'Z')
  );
}

/**
 * The day a moment falls on where it was written.
 *
 * @example dayOf('2026-06-15T18:00:00+02:00'); // "2026-06-15"
 */
export const dayOf = (at: Moment): string => at.slice(0, 10);
