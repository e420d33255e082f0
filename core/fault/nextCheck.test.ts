import { describe, expect, it } from 'vitest';
import { entropyBits, normalPoints } from '../numeric';
import { figureInformation, yesNoInformation, type Foreseen } from './nextCheck';

/** Checks F11 to F15 of the chapter on faults. */
const foreseen = (probability: readonly number[], mean: readonly number[], sd: number): Foreseen[] =>
  probability.map((p, hypothesis) => ({ hypothesis, probability: p, mean: mean[hypothesis]!, variance: sd * sd }));

describe('what a check would tell', () => {
  it('F11: a yes or no, and what follows from a yes', () => {
    expect(yesNoInformation([0.5, 0.3, 0.2], [0.95, 0.1, 0.1])).toBeCloseTo(0.6205, 4);
  });
  it('F12: how much three causes leave open', () => {
    expect(entropyBits([0.5, 0.3, 0.2])).toBeCloseTo(1.48548, 5);
  });
  it('F13, F14: a figure, by five points and by nine', () => {
    const two = foreseen([0.6, 0.4], [0, 1], 0.5);
    expect(figureInformation(two, 1, 0, 5).bits).toBeCloseTo(0.46758, 4);
    expect(figureInformation(two, 1, 0, 9).bits).toBeCloseTo(0.46998, 4);
    expect(figureInformation(foreseen([0.5, 0.3, 0.2], [0, -0.4, -0.1], 0.08), 1, 0, 5).bits).toBeCloseTo(0.96557, 4);
  });
  it('F15: never less than nothing nor more than is open; nothing where all expect the same', () => {
    expect(figureInformation(foreseen([0.5, 0.3, 0.2], [1, 1, 1], 0.1), 1).bits).toBeCloseTo(0, 9);
    expect(yesNoInformation([0.5, 0.5], [0.3, 0.3])).toBeCloseTo(0, 9);
    const far = figureInformation(foreseen([0.5, 0.3, 0.2], [0, 10, 20], 0.01), 0.01, 0).bits;
    expect(far).toBeCloseTo(entropyBits([0.5, 0.3, 0.2]), 6);
  });
  it('sets those two apart whose figures lie farthest from each other', () => {
    const { apart } = figureInformation(foreseen([0.4, 0.3, 0.3], [0, 0.1, 2], 0.2), 1, 0.04, 5, true);
    expect(apart(0, 2)).toBeGreaterThan(apart(0, 1));
    expect(apart(0, 2)).toBeCloseTo(apart(2, 0), 12);
  });
  it('the points of the rule have the moments of a standard normal', () => {
    for (const count of [1, 2, 5, 9, 12]) {
      const { z, weight } = normalPoints(count);
      const moment = (power: number): number => z.reduce((sum, value, i) => sum + weight[i]! * value ** power, 0);
      expect(moment(0)).toBeCloseTo(1, 12);
      if (count > 1) expect(moment(2)).toBeCloseTo(1, 12);
      if (count > 2) expect(moment(4)).toBeCloseTo(3, 10);
      expect(moment(1)).toBeCloseTo(0, 12);
    }
  });
});
