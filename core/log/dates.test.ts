import { describe, expect, it } from 'vitest';
import { NOTHING_SAID, type Reading } from '../file';
import { daysByWeek } from './dates';
import { countedUp, meterFilled, productSinceL } from './volume';

/** What is needed in each hour of a week, by weekday from Monday. */
const week = (...days: number[]): number[] => days.flatMap((litres) => new Array<number>(24).fill(litres / 24));
/** A Wednesday at noon. */
const NOW = '2026-11-25T12:00:00Z';

describe('days of mean use on a calendar', () => {
  it('are the same where every hour is alike', () => {
    for (const days of [0, 0.3, 1, 6.9, 7, 30.25]) expect(daysByWeek(days, week(5, 5, 5, 5, 5, 5, 5), NOW)).toBeCloseTo(days, 9);
  });
  it('wait for the weekend where all is drawn then: by hand', () => {
    // 70 L a week, all on Saturday: 10 L a mean day. From Wednesday noon the first 10 L are drawn 1/7 into Saturday.
    const saturdays = week(0, 0, 0, 0, 0, 70, 0);
    expect(daysByWeek(1, saturdays, NOW)).toBeCloseTo(2.5 + 1 / 7, 9);
    expect(daysByWeek(8, saturdays, NOW)).toBeCloseTo(9.5 + 1 / 7, 9);
    // On a Saturday evening three quarters of it are drawn.
    expect(daysByWeek(1, saturdays, '2026-11-28T18:00:00Z')).toBeCloseTo(10 / 70, 9);
    expect(daysByWeek(3, saturdays, '2026-11-28T18:00:00Z')).toBeCloseTo(6.25 + (30 - 17.5) / 70, 9);
  });
  it('stay as they are where nothing is known of the week', () => {
    expect(daysByWeek(12, [], NOW)).toBe(12);
    expect(daysByWeek(12, week(0, 0, 0, 0, 0, 0, 0), NOW)).toBe(12);
  });
});

/** A reading of one day of January that says the litres meter alone. */
const reading = (day: number, meterL: number | null): Reading => ({
  id: `r${day}`,
  systemId: 's',
  at: new Date(Date.UTC(2026, 0, day)).toISOString(),
  values: [],
  pressureBar: null,
  temperatureC: null,
  productLPerH: null,
  wasteLPerH: null,
  meterL,
  ...NOTHING_SAID,
});

describe('a meter that is not read each time', () => {
  const meters = (...readings: Reading[]): (number | null)[] => meterFilled(readings).map(({ meterL }) => meterL);
  it('counted in a line between', () => {
    expect(meters(reading(1, 100), reading(2, null), reading(4, null), reading(5, 180))).toEqual([100, 120, 160, 180]);
  });
  it('is not guessed before its first reading, after its last, or where it went back', () => {
    expect(meters(reading(1, null), reading(2, 50), reading(3, null))).toEqual([null, 50, null]);
    expect(meters(reading(1, 500), reading(2, null), reading(3, 20), reading(4, null), reading(5, 40))).toEqual([500, null, 20, 30, 40]);
  });
  it('tells what passed as if nothing else had been read between', () => {
    const since = Date.UTC(2026, 0, 1);
    const all = [reading(1, 100), reading(2, null), reading(3, null), reading(8, 170)];
    expect(productSinceL(all, since, Date.UTC(2026, 0, 8), 999)).toBeCloseTo(70, 9);
  });
});

describe('a meter of litres that is not a plain one', () => {
  const totals = (meter: Parameters<typeof countedUp>[1], ...shown: (number | null)[]): (number | null)[] =>
    countedUp(
      shown.map((one, i) => reading(i + 1, one)),
      meter,
    ).map(({ meterL }) => meterL);
  it('counts down from what it was set to, below nought, and from anew', () =>
    expect(totals({ counts: 'down', setToL: 1200, rollsOverL: null }, 1070, 800, null, -30, 1150)).toEqual([130, 400, null, 1230, 1280]));
  it('begins again behind its last figure', () =>
    expect(totals({ counts: 'up', setToL: null, rollsOverL: 10_000 }, 9_900, 9_990, 40)).toEqual([9_900, 9_990, 10_040]));
  it('a plain one stays as it was read', () => {
    const plain = [reading(1, 5), reading(2, 3)];
    expect(countedUp(plain, { counts: 'up', setToL: null, rollsOverL: null })).toBe(plain);
  });
});
