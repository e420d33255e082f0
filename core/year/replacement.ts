import { normalCumulative } from '../numeric';

/** When to change a part whose life is not known exactly: planned, or when it fails (Barlow and Proschan 1965, recalled). */

/** A part's life in days, lognormal, and what its change costs; a failure costs so much more. */
export interface AgeingPart {
  readonly medianDays: number;
  /** Standard deviation of ln life. */
  readonly sd: number;
  readonly plannedCost: number;
  readonly failureCost: number;
}
export interface ReplacementAge {
  /** Days after which it is changed; null: run it until it shows. */
  readonly days: number | null;
  /** Cost a day of that policy. */
  readonly costPerDay: number;
  /** Share that fails before. */
  readonly failsFirst: number;
}

/** Cost a day of changing at an age, days. */
export function ageCost({ medianDays, sd, plannedCost, failureCost }: AgeingPart, days: number): number {
  const z = Math.log(days / medianDays) / sd;
  const failed = normalCumulative(z);
  const cycle = days * (1 - failed) + medianDays * Math.exp((sd * sd) / 2) * normalCumulative(z - sd);
  return (plannedCost + failureCost * failed) / cycle;
}
/** Cost a day of waiting until it fails. */
export const failureRunCost = ({ medianDays, sd, plannedCost, failureCost }: AgeingPart): number =>
  (plannedCost + failureCost) / (medianDays * Math.exp((sd * sd) / 2));

/** Standard deviations to either side in which the best age is looked for. */
const SEARCHED_SD = 6;
/** A saving below a hundredth is none: it is run until it shows (product assumption). */
const WORTH = 0.99;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
const ROUNDS = 200;

/** The age at which a part is best changed. */
export function replacementAge(part: AgeingPart): ReplacementAge {
  const at = (x: number): number => ageCost(part, part.medianDays * Math.exp(x * part.sd));
  // The cost may fall again beyond its minimum: the valley is found on a grid first.
  const grid = Array.from({ length: 121 }, (_, i) => -SEARCHED_SD + (2 * SEARCHED_SD * i) / 120);
  const best = grid.reduce((low, x) => (at(x) < at(low) ? x : low));
  let [a, b] = [best - 0.1, best + 0.1];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  for (let i = 0; i < ROUNDS && b - a > 1e-12; i++) {
    if (at(c) < at(d)) [b, d, c] = [d, c, d - GOLDEN * (d - a)];
    else [a, c, d] = [c, d, c + GOLDEN * (b - c)];
  }
  const x = (a + b) / 2;
  const run = failureRunCost(part);
  if (at(x) >= WORTH * run) return { days: null, costPerDay: run, failsFirst: 1 };
  return { days: part.medianDays * Math.exp(x * part.sd), costPerDay: at(x), failsFirst: normalCumulative(x) };
}
