import { bisect, cumulativeStdNormalProbability, probit } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { expectNear } from '../testing/close';
import { findRoot, findRootNear } from './root';
import { normalCumulative, normalQuantile } from './normal';
import { solveLinear } from './linear';

describe('roots', () => {
  it('finds the root of a stiff function on a wide bracket', () => {
    expectNear(findRoot((x) => Math.exp(x) - 1e6, -50, 50)!.x, Math.log(1e6), 1e-10);
  });
  it('says so when there is no sign change', () => {
    expect(findRoot((x) => x * x + 1, -1, 1)).toBeNull();
    expect(findRoot(() => Number.NaN, 0, 1)).toBeNull();
  });
  it('converges from a guess and a rough slope, or gives up', () => {
    expectNear(findRootNear((x) => x * x * x - 8, 1.8, 10, 0, 10, 1e-10)!.x, 2, 1e-9);
    expect(findRootNear((x) => x + 5, 1, 1, 0, 10, 1e-10)).toBeNull();
  });
});

describe('the normal distribution', () => {
  // Tables of the standard normal distribution (Abramowitz & Stegun, table 26.1).
  it.each([
    [0, 0.5],
    [1, 0.8413447],
    [1.96, 0.9750021],
    [-2.5758293, 0.005],
    [3, 0.9986501],
  ])('Φ(%s) = %s', (z, p) => {
    expectNear(normalCumulative(z), p, 2e-7);
    expectNear(normalQuantile(p), z, 2e-5);
  });
  it('stays finite at the ends', () => {
    expect(Number.isFinite(normalQuantile(0))).toBe(true);
    expect(Number.isFinite(normalQuantile(1))).toBe(true);
  });
});

describe('against simple-statistics, a general-purpose library', () => {
  it('the cumulative and the quantile agree over the useful range', () => {
    for (let z = -3; z <= 3; z += 0.25) expectNear(normalCumulative(z), cumulativeStdNormalProbability(z), 1.5e-4, `Φ(${z})`);
    for (const p of [0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98]) expectNear(normalQuantile(p), probit(p), 5e-3, `probit ${p}`);
  });
  it('its bisection finds the same root', () => {
    const f = (x: number): number => Math.cos(x) - x;
    expectNear(findRoot(f, 0, 1)!.x, bisect(f, 0, 1, 200, 1e-12), 1e-10);
  });
});

describe('linear systems', () => {
  it('solves with pivoting and notices dependence', () => {
    expect(
      solveLinear(
        [
          [0, 2],
          [3, 1],
        ],
        [4, 5],
      ),
    ).toEqual([1, 2]);
    expect(
      solveLinear(
        [
          [1, 1],
          [1, 1],
        ],
        [1, 2],
      ),
    ).toBeNull();
  });
});
