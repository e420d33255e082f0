import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normalCumulative, normalQuantile, seeded, shiftedPoint, sobolPoints } from '../numeric';
import { dominates, inSteps, kneeOfTwo, nearestToIdeal, paretoFront, paretoRanks } from './front';
import {
  breakEvenVolume,
  capitalRecovery,
  equivalentAnnualCost,
  presentValue,
  presentValueEven,
  presentValueRenewals,
  renewalsWithin,
} from './money';
import { turningsOf } from './turning';
import { beats, quantileOf, sampleInputs, spreadOf, surelyWord, type Sampling } from '../year';

/** Check values O1 to O9 and O29 to O37 of the science of options: computed independently or analytic, as named there. */

const close = (value: number, expected: number, relative: number): void =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(relative * Math.abs(expected));

describe('money', () => {
  it('annuities (O1, O2)', () => {
    close(capitalRecovery(0, 6), 0.1666667, 1e-6);
    close(capitalRecovery(0.05, 6), 0.1970175, 1e-6);
    close(capitalRecovery(0.08, 6), 0.2163154, 1e-6);
    close(presentValueEven(100, 6, 0.05), 520.155, 1e-6);
    close(presentValue(60, 2.5, 0.05), 53.1102, 1e-6);
    expect(presentValueEven(100, 6, 0)).toBe(600);
  });
  it('what is bought again within a horizon, never at its end (O3)', () => {
    expect(renewalsWithin(2, 6)).toBe(2);
    expect(renewalsWithin(7, 6)).toBe(0);
    expect(presentValueRenewals(60, 2, 6, 0)).toBe(120);
    close(presentValueRenewals(60, 2, 6, 0.05), 103.784, 1e-5);
  });
  it('a year’s share of it all (O4)', () => {
    const npv = 420 + presentValueEven(150, 6, 0.05) + presentValueRenewals(60, 2, 6, 0.05);
    close(npv, 1304.017, 1e-6);
    close(equivalentAnnualCost(npv, 6, 0.05), 256.914, 2e-6);
    expect(equivalentAnnualCost(420 + 150 * 6 + 120, 6, 0)).toBeCloseTo(240, 9);
  });
  it('litres from which the dearer to buy wins (O5)', () => {
    const [alone, unit] = [
      { capital: 140, fixedPerYear: 20, perLitre: 0.0402 },
      { capital: 1354, fixedPerYear: 160, perLitre: 0.0075 },
    ];
    close(breakEvenVolume(alone, unit, 6, 0) as number, 10_468.9, 1e-5);
    close(breakEvenVolume(alone, unit, 6, 0.05) as number, 11_595.7, 1e-5);
    expect(breakEvenVolume(alone, { ...unit, perLitre: 0.05 }, 6, 0)).toBe('cheapToBuy');
    expect(breakEvenVolume(alone, { capital: 100, fixedPerYear: 10, perLitre: 0.01 }, 6, 0)).toBe('cheapToRun');
  });
});

const O6 = [
  [10, 90],
  [12, 70],
  [15, 60],
  [15, 60],
  [18, 45],
  [20, 50],
  [25, 30],
  [30, 28],
  [40, 20],
  [45, 20],
  [60, 12],
  [90, 10],
] as const;
const O9 = [
  [10, 9, 3],
  [12, 7, 4],
  [12, 7, 3],
  [15, 5, 5],
  [15, 6, 1],
  [18, 5, 2],
  [20, 3, 6],
  [25, 3, 4],
  [30, 2, 6],
  [30, 4, 1],
  [40, 1, 7],
  [14, 8, 2],
] as const;
/** Places as the chapter counts them, from 1. */
const named = (places: readonly number[]): number[] => places.map((place) => place + 1);

