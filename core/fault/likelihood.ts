/** How likely a set of readings is where any of them may be bad (science of faults, 1.2). */

/** Share of readings that are bad: the wrong jug, the wrong probe, a slipped digit. */
export const BAD_SHARE = 0.04;
const LN_2PI = Math.log(2 * Math.PI);

/** What readings say at one place: how likely they are together, and how much of that leans on each being bad. */
export interface Likelihood {
  /** ln of the density. */
  readonly ln: number;
  /** Probability that each reading is bad, in their order. */
  readonly bad: Float64Array;
  /** The misfit of all of them taken as good, in squared standard deviations. */
  readonly squares: number;
}

/** Inverse of a symmetric positive matrix, row by row, with the ln of its determinant. */
export interface Inverse {
  readonly rows: Float64Array;
  readonly lnDet: number;
}

/**
 * Inverse by Cholesky's root. Asked a thousand times for one answer, so it works in place.
 *
 * @param matrix n × n, row by row; not changed
 */
export function symmetricInverse(matrix: Float64Array, n: number): Inverse {
  const root = Float64Array.from(matrix);
  let lnDet = 0;
  for (let j = 0; j < n; j++) {
    const rowJ = j * n;
    let pivot = root[rowJ + j]!;
    for (let k = 0; k < j; k++) pivot -= root[rowJ + k]! * root[rowJ + k]!;
    // Own errors are never nothing: a pivot this small is rounding.
    const diagonal = Math.sqrt(Math.max(pivot, 1e-30));
    root[rowJ + j] = diagonal;
    lnDet += 2 * Math.log(diagonal);
    for (let i = j + 1; i < n; i++) {
      const rowI = i * n;
      let sum = root[rowI + j]!;
      for (let k = 0; k < j; k++) sum -= root[rowI + k]! * root[rowJ + k]!;
      root[rowI + j] = sum / diagonal;
    }
  }
  // The root's own inverse takes its place, then the product of that with its transpose.
  for (let j = 0; j < n; j++) {
    root[j * n + j] = 1 / root[j * n + j]!;
    for (let i = j + 1; i < n; i++) {
      let sum = 0;
      for (let k = j; k < i; k++) sum -= root[i * n + k]! * root[k * n + j]!;
      root[i * n + j] = sum / root[i * n + i]!;
    }
  }
  const rows = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = 0;
      for (let k = i; k < n; k++) sum += root[k * n + i]! * root[k * n + j]!;
      rows[i * n + j] = sum;
      rows[j * n + i] = sum;
    }
  return { rows, lnDet };
}

/**
 * Likelihood of readings that miss what is expected by `residual`, with none, one or two of them bad: all in closed form
 * from one inverse (Woodbury).
 *
 * @param residual n readings on their scales, less what is expected
 * @param covariance n × n, row by row: shared and own errors together
 * @param badSpread what a bad reading is off by, n
 */
export function robustLikelihood(
  residual: ArrayLike<number>,
  covariance: Float64Array,
  badSpread: ArrayLike<number>,
  badShare = BAD_SHARE,
): Likelihood {
  const n = residual.length;
  const bad = new Float64Array(n);
  if (n === 0) return { ln: 0, bad, squares: 0 };
  const { rows: k, lnDet } = symmetricInverse(covariance, n);
  const v = new Float64Array(n);
  let squares = 0;
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let j = 0; j < n; j++) sum += k[i * n + j]! * residual[j]!;
    v[i] = sum;
    squares += residual[i]! * sum;
  }
  const gaussian = -0.5 * (squares + lnDet + n * LN_2PI);
  if (badShare <= 0) return { ln: gaussian, bad, squares };
  const odds = Math.log(badShare / (1 - badShare));
  const single = new Float64Array(n);
  const pair = new Float64Array(n * n);
  let most = 0;
  for (let i = 0; i < n; i++) {
    const di = badSpread[i]! * badSpread[i]!;
    const kii = k[i * n + i]!;
    const term = odds - 0.5 * Math.log(1 + di * kii) + (0.5 * di * v[i]! * v[i]!) / (1 + di * kii);
    single[i] = term;
    if (term > most) most = term;
    for (let j = 0; j < i; j++) {
      const dj = badSpread[j]! * badSpread[j]!;
      const a = 1 / di + kii;
      const b = 1 / dj + k[j * n + j]!;
      const kij = k[i * n + j]!;
      const det = a * b - kij * kij;
      const both =
        2 * odds - 0.5 * Math.log(det * di * dj) + (0.5 * (b * v[i]! * v[i]! - 2 * kij * v[i]! * v[j]! + a * v[j]! * v[j]!)) / det;
      pair[i * n + j] = both;
      if (both > most) most = both;
    }
  }
  let sum = Math.exp(-most);
  for (let i = 0; i < n; i++) {
    const one = Math.exp(single[i]! - most);
    sum += one;
    bad[i]! += one;
    for (let j = 0; j < i; j++) {
      const both = Math.exp(pair[i * n + j]! - most);
      sum += both;
      bad[i]! += both;
      bad[j]! += both;
    }
  }
  for (let i = 0; i < n; i++) bad[i]! /= sum;
  return { ln: gaussian + n * Math.log(1 - badShare) + most + Math.log(sum), bad, squares };
}
