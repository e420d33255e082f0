import { solveLinear } from '../numeric';

/** A linear condition on the amounts: Σ coefficients·e = right. */
export interface LinearRow {
  readonly coefficients: readonly number[];
  readonly right: number;
}

/**
 * Minimises Σ((e − r)/(r + 0.02))² over e ≥ its floor under linear rows and, if given, a conductivity that
 * is linearised anew each round. Values not free stay as they are.
 *
 * @param floor least of each amount, meq/L; 0 where nothing is said
 * @returns e in meq/L, or null when no such e exists
 */
export function sequentialLeastSquares(
  start: readonly number[],
  reference: readonly number[],
  free: readonly boolean[],
  linear: readonly LinearRow[],
  conductivity: { target: number; of: (e: readonly number[]) => number } | null,
  floor: readonly number[] = reference.map(() => 0),
): number[] | null {
  const scale = reference.map((r) => (r + 0.02) ** 2);
  let e = [...start];
  let gradient: readonly number[] = [];
  let change = Infinity;
  for (let round = 0; round < 40; round++) {
    const rows = linear.map((row) => ({ ...row }));
    if (conductivity) {
      const base = conductivity.of(e);
      // The slope hardly changes over a hundredth of a meq/L: the last rounds only pull the conductivity in.
      if (change > 1e-2) gradient = conductivityGradient(e, free, conductivity.of);
      const right = conductivity.target - base + gradient.reduce((sum, g, i) => sum + g * e[i]!, 0);
      // Scaled to the size of the other rows, so that the small system stays well conditioned.
      rows.push({ coefficients: gradient.map((g) => g / 100), right: right / 100 });
    }
    const next = boundedStep(e, reference, scale, free, rows, floor);
    if (!next || next.some((value) => !Number.isFinite(value))) return null;
    change = Math.max(...next.map((value, i) => Math.abs(value - e[i]!)));
    e = next;
    if (change < 1e-9) return e;
  }
  return null;
}

/** Change of conductivity with each free amount, µS/cm per meq/L, by central differences. */
export function conductivityGradient(e: readonly number[], free: readonly boolean[], of: (e: readonly number[]) => number): number[] {
  const probe = [...e];
  return e.map((value, i) => {
    if (!free[i]) return 0;
    const step = Math.min(1e-4, value > 1e-4 ? 1e-4 : value / 2);
    probe[i] = value + 1e-4;
    const up = of(probe);
    probe[i] = value - step;
    const down = of(probe);
    probe[i] = value;
    return (up - down) / (1e-4 + step);
  });
}

/** One quadratic step: the exact minimum under the rows, pinning the value furthest below its floor there until none is. */
function boundedStep(
  e: readonly number[],
  reference: readonly number[],
  scale: readonly number[],
  free: readonly boolean[],
  rows: readonly LinearRow[],
  floor: readonly number[],
): number[] | null {
  const pinned = new Set<number>();
  for (let attempt = 0; attempt <= e.length; attempt++) {
    const moving = (i: number): boolean => free[i] === true && !pinned.has(i);
    const base = e.map((value, i) => (moving(i) ? reference[i]! : pinned.has(i) ? floor[i]! : value));
    const active = rows.filter((row) => row.coefficients.some((c, i) => c !== 0 && moving(i)));
    const matrix = active.map((a) =>
      active.map((b) => a.coefficients.reduce((sum, c, i) => sum + (moving(i) ? c * scale[i]! * b.coefficients[i]! : 0), 0)),
    );
    const right = active.map((row) => row.right - row.coefficients.reduce((sum, c, i) => sum + c * base[i]!, 0));
    const lambda = active.length === 0 ? [] : solveLinear(matrix, right);
    if (!lambda) return null;
    const next = base.map((value, i) =>
      moving(i) ? value + scale[i]! * active.reduce((sum, row, k) => sum + row.coefficients[i]! * lambda[k]!, 0) : value,
    );
    const unmet = rows.some(
      (row) => Math.abs(row.coefficients.reduce((sum, c, i) => sum + c * next[i]!, 0) - row.right) > 1e-6 * (1 + Math.abs(row.right)),
    );
    let worst = -1;
    next.forEach((value, i) => {
      const below = (k: number): number => (next[k]! - floor[k]!) / Math.sqrt(scale[k]!);
      if (moving(i) && value < floor[i]! - 1e-12 && (worst < 0 || below(i) < below(worst))) worst = i;
    });
    if (worst < 0) return unmet ? null : next.map((value, i) => (moving(i) ? Math.max(floor[i]!, value) : value));
    pinned.add(worst);
  }
  return null;
}
