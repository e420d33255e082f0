import { describe, expect, it } from 'vitest';
import { robustLikelihood, symmetricInverse } from './likelihood';
import { logSumExp } from '../numeric';

/** Checks F3 to F10 of the chapter on faults. */

/** Three causes of two readings with one shared error (F4). */
const SHARED = [0.06, -0.05] as const;
const OWN = [0.05, 0.1] as const;
const PREDICTED = [
  [0, 0],
  [-0.4, 0.45],
  [-0.1, 0.6],
] as const;
const PRIOR = [0.7, 0.2, 0.1] as const;
const covariance = (shared: readonly number[] = SHARED): Float64Array =>
  Float64Array.from([0, 1].flatMap((i) => [0, 1].map((j) => shared[i]! * shared[j]! + (i === j ? OWN[i]! ** 2 : 0))));
const lns = (readings: readonly number[], badShare: number, shared: readonly number[] = SHARED): number[] =>
  PREDICTED.map((g) => robustLikelihood([readings[0]! - g[0], readings[1]! - g[1]], covariance(shared), [1, 1], badShare).ln);
const posterior = (ln: readonly number[]): number[] => {
  const joint = ln.map((value, h) => value + Math.log(PRIOR[h]!));
  const all = logSumExp(joint);
  return joint.map((value) => Math.exp(value - all));
};
const expectClose = (found: readonly number[], wanted: readonly number[], share: number): void =>
  wanted.forEach((value, i) => expect(Math.abs(found[i]! / value - 1)).toBeLessThan(share));

describe('readings of which some may be bad', () => {
  it('F3: a single one, in its own standard deviations', () => {
    for (const [z, wanted] of [
      [0, -0.95768],
      [4, -7.00248],
      [10, -7.25948],
    ] as const) {
      const { ln } = robustLikelihood([z * 0.05], Float64Array.from([0.0025]), [1], 0.04);
      expect(ln + Math.log(0.05)).toBeCloseTo(wanted, 5);
    }
  });
  it('F4: what two readings share stands in their covariance', () => {
    expect([...covariance()].map((value) => Number(value.toFixed(12)))).toEqual([0.0061, -0.003, -0.003, 0.0125]);
  });
  it('F5 to F9: posteriors, none bad, some bad, and without the shared error', () => {
    expectClose(lns([-0.33, 0.35], 0), [-7.55849, 2.36902, -7.35032], 1e-4);
    expectClose(posterior(lns([-0.33, 0.35], 0)), [0.00017081, 0.9998, 3.0049e-5], 1e-3);
    expectClose(lns([-0.33, 0.35], 0.04), [-6.80348, 2.29634, -5.10337], 1e-4);
    expectClose(posterior(lns([-0.33, 0.35], 0.04)), [0.00039063, 0.9993, 0.0003055], 1e-3);
    expectClose(lns([-0.05, 0.08], 0.04), [2.54817, -7.45611, -2.8719], 1e-4);
    expectClose(posterior(lns([-0.05, 0.08], 0.04)), [0.99936, 1.2908e-5, 0.000632], 1e-3);
    expectClose(posterior(lns([-0.12, 0.5], 0)), [0.00056658, 0.0011676, 0.99827], 1e-3);
    expectClose(posterior(lns([-0.12, 0.5], 0.04)), [0.015322, 0.010296, 0.97438], 1e-3);
    expectClose(posterior(lns([-0.33, 0.35], 0, [0, 0])), [1.17e-11, 1, 2.453e-6], 1e-2);
  });
  it('the closed form is the sum over every set of up to two bad readings', () => {
    const residual = [0.3, -0.2, 1.1];
    const sigma = Float64Array.from([0.02, 0.004, 0.001, 0.004, 0.03, 0.002, 0.001, 0.002, 0.01]);
    const spread = [1, 0.7, 1.3];
    const eps = 0.04;
    const plain = (bad: readonly number[]): number => {
      const matrix = Float64Array.from(sigma);
      for (const i of bad) matrix[i * 3 + i]! += spread[i]! ** 2;
      return robustLikelihood(residual, matrix, spread, 0).ln + bad.length * Math.log(eps) + (3 - bad.length) * Math.log(1 - eps);
    };
    const sets = [[], [0], [1], [2], [0, 1], [0, 2], [1, 2]];
    const found = robustLikelihood(residual, sigma, spread, eps);
    expect(found.ln).toBeCloseTo(logSumExp(sets.map(plain)), 10);
    const all = logSumExp(sets.map(plain));
    [0, 1, 2].forEach((i) => {
      const withIt = sets.filter((set) => set.includes(i)).reduce((sum, set) => sum + Math.exp(plain(set) - all), 0);
      expect(found.bad[i]).toBeCloseTo(withIt, 10);
    });
  });
  it('F10: an average over severities by cells instead of points', () => {
    const [from, to] = [Math.log(0.35), Math.log(0.85)];
    const average = (count: number): number => {
      const step = (to - from) / count;
      const terms = Array.from({ length: count }, (_, k) => {
        const middle = from + (k + 0.5) * step;
        return robustLikelihood([-0.33 - middle], Float64Array.from([0.0036 + step ** 2 / 12]), [1], 0).ln;
      });
      return logSumExp(terms) - Math.log(count);
    };
    expect(average(8)).toBeCloseTo(0.11774, 4);
    expect(average(32)).toBeCloseTo(0.11694, 4);
  });
  it('an inverse times its matrix is one, and its determinant the matrix’s', () => {
    const matrix = Float64Array.from([4, 1, 0.5, 1, 3, 0.2, 0.5, 0.2, 2]);
    const { rows, lnDet } = symmetricInverse(matrix, 3);
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) {
        const sum = [0, 1, 2].reduce((total, k) => total + matrix[i * 3 + k]! * rows[k * 3 + j]!, 0);
        expect(sum).toBeCloseTo(i === j ? 1 : 0, 12);
      }
    expect(Math.exp(lnDet)).toBeCloseTo(4 * (6 - 0.04) - (2 - 0.1) + 0.5 * (0.2 - 1.5), 10);
  });
});
