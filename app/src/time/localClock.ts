import type { CalendarMoment, LocalClock } from '@yes-clear/core/log';

const momentOf = (at: Date): CalendarMoment => ({
  year: at.getFullYear(),
  month: at.getMonth() + 1,
  day: at.getDate(),
  hour: at.getHours(),
  minute: at.getMinutes(),
});
/** An instant in this device's calendar. */
export const calendarOf = (instant: string): CalendarMoment => momentOf(new Date(instant));

/** The clock and calendar of this device at a moment. */
export const localClock = (at: Date, monthFirst: boolean): LocalClock => ({
  now: momentOf(at),
  instantOf: ({ year, month, day, hour, minute }) => new Date(year, month - 1, day, hour, minute).toISOString(),
  monthFirst,
});
