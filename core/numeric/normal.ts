/** The normal distribution, for beliefs about capacity. */

/** Standard deviations to either side of the middle that hold four in five: bands of 80 %, from one in ten to nine in ten. */
export const FOUR_IN_FIVE_SD = 1.2816;

/** Density of the standard normal distribution. */
export function normalDensity(z: number): number {
  return Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);
}

/**
 * Probability that a standard normal variable is at most z.
 * Relative error below 1.2e-7 over the whole line (Chebyshev fit of erfc; Press et al., Numerical
 * Recipes, §6.2, recalled).
 */
export function normalCumulative(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + x / 2);
  const series =
    -1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t * (-0.18628806 + t * (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  const tail = (t * Math.exp(-x * x + series)) / 2;
  return z >= 0 ? 1 - tail : tail;
}

/**
 * The z below which a standard normal variable lies with probability p.
 * Rational approximation of Acklam, sharpened by one Halley step. Arguments are kept inside
 * [1e-12, 1 - 1e-12], because a quantile at 0 or 1 is infinite.
 */
export function normalQuantile(p: number): number {
  const q = Math.min(Math.max(p, 1e-12), 1 - 1e-12);
  const z = acklam(q);
  const error = normalCumulative(z) - q;
  const u = error / normalDensity(z);
  // In the far tails the cumulative's own error outweighs what the step would gain.
  return Math.abs(z) > 4 ? z : z - u / (1 + (z * u) / 2);
}

const A = [-39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716, 2.506628277459239] as const;
const B = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572] as const;
const C = [
  -0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968, 2.938163982698783,
] as const;
const D = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416] as const;

const horner = (coefficients: readonly number[], x: number): number => coefficients.reduce((sum, c) => sum * x + c, 0);

function acklam(p: number): number {
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p));
    return horner(C, q) / (horner(D, q) * q + 1);
  }
  if (p > 1 - 0.02425) return -acklam(1 - p);
  const q = p - 0.5;
  const r = q * q;
  return (horner(A, r) * q) / (horner(B, r) * r + 1);
}
