import type { LocalClock } from '@yes-clear/core/log';

/** The clock and calendar of this device at a moment. */
export const localClock = (at: Date, monthFirst: boolean): LocalClock => ({
  now: { year: at.getFullYear(), month: at.getMonth() + 1, day: at.getDate(), hour: at.getHours(), minute: at.getMinutes() },
  instantOf: ({ year, month, day, hour, minute }) => new Date(year, month - 1, day, hour, minute).toISOString(),
  monthFirst,
});
