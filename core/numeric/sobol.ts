/** Low-discrepancy points: Sobol' sequence with the direction numbers of Joe and Kuo 2008 (recalled), thirteen dimensions. */

/** Degree, polynomial and first numbers of each dimension from the second on. */
const DIRECTIONS: readonly (readonly [s: number, a: number, m: readonly number[]])[] = [
  [1, 0, [1]],
  [2, 1, [1, 3]],
  [3, 1, [1, 3, 1]],
  [3, 2, [1, 1, 1]],
  [4, 1, [1, 1, 3, 3]],
  [4, 4, [1, 3, 5, 13]],
  [5, 2, [1, 1, 5, 5, 17]],
  [5, 4, [1, 1, 5, 5, 5]],
  [5, 7, [1, 1, 7, 11, 19]],
  [5, 11, [1, 1, 5, 1, 1]],
  [5, 13, [1, 1, 1, 3, 11]],
  [5, 14, [1, 3, 5, 5, 31]],
];
const BITS = 32;
/** Dimensions there are numbers for. */
export const SOBOL_DIMENSIONS = DIRECTIONS.length + 1;

function numbersOf(dimension: number): Uint32Array {
  const v = new Uint32Array(BITS);
  if (dimension === 0) {
    for (let k = 0; k < BITS; k++) v[k] = 2 ** (BITS - 1 - k);
    return v;
  }
  const [s, a, m] = DIRECTIONS[dimension - 1]!;
  for (let k = 0; k < BITS; k++) {
    if (k < s) {
      v[k] = m[k]! * 2 ** (BITS - 1 - k);
      continue;
    }
    let next = v[k - s]! ^ (v[k - s]! >>> s);
    for (let j = 1; j < s; j++) if ((a >> (s - 1 - j)) & 1) next ^= v[k - j]!;
    v[k] = next >>> 0;
  }
  return v;
}

/**
 * The first points of the sequence in the order of the Gray code, as whole numbers of 32 bits.
 *
 * @param count how many, the one at the corner first
 * @param dimensions 1 to 13
 * @returns count × dimensions, row by row
 */
export function sobolPoints(count: number, dimensions: number): Uint32Array {
  const directions = Array.from({ length: dimensions }, (_, d) => numbersOf(d));
  const points = new Uint32Array(count * dimensions);
  for (let i = 1; i < count; i++) {
    const c = 31 - Math.clz32(i & -i);
    for (let d = 0; d < dimensions; d++) points[i * dimensions + d] = points[(i - 1) * dimensions + d]! ^ directions[d]![c]!;
  }
  return points;
}

/** A point moved by a digital shift, strictly between 0 and 1. */
export const shiftedPoint = (point: number, shift: number): number => (((point ^ shift) >>> 0) + 0.5) / 2 ** BITS;
