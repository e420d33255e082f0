/** Points and weights for the mean of a function of a standard normal variable. */
export interface NormalPoints {
  readonly z: readonly number[];
  readonly weight: readonly number[];
}

const known = new Map<number, NormalPoints>();

/**
 * Gauss and Hermite's rule for the standard normal: exact for polynomials up to degree 2n − 1. Roots of the Hermite
 * polynomial by Newton's method from the guesses of Stroud and Secrest (Press et al., Numerical Recipes, §4.5, recalled).
 *
 * @param count of points, 1 to 20
 */
export function normalPoints(count: number): NormalPoints {
  const hit = known.get(count);
  if (hit) return hit;
  const z = new Array<number>(count).fill(0);
  const weight = new Array<number>(count).fill(0);
  const roots: number[] = [];
  for (let i = 0; i < Math.ceil(count / 2); i++) {
    let x = guess(count, i, roots);
    let slope = 1;
    for (let round = 0; round < 60; round++) {
      let now = Math.PI ** -0.25;
      let before = 0;
      for (let j = 0; j < count; j++) {
        const last = before;
        before = now;
        now = x * Math.sqrt(2 / (j + 1)) * before - Math.sqrt(j / (j + 1)) * last;
      }
      slope = Math.sqrt(2 * count) * before;
      const step = now / slope;
      x -= step;
      if (Math.abs(step) < 1e-15) break;
    }
    roots.push(x);
    // From the weight exp(−x²) to the standard normal.
    z[i] = Math.SQRT2 * x;
    z[count - 1 - i] = -Math.SQRT2 * x;
    weight[i] = weight[count - 1 - i] = 2 / (slope * slope) / Math.sqrt(Math.PI);
  }
  if (count % 2 === 1) z[(count - 1) / 2] = 0;
  const points = { z, weight };
  known.set(count, points);
  return points;
}

function guess(count: number, i: number, roots: readonly number[]): number {
  if (i === 0) return Math.sqrt(2 * count + 1) - 1.85575 * (2 * count + 1) ** -0.16667;
  if (i === 1) return roots[0]! - (1.14 * count ** 0.426) / roots[0]!;
  if (i === 2) return 1.86 * roots[1]! - 0.86 * roots[0]!;
  if (i === 3) return 1.91 * roots[2]! - 0.91 * roots[1]!;
  return 2 * roots[i - 1]! - roots[i - 2]!;
}
