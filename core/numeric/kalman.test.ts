import { describe, expect, it } from 'vitest';
import { posterior } from './posterior';
import { combined, inLightOf, moved, seenBy, type Belief } from './kalman';

const near = (found: number, expected: number, within = 1e-4): void => expect(Math.abs(found - expected)).toBeLessThan(within);

describe('a belief that moves', () => {
  const start: Belief = { mean: [0, -0.1], covariance: [[0.03 ** 2, 0], [0, 0.15 ** 2]] }; // prettier-ignore
  const quarter = [[1, 0.25], [0, 1]]; // prettier-ignore
  const noise = [0.02 ** 2 * 0.25, 0.01 ** 2 * 0.25];
  const read = (belief: Belief, value: number): Belief =>
    seenBy(belief, [{ row: [1, 0], residual: value - belief.mean[0]! }], [[0.05 ** 2]]).belief;
  it('L15: level and slope after two readings (science of logs, 13)', () => {
    const first = read(moved(start, quarter, noise), -0.05);
    const second = read(moved(first, quarter, noise), -0.02);
    near(second.mean[0]!, -0.03973);
    near(second.mean[1]!, -0.07433);
    near(Math.sqrt(second.covariance[0]![0]!), 0.03876);
    near(Math.sqrt(second.covariance[1]![1]!), 0.09237);
  });
  it('without movement it is the least-squares answer, in any order', () => {
    const seen = [
      { row: [1, 0.5], value: 0.3, sd: 0.1 },
      { row: [1, -0.2], value: 0.1, sd: 0.2 },
      { row: [0, 1], value: -0.4, sd: 0.3 },
    ];
    const prior = [
      { value: 0, sd: 0.5 },
      { value: 0.2, sd: 1 },
    ];
    const all = posterior(prior, seen.map(({ row, value, sd }) => ({ row, value, weight: 1 / sd ** 2 })))!; // prettier-ignore
    const take = (list: typeof seen): Belief =>
      list.reduce<Belief>(
        (belief, { row, value, sd }) =>
          seenBy(belief, [{ row, residual: value - row[0]! * belief.mean[0]! - row[1]! * belief.mean[1]! }], [[sd * sd]]).belief,
        { mean: [0, 0.2], covariance: [[0.25, 0], [0, 1]] }, // prettier-ignore
      );
    for (const found of [take(seen), take([...seen].reverse())]) {
      found.mean.forEach((value, i) => near(value, all.mean[i]!, 1e-12));
      found.covariance.forEach((row, i) => row.forEach((value, j) => near(value, all.covariance[i]![j]!, 1e-12)));
    }
  });
  it('in the light of what came later it is never less sure, and agrees with all taken at once', () => {
    const still = [[1, 0.25], [0, 1]]; // prettier-ignore
    const none = [0, 0];
    const before = moved(start, still, none);
    const after = read(before, 0.1);
    const smoothed = inLightOf(start, still, before, after);
    const all = posterior(
      [{ value: 0, sd: 0.03 }, { value: -0.1, sd: 0.15 }], // prettier-ignore
      [{ row: [1, 0.25], value: 0.1, weight: 400 }],
    )!;
    smoothed.mean.forEach((value, i) => near(value, all.mean[i]!, 1e-7));
    near(smoothed.covariance[0]![0]!, all.covariance[0]![0]!, 1e-7);
    expect(smoothed.covariance[1]![1]!).toBeLessThan(start.covariance[1]![1]!);
  });
  it('two seen with a shared error tell their difference better than either', () => {
    const both = [[0.04, 0.039], [0.039, 0.04]]; // prettier-ignore
    const wide: Belief = { mean: [0, 0], covariance: [[1, 0], [0, 1]] }; // prettier-ignore
    const { belief, z, lnEvidence } = seenBy(wide, [{ row: [1, 0], residual: 0.5 }, { row: [0, 1], residual: 0.4 }], both); // prettier-ignore
    expect(combined(belief, new Map([[0, 1], [1, -1]])).sd).toBeLessThan(0.05); // prettier-ignore
    expect(combined(belief, new Map([[0, 1]])).sd).toBeGreaterThan(0.15);
    near(z[0]!, 0.5 / Math.sqrt(1.04), 1e-12);
    expect(lnEvidence).toBeLessThan(0);
  });
});

/** Restrictor, filters and membrane told apart (science of logs, 4.4): a, ρ and loss g behind product and waste. */
describe('three unknowns behind two flows', () => {
  const N = 1.12;
  const n = 0.555;
  const told = (gSd: number) => {
    const prior = { mean: [0, 0, 0], covariance: [[0.05 ** 2, 0, 0], [0, 0.04 ** 2, 0], [0, 0, gSd ** 2]] }; // prettier-ignore
    const { belief } = seenBy(
      prior,
      [
        { row: [1, 0, -N], residual: Math.log(0.9) },
        { row: [0, 1, -n], residual: Math.log(0.95) },
      ],
      [[0.037 ** 2, 0], [0, 0.032 ** 2]], // prettier-ignore
    );
    return { mean: belief.mean, sd: belief.covariance.map((row, i) => Math.sqrt(row[i]!)) };
  };
  const near = (list: readonly number[], expected: readonly number[]): void =>
    list.forEach((value, i) => expect(Math.abs(value - expected[i]!)).toBeLessThan(1e-4));
  it('L11: long after a change the filters, probably', () => {
    const { mean, sd } = told(0.15);
    near(mean, [-0.00651, -0.00249, 0.08507]);
    near(sd, [0.0443, 0.0293, 0.0454]);
  });
  it('L12: the day after a change the membrane', () => {
    const { mean, sd } = told(0.01);
    near(mean, [-0.06521, -0.02994, 0.00396]);
    near(sd, [0.0306, 0.0252, 0.0098]);
  });
  it('L14: a waste that falls is scale rather than a still restrictor', () => {
    const way = (slope: number, sd: number) =>
      seenBy(
        { mean: [0, slope], covariance: [[0.03 ** 2, 0], [0, sd ** 2]] }, // prettier-ignore
        [0, 0.5, 1].map((years, i) => ({ row: [1, years], residual: [0, -0.05, -0.12][i]! - slope * years })),
        [0, 1, 2].map((i) => [0, 1, 2].map((j) => (i === j ? 0.035 ** 2 : 0))),
      );
    const [still, scaling] = [way(0, 0.02), way(-0.12, 0.08)];
    expect(still.lnEvidence).toBeCloseTo(3.2225, 3);
    expect(scaling.lnEvidence).toBeCloseTo(5.8999, 3);
    const weight = 0.3 * Math.exp(scaling.lnEvidence - still.lnEvidence);
    expect(weight / (weight + 0.7)).toBeCloseTo(0.8618, 3);
    expect(scaling.belief.mean[1]).toBeCloseTo(-0.1183, 3);
    expect(Math.sqrt(scaling.belief.covariance[1]![1]!)).toBeCloseTo(0.0364, 3);
  });
});