describe('the front', () => {
  it('of two things (O6), in steps (O8)', () => {
    expect(named(paretoFront(O6))).toEqual([1, 2, 3, 4, 5, 7, 8, 9, 11, 12]);
    const ranks = paretoRanks(O6);
    expect([ranks[5], ranks[9]]).toEqual([2, 2]);
    expect(named(paretoFront(O6.map((point) => inSteps(point, [5, 10]))))).toEqual([2, 3, 4, 5, 6, 7, 9, 11]);
  });
  it('its knee, and what is nearest to ideal (O7)', () => {
    const front = paretoFront(O6);
    const points = front.map((i) => O6[i]!);
    const knee = kneeOfTwo(points)!;
    expect(front[knee.point]! + 1).toBe(7);
    expect(knee.distance).toBeCloseTo(0.39775, 4);
    const ideal = nearestToIdeal(points)!;
    expect(front[ideal.point]! + 1).toBe(7);
    expect(ideal.distance).toBeCloseTo(0.22097, 4);
    expect(
      kneeOfTwo([
        [1, 3],
        [2, 2],
        [3, 1],
      ]),
    ).toBeNull();
  });
  it('of three things (O9)', () => {
    expect(named(paretoFront(O9))).toEqual([1, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
    const front = paretoFront(O9);
    const ideal = nearestToIdeal(front.map((i) => O9[i]!))!;
    expect(front[ideal.point]! + 1).toBe(6);
    expect(ideal.distance).toBeCloseTo(0.34102, 4);
  });
  it('is what nothing beats, by brute force, whatever the order (O55)', () => {
    for (const things of [2, 3, 5])
      fc.assert(
        fc.property(
          fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: things, maxLength: things }), { maxLength: 300 }),
          (points) => {
            const brute = points.flatMap((point, i) => (points.some((other) => dominates(other, point)) ? [] : [i]));
            expect(paretoFront(points)).toEqual(brute);
            const turned = points.toReversed();
            expect(
              paretoFront(turned)
                .map((i) => points.length - 1 - i)
                .sort((a, b) => a - b),
            ).toEqual(brute);
          },
        ),
        { numRuns: 40 },
      );
  });
});

