import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundMarks, roundTop, spread } from './round';

describe('round figures of a scale', () => {
  it('an end at or above the value, a round one', () => {
    expect([3.2, 47, 0.08, 1001].map(roundTop)).toEqual([3.5, 50, 0.08, 1200]);
    fc.assert(
      fc.property(fc.double({ min: 1e-5, max: 1e7, noNaN: true }), (value) => roundTop(value) >= value && roundTop(value) <= 2 * value),
    );
  });
  it('nothing gives a scale all the same', () => expect(roundTop(0)).toBeGreaterThan(0));
  it('marks start at nothing and stay within', () => {
    expect(roundMarks(430, 4)).toEqual([0, 100, 200, 300, 400]);
    expect(roundMarks(11.6, 4)).toEqual([0, 2, 4, 6, 8, 10]);
  });
});

describe('names that would touch', () => {
  it('are moved on, the others stay', () => expect(spread([10, 100, 12, 13], 15)).toEqual([10, 100, 25, 40]));
  it('never stand closer than asked, and keep their order', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 500, noNaN: true }), { maxLength: 12 }), (at) => {
        const moved = spread(at, 15);
        const sorted = [...moved].sort((a, b) => a - b);
        expect(sorted.every((y, i) => i === 0 || y - sorted[i - 1]! >= 15 - 1e-9)).toBe(true);
        expect(moved.every((y, i) => y >= at[i]!)).toBe(true);
      }),
    ));
});
