import { describe, expect, it } from 'vitest';
import { expectWithin, failure, value } from '../testing/close';
import { floatCycle } from './float';

const even = (litresPerDay: number): number[] => new Array<number>(24).fill(litresPerDay / 24);

describe('a float', () => {
  // Exchange chapter, section 10: D(1 − D/24q)/(V(off − on)).
  it('200 L/day from 100 L between 60 and 90 %, refilled at 20 L/h: 3.9 starts a day', () => {
    const tank = { volumeL: 100, startShare: 0.6, stopShare: 0.9 };
    const week = Array.from({ length: 7 }, () => even(200)).flat();
    expectWithin(value(floatCycle(tank, week, 20)).startsPerDay, 3.9, 0.03);
  });
  it('runs as long as the day needs', () => {
    const week = Array.from({ length: 7 }, () => even(200)).flat();
    expectWithin(value(floatCycle({ volumeL: 100, startShare: 0.6, stopShare: 0.9 }, week, 20)).runHoursPerDay, 10, 0.02);
  });
  it('a narrower float starts it more often in proportion', () => {
    const starts = (stopShare: number): number =>
      value(floatCycle({ volumeL: 100, startShare: 0.6, stopShare }, Array.from({ length: 7 }, () => even(200)).flat(), 20)).startsPerDay;
    expectWithin(starts(0.65) / starts(0.9), 6, 0.03);
  });
  it('a large draw takes the level below where the float starts, down to nothing', () => {
    const draws = even(0).map((_, hour) => (hour === 8 ? 150 : 0));
    expect(value(floatCycle({ volumeL: 100, startShare: 0.6, stopShare: 0.9 }, draws, 20)).lowestL).toBe(0);
  });
  it('must stop above where it starts', () => {
    const error = failure(floatCycle({ volumeL: 100, startShare: 0.9, stopShare: 0.9 }, even(10), 20));
    expect([error.field, error.message]).toEqual(['stopShare', expect.stringContaining('must stop above where it starts')]);
  });
});
