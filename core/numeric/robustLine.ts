import { posterior, type Estimate } from './posterior';

/** A value with its own standard deviation at a place. */
export interface LinePoint {
  readonly x: number;
  readonly y: number;
  readonly sd: number;
}

/** A straight line, perhaps with steps, through points some of which may be wrong; plain data. */
export interface FittedLine {
  /** Place its level is counted from, and the places at which it steps. */
  readonly first: number;
  readonly steps: readonly number[];
  /** Level at the first place, slope, height of each step, with their covariance. */
  readonly solution: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  /** Scatter of the points beyond their own. */
  readonly scatter: number;
  /** Of each point, in the order given: how much it counts, 1 for one on the line; below 0.2 it is an outlier. */
  readonly weights: readonly number[];
}

const rowAt = ({ first, steps }: Pick<FittedLine, 'first' | 'steps'>, x: number): number[] => [
  1,
  x - first,
  ...steps.map((step) => (x >= step ? 1 : 0)),
];

function along({ solution, covariance }: FittedLine, direction: readonly number[]): Estimate {
  const value = direction.reduce((sum, part, i) => sum + part * solution[i]!, 0);
  const variance = direction.reduce(
    (sum, part, i) => sum + direction.reduce((inner, other, j) => inner + part * other * covariance[i]![j]!, 0),
    0,
  );
  return { value, sd: Math.sqrt(Math.max(0, variance)) };
}

/** Value of a line at a place. */
export const lineAt = (line: FittedLine, x: number): Estimate => along(line, rowAt(line, x));

/** Difference of a line between two places. */
export function lineBetween(line: FittedLine, from: number, to: number): Estimate {
  const start = rowAt(line, from);
  return along(
    line,
    rowAt(line, to).map((value, i) => value - start[i]!),
  );
}

/** Slope of a line. */
export const slopeOf = ({ solution, covariance }: FittedLine): Estimate => ({ value: solution[1]!, sd: Math.sqrt(covariance[1]![1]!) });

/** Degrees of freedom of the t-distribution that the scatter is taken to have: wrong readings happen. */
const FREEDOM = 4;
const ROUNDS = 30;

/**
 * Fits y = a + b·x, with a step up or down at each given place, by weighted least squares with weights of a t-distribution
 * (iterated, Lange, Little & Taylor 1989, recalled) and normal priors.
 *
 * @param points at least one
 * @param priors standard deviations of the value at the first point, of the slope, and of each step; the slope's middle
 * @param steps places at which the line may jump
 */
export function robustLine(
  points: readonly LinePoint[],
  priors: { readonly level: number; readonly slope: number; readonly slopeMiddle?: number; readonly step?: number },
  steps: readonly number[] = [],
): FittedLine {
  const first = points[0]?.x ?? 0;
  const rows = points.map(({ x }) => rowAt({ first, steps }, x));
  const prior: readonly Estimate[] = [
    { value: points[0]?.y ?? 0, sd: priors.level },
    { value: priors.slopeMiddle ?? 0, sd: priors.slope },
    ...steps.map(() => ({ value: 0, sd: priors.step ?? priors.level })),
  ];

  let weights = points.map(() => 1);
  let scatter = 0;
  let solution = prior.map(({ value }) => value);
  let covariance: number[][] = prior.map(({ sd }, i) => prior.map((_, j) => (i === j ? sd * sd : 0)));
  for (let round = 0; round < ROUNDS; round++) {
    const found = posterior(
      prior,
      points.map(({ y, sd }, k) => ({ row: rows[k]!, value: y, weight: weights[k]! / (sd * sd + scatter * scatter) })),
    );
    if (!found) break;
    covariance = found.covariance;
    const next = found.mean;
    const residuals = points.map(({ y }, k) => y - rows[k]!.reduce((sum, value, i) => sum + value * next[i]!, 0));
    const moved = Math.max(...next.map((value, i) => Math.abs(value - solution[i]!)));
    solution = next;
    scatter = extraScatter(residuals, points, weights, prior.length);
    // Capped at 1: a point on the line is no surer than it says.
    weights = residuals.map((r, k) => Math.min(1, (FREEDOM + 1) / (FREEDOM + (r * r) / (points[k]!.sd ** 2 + scatter ** 2))));
    if (moved < 1e-9 && round > 2) break;
  }
  return { first, steps, solution, covariance, scatter, weights };
}

/** Scatter beyond the points' own, from their weighted residuals; nothing where a few points fit as they say. */
function extraScatter(residuals: readonly number[], points: readonly LinePoint[], weights: readonly number[], fitted: number): number {
  const free = points.length - fitted;
  if (free <= 0) return 0;
  const seen = residuals.reduce((sum, r, k) => sum + weights[k]! * r * r, 0) / free;
  const own = points.reduce((sum, { sd }) => sum + sd * sd, 0) / points.length;
  return Math.sqrt(Math.max(0, seen - own));
}
