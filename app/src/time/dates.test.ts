import { describe, expect, it } from 'vitest';
import { dayAndTime, dayOfYear, daysBetween, endOfDayIn, longDayOfYear, monthMark, MONTHS, short, shortDay, WEEKDAYS } from './dates';

describe('days in words', () => {
  it('a calendar day is that day in any time zone', () => {
    expect([shortDay('2026-11-23'), dayOfYear('2026-11-23'), longDayOfYear('2026-11-23')]).toEqual([
      '23 Nov',
      '23 Nov 2026',
      '23 November 2026',
    ]);
  });
  it('an instant is the time it was on the wall', () => expect(dayAndTime(new Date(2026, 10, 23, 8, 5).getTime())).toBe('23 Nov, 08:05'));
  it('days are counted by the calendar, not by 24 hours', () => {
    expect(daysBetween(new Date(2026, 10, 23, 23, 50), new Date(2026, 10, 24, 0, 10))).toBe(1);
    expect(daysBetween('2026-11-23', '2026-11-20')).toBe(-3);
  });
  it('the end of a day some days on', () =>
    expect(endOfDayIn(2, new Date(2026, 10, 23, 8))).toBe(new Date(2026, 10, 25, 23, 59, 59, 999).toISOString()));
  it('marks at the foot: month, month with its year, year', () => {
    const march = new Date(2026, 2, 1).getTime();
    expect([1, 3, 12].map((apart) => monthMark(march, apart))).toEqual(['Mar', 'Mar 2026', '2026']);
  });
  it('a week starts on Monday; short names are told apart', () => {
    expect([WEEKDAYS[0], WEEKDAYS.length, MONTHS.length]).toEqual(['Monday', 7, 12]);
    expect(new Set(MONTHS.map(short)).size).toBe(12);
  });
});
