import type { CalendarMoment, LocalClock } from '../log';

/** A clock in a place that keeps UTC, for tests and the training logs: what a day and an hour written down stand for. */

/** The calendar of an instant there. */
export function calendarOf(instant: string): CalendarMoment {
  const at = new Date(instant);
  return {
    year: at.getUTCFullYear(),
    month: at.getUTCMonth() + 1,
    day: at.getUTCDate(),
    hour: at.getUTCHours(),
    minute: at.getUTCMinutes(),
  };
}

/** The clock at an instant. */
export const clockAt = (instant: string, monthFirst = false): LocalClock => ({
  now: calendarOf(instant),
  instantOf: ({ year, month, day, hour, minute }) => new Date(Date.UTC(year, month - 1, day, hour, minute)).toISOString(),
  monthFirst,
});
