import { inverse } from './linear';

/** Beliefs that move with time and are sharpened by what is seen (Kalman 1960, recalled): small dense matrices, plain data. */

/** A normal belief about several quantities. */
export interface Belief {
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

type Matrix = readonly (readonly number[])[];

const times = (a: Matrix, b: Matrix): number[][] =>
  a.map((row) => {
    const out = new Array<number>(b[0]!.length).fill(0);
    row.forEach((value, k) => {
      if (value === 0) return;
      const other = b[k]!;
      for (let j = 0; j < out.length; j++) out[j]! += value * other[j]!;
    });
    return out;
  });
const transposed = (a: Matrix): number[][] => a[0]!.map((_, j) => a.map((row) => row[j]!));

/**
 * A belief after time has passed.
 *
 * @param step how each quantity follows from all of them before
 * @param noise variance each gains on the way
 */
export function moved({ mean, covariance }: Belief, step: Matrix, noise: readonly number[]): Belief {
  const spread = times(times(step, covariance), transposed(step));
  return {
    mean: step.map((row) => row.reduce((sum, value, j) => sum + value * mean[j]!, 0)),
    covariance: spread.map((row, i) => row.map((value, j) => (i === j ? value + noise[i]! : value))),
  };
}

/** What was seen, against what was expected of it. */
export interface Seen {
  /** How it goes with each quantity. */
  readonly row: readonly number[];
  /** Seen less expected. */
  readonly residual: number;
}

export interface Updated {
  readonly belief: Belief;
  /** Standard deviations by which each was off, before it was taken. */
  readonly z: readonly number[];
  /** ln of how likely all of it was. */
  readonly lnEvidence: number;
}

/**
 * A belief after several things were seen at once; as it was where their errors leave nothing to be told.
 *
 * @param errors covariance of the errors of what was seen
 */
export function seenBy({ mean, covariance }: Belief, seen: readonly Seen[], errors: Matrix): Updated {
  if (seen.length === 0) return { belief: { mean, covariance }, z: [], lnEvidence: 0 };
  const rows = seen.map(({ row }) => row);
  const across = times(rows, covariance);
  const spread = times(across, transposed(rows)).map((row, i) => row.map((value, j) => value + errors[i]![j]!));
  const back = inverse(spread);
  const residuals = seen.map(({ residual }) => residual);
  const z = residuals.map((residual, i) => residual / Math.sqrt(spread[i]![i]!));
  if (!back) return { belief: { mean, covariance }, z, lnEvidence: 0 };
  const gain = times(transposed(across), back);
  const changed = times(gain, across);
  const distance = residuals.reduce(
    (sum, residual, i) => sum + residual * back[i]!.reduce((inner, value, j) => inner + value * residuals[j]!, 0),
    0,
  );
  return {
    belief: {
      mean: mean.map((value, i) => value + gain[i]!.reduce((sum, weight, k) => sum + weight * residuals[k]!, 0)),
      covariance: covariance.map((row, i) => row.map((value, j) => value - (changed[i]![j]! + changed[j]![i]!) / 2)),
    },
    z,
    lnEvidence: -0.5 * (distance + lnDeterminant(spread) + seen.length * Math.log(2 * Math.PI)),
  };
}

/** ln of the determinant of a positive matrix, by Cholesky's factors. */
function lnDeterminant(matrix: Matrix): number {
  const lower: number[][] = [];
  let ln = 0;
  for (let i = 0; i < matrix.length; i++) {
    const row: number[] = [];
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= row[k]! * (i === j ? row[k]! : lower[j]![k]!);
      row.push(i === j ? Math.sqrt(Math.max(1e-300, sum)) : sum / lower[j]![j]!);
    }
    ln += 2 * Math.log(row[i]!);
    lower.push(row);
  }
  return ln;
}

/**
 * A belief in the light of what came later (Rauch, Tung and Striebel 1965, recalled).
 *
 * @param here after what was seen then
 * @param before the next one before its own was seen, and `later` the next one in the light of all
 * @param step how the next followed from this one
 */
export function inLightOf(here: Belief, step: Matrix, before: Belief, later: Belief): Belief {
  const back = inverse(before.covariance.map((row, i) => row.map((value, j) => (i === j ? value + 1e-12 : value))));
  if (!back) return here;
  const gain = times(times(here.covariance, transposed(step)), back);
  const shift = later.mean.map((value, i) => value - before.mean[i]!);
  const spread = later.covariance.map((row, i) => row.map((value, j) => value - before.covariance[i]![j]!));
  const change = times(times(gain, spread), transposed(gain));
  return {
    mean: here.mean.map((value, i) => value + gain[i]!.reduce((sum, weight, k) => sum + weight * shift[k]!, 0)),
    covariance: here.covariance.map((row, i) => row.map((value, j) => value + change[i]![j]!)),
  };
}

/** A difference or any sum of quantities, with its doubt. */
export function combined(
  { mean, covariance }: Belief,
  weights: ReadonlyMap<number, number>,
): { readonly value: number; readonly sd: number } {
  let [value, variance] = [0, 0];
  for (const [i, a] of weights) {
    value += a * mean[i]!;
    for (const [j, b] of weights) variance += a * b * covariance[i]![j]!;
  }
  return { value, sd: Math.sqrt(Math.max(0, variance)) };
}
