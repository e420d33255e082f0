import { mean } from './middle';

/**
 * Solves a small dense linear system by elimination with row pivoting.
 *
 * @param matrix square, row by row; not changed
 * @returns the solution, or null when the rows are dependent
 */
export function solveLinear(matrix: readonly (readonly number[])[], right: readonly number[]): number[] | null {
  const n = right.length;
  const rows = matrix.map((row, i) => [...row, right[i] as number]);
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let i = column + 1; i < n; i++) {
      if (Math.abs(rows[i]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = i;
    }
    const pivotRow = rows[pivot]!;
    if (Math.abs(pivotRow[column]!) < 1e-300) return null;
    rows[pivot] = rows[column]!;
    rows[column] = pivotRow;
    for (let i = column + 1; i < n; i++) {
      const row = rows[i]!;
      const factor = row[column]! / pivotRow[column]!;
      for (let j = column; j <= n; j++) row[j] = row[j]! - factor * pivotRow[j]!;
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let sum = rows[i]![n]!;
    for (let j = i + 1; j < n; j++) sum -= rows[i]![j]! * x[j]!;
    x[i] = sum / rows[i]![i]!;
  }
  return x;
}

/** Slope of the least-squares line through points. */
export function linearSlope(x: readonly number[], y: readonly number[]): number {
  const [mx, my] = [mean(x), mean(y)];
  // About the means, so that the sums stay small.
  const xy = x.reduce((sum, value, i) => sum + (value - mx) * (y[i]! - my), 0);
  const xx = x.reduce((sum, value) => sum + (value - mx) ** 2, 0);
  return xy / xx;
}

/** The inverse of a small square matrix; null when its rows are dependent. */
export function inverse(matrix: readonly (readonly number[])[]): number[][] | null {
  const columns = matrix.map((_, j) =>
    solveLinear(
      matrix,
      matrix.map((__, i) => (i === j ? 1 : 0)),
    ),
  );
  if (columns.some((column) => column === null)) return null;
  return matrix.map((_, i) => columns.map((column) => column![i]!));
}
