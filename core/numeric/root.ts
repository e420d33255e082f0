/** Root finding on a bracket. Every unknown of the core is found through here. */

export interface Root {
  readonly x: number;
  readonly iterations: number;
  readonly residual: number;
}

/**
 * Brent's method: bisection's certainty with the speed of interpolation.
 *
 * @param f continuous function whose signs differ at `low` and `high`
 * @param tolerance absolute tolerance on x
 * @returns the root, or null when both ends have the same sign (the caller knows what that means)
 * Source: R. P. Brent, Algorithms for Minimization without Derivatives (1973), chapter 4.
 */
export function findRoot(
  f: (x: number) => number,
  low: number,
  high: number,
  tolerance = 1e-12,
  fLow = f(low),
  fHigh = f(high),
): Root | null {
  let a = low;
  let b = high;
  let fa = fLow;
  let fb = fHigh;
  if (fa === 0) return { x: a, iterations: 0, residual: 0 };
  if (fb === 0) return { x: b, iterations: 0, residual: 0 };
  if (!(fa * fb < 0)) return null;
  let c = a;
  let fc = fa;
  let step = b - a;
  let previousStep = step;
  for (let iterations = 1; iterations <= 200; iterations++) {
    if (Math.abs(fc) < Math.abs(fb)) {
      a = b;
      b = c;
      c = a;
      fa = fb;
      fb = fc;
      fc = fa;
    }
    const near = 2 * Number.EPSILON * Math.abs(b) + tolerance / 2;
    const half = (c - b) / 2;
    if (Math.abs(half) <= near || fb === 0) return { x: b, iterations, residual: fb };
    if (Math.abs(previousStep) >= near && Math.abs(fa) > Math.abs(fb)) {
      const s = fb / fa;
      let p: number;
      let q: number;
      if (a === c) {
        p = 2 * half * s;
        q = 1 - s;
      } else {
        const r = fb / fc;
        const t = fa / fc;
        p = s * (2 * half * t * (t - r) - (b - a) * (r - 1));
        q = (t - 1) * (r - 1) * (s - 1);
      }
      if (p > 0) q = -q;
      p = Math.abs(p);
      if (2 * p < Math.min(3 * half * q - Math.abs(near * q), Math.abs(previousStep * q))) {
        previousStep = step;
        step = p / q;
      } else {
        step = half;
        previousStep = half;
      }
    } else {
      step = half;
      previousStep = half;
    }
    a = b;
    fa = fb;
    b += Math.abs(step) > near ? step : half > 0 ? near : -near;
    fb = f(b);
    if (fb > 0 === fc > 0) {
      c = a;
      fc = fa;
      step = b - a;
      previousStep = step;
    }
  }
  return { x: b, iterations: 200, residual: fb };
}

/**
 * Secant steps from a guess and a rough slope: for smooth functions that are dear to evaluate.
 *
 * @param slope rough derivative of f near the root; sets only the first step
 * @returns the root, or null when the steps leave [low, high] or do not settle; then bracket it
 */
export function findRootNear(
  f: (x: number) => number,
  guess: number,
  slope: number,
  low: number,
  high: number,
  tolerance: number,
): Root | null {
  let x = guess;
  let fx = f(x);
  let step = fx / slope;
  for (let iterations = 1; iterations <= 12; iterations++) {
    // What the next step would still move: the error left in x.
    if (Math.abs(step) <= tolerance) return { x, iterations, residual: fx };
    const next = x - step;
    if (!(next > low && next < high)) return null;
    const fNext = f(next);
    step = fNext === 0 ? 0 : (fNext * (next - x)) / (fNext - fx);
    x = next;
    fx = fNext;
  }
  return null;
}
