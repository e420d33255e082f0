import type { System } from '../file';
import { mean, normalQuantile, seeded, shiftedPoint, SOBOL_DIMENSIONS, sobolPoints } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';

/** How sure a comparison is: the same uncertain inputs for every option, by shifted low-discrepancy points (science of options, 9). */

/** Something that is not known exactly, about what was entered. */
export interface UncertainInput {
  readonly value: number;
  /** Standard deviation: of its logarithm, or its own. */
  readonly sd: number;
  readonly shape: 'lognormal' | 'normal';
}

/** Doubts of what costs rest on, as a share each; those that matter most first. */
export interface Doubts {
  readonly use: number;
  readonly resinCapacity: number;
  readonly strength: number;
  readonly co2: number;
  readonly prices: number;
  readonly ageing: number;
}
/** Our defaults. */
export const USUAL_DOUBTS: Doubts = { use: 0.2, resinCapacity: 0.15, strength: 0.1, co2: 0.4, prices: 0.1, ageing: 0.3 };
/** Doubt of a tap's strength: one that nobody measured is less well known. */
export const strengthDoubt = ({ assumed }: System['source']): number => (assumed.length > 0 ? 2 : 1) * USUAL_DOUBTS.strength;

/** Points and how often they are shifted anew. */
export interface Sampling {
  readonly seed: number;
  readonly points: number;
  readonly replicates: number;
}
export const USUAL_SAMPLING: Sampling = { seed: 1, points: 256, replicates: 8 };
const FEWEST = 16;
const MOST = 65_536;

/** Standard normal draws, replicates × points × dimensions; an error where the number of points is no power of two. */
export function normalDraws({ seed, points, replicates }: Sampling, dimensions: number): Outcome<Float64Array> {
  if (!(Number.isInteger(Math.log2(points)) && points >= FEWEST && points <= MOST))
    return fail(
      'points',
      points,
      `a power of two from ${FEWEST} to ${MOST}`,
      `There are ${points} points: use a power of two from ${FEWEST} to ${MOST}.`,
    );
  const chance = seeded(seed);
  const whole = (): number => Math.floor(chance.next() * 2 ** 32);
  const own = Math.min(dimensions, SOBOL_DIMENSIONS);
  const base = sobolPoints(points, own);
  const draws = new Float64Array(replicates * points * dimensions);
  for (let r = 0; r < replicates; r++) {
    const shifts = Array.from({ length: own }, whole);
    for (let i = 0; i < points; i++)
      for (let d = 0; d < dimensions; d++)
        // More inputs than the sequence has dimensions: those that matter least come from the generator.
        draws[(r * points + i) * dimensions + d] = normalQuantile(d < own ? shiftedPoint(base[i * own + d]!, shifts[d]!) : chance.next());
  }
  return ok(draws);
}

/** Inputs as they may truly be, for each draw. */
export function sampleInputs(inputs: readonly UncertainInput[], sampling: Sampling): Outcome<Float64Array[]> {
  for (const { sd } of inputs)
    if (!(sd >= 0 && sd <= 1e6)) return fail('sd', sd, '0 or more', `A standard deviation is ${sd}; accepted is 0 or more.`);
  const draws = normalDraws(sampling, inputs.length);
  if (!draws.ok) return draws;
  const count = sampling.points * sampling.replicates;
  return ok(
    Array.from({ length: count }, (_, i) =>
      Float64Array.from(inputs, ({ value, sd, shape }, d) => {
        const z = draws.value[i * inputs.length + d]!;
        return shape === 'normal' ? value + sd * z : value * Math.exp(sd * z);
      }),
    ),
  );
}

/** A quantile by linear interpolation, type 7 of Hyndman and Fan 1996 (recalled); values in rising order. */
export function quantileOf(sorted: ArrayLike<number>, p: number): number {
  const h = (sorted.length - 1) * p;
  const low = Math.floor(h);
  const high = Math.min(sorted.length - 1, low + 1);
  return sorted[low]! + (h - low) * (sorted[high]! - sorted[low]!);
}

/** Mean with its own error, and the band that holds eight in ten. */
export interface Spread {
  readonly mean: number;
  readonly standardError: number;
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
}
/** What values of replicates come to: the error is that between replicates. */
export function spreadOf(values: Float64Array, replicates: number): Spread {
  const points = values.length / replicates;
  const means = Array.from({ length: replicates }, (_, r) => {
    let sum = 0;
    for (let i = 0; i < points; i++) sum += values[r * points + i]!;
    return sum / points;
  });
  const middle = mean(means);
  const variance = means.reduce((sum, one) => sum + (one - middle) ** 2, 0) / Math.max(1, replicates - 1);
  const sorted = Float64Array.from(values).sort();
  return {
    mean: middle,
    standardError: Math.sqrt(variance / replicates),
    p10: quantileOf(sorted, 0.1),
    p50: quantileOf(sorted, 0.5),
    p90: quantileOf(sorted, 0.9),
  };
}

/** Share of draws in which one costs less than another, ties half. */
export function beats(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! < b[i]! ? 1 : a[i] === b[i] ? 0.5 : 0;
  return sum / a.length;
}

/** How sure that is, in a word. */
export const surelyWord = (share: number): 'clearly' | 'probably' | 'even' =>
  share >= 0.9 ? 'clearly' : share >= 0.7 ? 'probably' : 'even';