describe('uncertainty', () => {
  it('generator (O29)', () => {
    const whole = (seed: number, count: number): number[] => {
      const chance = seeded(seed);
      return Array.from({ length: count }, () => Math.floor(chance.next() * 2 ** 32));
    };
    expect(whole(1, 3)).toEqual([2693262067, 11749833, 2265367787]);
    expect(whole(2026, 3)).toEqual([1955961175, 1324980858, 2839649622]);
  });
  it('Sobol’ points: Joe and Kuo 2008 (O30), all thirteen dimensions (O31), shifted (O32)', () => {
    const four = sobolPoints(6, 4);
    const point = (i: number): number[] => Array.from(four.subarray(4 * i, 4 * i + 4), (x) => x / 2 ** 32);
    expect([1, 2, 3, 4, 5].map(point)).toEqual([
      [0.5, 0.5, 0.5, 0.5],
      [0.75, 0.25, 0.25, 0.25],
      [0.25, 0.75, 0.75, 0.75],
      [0.375, 0.375, 0.625, 0.875],
      [0.875, 0.875, 0.125, 0.375],
    ]);
    const all = sobolPoints(101, 13);
    expect(Array.from(all.subarray(1300, 1313), (x) => x / 2 ** 32)).toEqual([
      0.4140625, 0.2578125, 0.7734375, 0.7265625, 0.8828125, 0.7421875, 0.0234375, 0.4765625, 0.6328125, 0.6953125, 0.4609375, 0.6796875,
      0.4765625,
    ]);
    const chance = seeded(1);
    const shifts = [0, 1, 2].map(() => Math.floor(chance.next() * 2 ** 32));
    [0.62707394, 0.00273572, 0.52744704].forEach((expected, d) => expect(shiftedPoint(0, shifts[d]!)).toBeCloseTo(expected, 8));
  });
  it('normal quantile (O33)', () => {
    expect(normalQuantile(0.1)).toBeCloseTo(-1.28155157, 6);
    expect(normalQuantile(0.975)).toBeCloseTo(1.95996398, 6);
    expect(normalQuantile(2 ** -33)).toBeCloseTo(-6.33796, 4);
  });
  const SAMPLING: Sampling = { seed: 2026, points: 256, replicates: 8 };
  const drawn = (inputs: number, sd = 1, shape: 'normal' | 'lognormal' = 'normal'): Float64Array[] => {
    const found = sampleInputs(
      Array.from({ length: inputs }, () => ({ value: shape === 'normal' ? 0 : 1, sd, shape })),
      SAMPLING,
    );
    if (!found.ok) throw new Error(found.error.message);
    return found.value;
  };
  const spread = (values: readonly number[]) => spreadOf(Float64Array.from(values), 8);
  const variance = (values: readonly number[]): number => {
    const middle = values.reduce((sum, one) => sum + one, 0) / values.length;
    return values.reduce((sum, one) => sum + (one - middle) ** 2, 0) / values.length;
  };
  it('a weighted sum of normals (O34), a product of lognormals (O35)', () => {
    const sums = drawn(6).map((z) => z.reduce((sum, one, i) => sum + (i + 1) * one, 0));
    expect(Math.abs(spread(sums).mean)).toBeLessThan(0.1);
    close(variance(sums), 91, 0.02);
    const products = drawn(5).map((z) => Math.exp(z.reduce((sum, one, i) => sum + [0.1, 0.15, 0.2, 0.25, 0.3][i]! * one, 0)));
    const found = spread(products);
    close(found.mean, 1.11907, 0.005);
    close(variance(products), 0.31599, 0.03);
    close(found.p10, 0.5445, 0.015);
    close(found.p50, 1, 0.015);
    close(found.p90, 1.8366, 0.015);
    expect(found.standardError).toBeLessThan(0.004);
  });
  it('two options on the same draws (O36)', () => {
    const z = drawn(3);
    const a = Float64Array.from(z, ([one, two]) => 100 + 10 * one! + 3 * two!);
    const b = Float64Array.from(z, ([one, , three]) => 104 + 10 * one! + 4 * three!);
    expect(Math.abs(beats(a, b) - normalCumulative(0.8))).toBeLessThan(0.01);
    close(Math.sqrt(variance(Array.from(a, (one, i) => one - b[i]!))), 5, 0.01);
    expect(beats(a, a)).toBe(0.5);
    expect([0.95, 0.8, 0.6].map(surelyWord)).toEqual(['clearly', 'probably', 'even']);
  });
  it('days to a change by capacity and load (O37)', () => {
    const days = drawn(2).map(([capacity, load]) => 60 * Math.exp(0.25 * capacity! - 0.2 * load!));
    const sd = Math.hypot(0.25, 0.2);
    close(60 * Math.exp(sd * normalQuantile(0.1)), 39.81, 1e-3);
    close(spread(days).p10, 39.81, 0.02);
    close(spread(days).p90, 90.44, 0.02);
  });
  it('quantiles of type 7, and bad input named', () => {
    expect(quantileOf([1, 2, 3, 4], 0.5)).toBe(2.5);
    expect(quantileOf([1, 2, 3, 4], 0)).toBe(1);
    expect(sampleInputs([{ value: 1, sd: 0.1, shape: 'normal' }], { ...SAMPLING, points: 100 })).toMatchObject({
      ok: false,
      error: { field: 'points', value: 100 },
    });
    expect(sampleInputs([{ value: 1, sd: -1, shape: 'normal' }], SAMPLING)).toMatchObject({ ok: false, error: { field: 'sd' } });
  });
});

describe('where an answer turns', () => {
  const range = { low: 1, high: 100, scale: 'geometric' } as const;
  it('the nearest to either side, to a millionth', () => {
    const found = turningsOf((x) => Math.log(x / 30), 10, range);
    expect(found.below).toBe('none');
    expect(found.above).toMatchObject({ jump: false });
    close((found.above as { at: number }).at, 30, 2e-6);
  });
  it('a rule that begins to prune is a jump, and infinite where nothing is left', () => {
    expect(turningsOf((x) => (x > 4 ? -3 : 5), 2, range).above).toMatchObject({ jump: true });
    expect(turningsOf((x) => (x < 4 ? -Infinity : 5), 10, range).below).toMatchObject({ jump: true });
  });
  it('none where one side wins throughout', () => {
    expect(turningsOf(() => 1, 10, range)).toEqual({ below: 'none', above: 'none' });
  });
});
