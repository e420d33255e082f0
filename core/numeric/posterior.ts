import { inverse } from './linear';

/** A value with its standard deviation. */
export interface Estimate {
  readonly value: number;
  readonly sd: number;
}

/** Something that was seen of a linear model: how it goes with each unknown, its value, and one over its variance. */
export interface Observed {
  readonly row: readonly number[];
  readonly value: number;
  readonly weight: number;
}

/**
 * Unknowns of a linear model after what was seen of it, each with a normal prior of its own.
 *
 * @returns their middle and covariance; null where the numbers give none
 */
export function posterior(
  prior: readonly Estimate[],
  observed: readonly Observed[],
): { readonly mean: number[]; readonly covariance: number[][] } | null {
  const precision = prior.map(({ sd }, i) => prior.map((_, j) => (i === j ? 1 / (sd * sd) : 0)));
  const right = prior.map(({ value, sd }) => value / (sd * sd));
  for (const { row, value, weight } of observed)
    for (let i = 0; i < prior.length; i++) {
      right[i]! += weight * row[i]! * value;
      for (let j = 0; j < prior.length; j++) precision[i]![j]! += weight * row[i]! * row[j]!;
    }
  const covariance = inverse(precision);
  return covariance && { covariance, mean: covariance.map((line) => line.reduce((sum, value, j) => sum + value * right[j]!, 0)) };
}
