import { describe, expect, it } from 'vitest';
import { ageFactor, ownCountWeight } from './prior';
import { shapeEvidence, shapeFactors, shapeMultipliers, SHAPES } from './shape';

/** Checks F17 to F19 and F37 of the chapter on faults. */
const DAYS = Array.from({ length: 10 }, (_, i) => 30 * i);
const CASES = [
  {
    name: 'F17',
    y: [0.01, -0.02, 0.02, 0, -0.01, -0.17, -0.15, -0.19, -0.16, -0.18],
    ln: [-18.448, 11.952, 20.146, 13.496],
    likeliest: 'step',
    at: 0.9984,
  },
  {
    name: 'F18',
    y: [0.01, -0.01, -0.03, -0.04, -0.05, -0.09, -0.1, -0.1, -0.13, -0.14],
    ln: [10.215, 21.723, 18.931, 18.028],
    likeliest: 'drift',
    at: 0.9207,
  },
  {
    name: 'F19',
    y: [0.01, -0.02, 0.02, 0, -0.01, 0.03, -0.02, 0, 0.01, -0.03],
    ln: [22.368, 20.601, 19.594, 19.553],
    likeliest: 'steady',
    at: 0.7734,
  },
] as const;

describe('how a series goes', () => {
  for (const { name, y, ln, likeliest, at } of CASES)
    it(`${name}: ${likeliest}`, () => {
      const found = shapeEvidence(DAYS, y, 0.03, [150]);
      SHAPES.forEach((shape, i) => expect(Math.abs(found.ln[shape] - ln[i]!)).toBeLessThan(0.002));
      expect(Math.abs(found.probability[likeliest] - at)).toBeLessThan(0.0005);
    });
  it('without work on record a step may stand anywhere, and says less', () => {
    const known = shapeEvidence(DAYS, CASES[0].y, 0.03, [150]);
    const unknown = shapeEvidence(DAYS, CASES[0].y, 0.03);
    expect(unknown.ln.step).toBeLessThan(known.ln.step);
    expect(unknown.probability.step).toBeGreaterThan(0.95);
  });
  it('a steady log speaks for healthy, and as much for what no meter sees; a short one says nothing', () => {
    const ids = ['healthy', 'carbonSpent', 'fouled'];
    const days = DAYS;
    const y = CASES[2].y;
    const [healthy, unseen, fouled] = shapeFactors([{ days, y }], ids, [], []);
    expect(unseen).toBe(healthy);
    expect(healthy! / fouled!).toBeGreaterThan(2);
    expect(shapeFactors([{ days: days.slice(0, 4), y: y.slice(0, 4) }], ids, [], [])).toEqual([1, 1, 1]);
    // Two series that say the same say it once.
    expect(
      shapeFactors(
        [
          { days, y },
          { days, y },
        ],
        ids,
        [],
        [],
      )[0],
    ).toBeCloseTo(healthy!, 12);
  });
  it('a drift speaks for what wears, a step for what comes at once; none more than five times', () => {
    const ids = ['healthy', 'fouled', 'sealLeak', 'coldWater'];
    const drift = shapeMultipliers({ steady: 0, drift: 1, step: 0, season: 0 }, ids);
    expect(drift[1]! / drift[2]!).toBeCloseTo(5, 10);
    const step = shapeMultipliers({ steady: 0, drift: 0, step: 1, season: 0 }, ids);
    expect(step[2]! / step[1]!).toBeCloseTo(5, 10);
    const raised = shapeMultipliers({ steady: 0, drift: 0, step: 1, season: 0 }, ids, ['fouled']);
    expect(raised[1]! / raised[2]!).toBeCloseTo(5, 10);
    for (const value of [...drift, ...step]) expect(value).toBeLessThanOrEqual(5);
  });
});

describe('what age and a workshop’s own counts make of a weight', () => {
  it('F37: by the share of life that is used', () => {
    const wanted = [0.1, 0.75, 1.08, 3, 5];
    [0.1, 0.5, 0.6, 1, 1.5].forEach((used, i) => expect(ageFactor(used)).toBeCloseTo(wanted[i]!, 9));
  });
  it('counts add ten in all, shared out as they were confirmed', () => {
    expect(ownCountWeight(4, 3, 6)).toBe(9);
    expect(ownCountWeight(4, 0, 0)).toBe(4);
  });
});
