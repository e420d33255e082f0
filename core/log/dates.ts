import { DAY_MS } from '../quantity';

/** A date some days after an instant. */
export function dateAfter(instant: string, days: number): string {
  return new Date(Date.parse(instant) + days * DAY_MS).toISOString();
}

const HOUR_MS = DAY_MS / 24;
const WEEK_H = 168;

/**
 * Days of mean use as days of the calendar: where most is drawn at weekends, little is used up before.
 *
 * @param needByHour what is needed in each hour of a week, from Monday's first
 */
export function daysByWeek(meanDays: number, needByHour: readonly number[], from: string): number {
  const total = needByHour.reduce((sum, litres) => sum + litres, 0);
  if (!(total > 0) || needByHour.length !== WEEK_H || !Number.isFinite(meanDays)) return meanDays;
  const weeks = Math.floor(meanDays / 7);
  let left = ((meanDays - 7 * weeks) / 7) * total;
  const at = new Date(from);
  const start = ((at.getUTCDay() + 6) % 7) * 24 + (Date.parse(from) % DAY_MS) / HOUR_MS;
  let hours = 0;
  // The present hour is begun already.
  for (let step = Math.floor(start) + 1 - start; left > 0 && hours < WEEK_H; step = 1) {
    const drawn = needByHour[Math.floor(start + hours) % WEEK_H]! * step;
    if (drawn >= left && drawn > 0) return 7 * weeks + (hours + (step * left) / drawn) / 24;
    left -= drawn;
    hours += step;
  }
  return 7 * weeks + hours / 24;
}
