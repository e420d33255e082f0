import { solveLinear } from '../numeric';

/**
 * How far a kind of supply predicts a single ion: within half of it (one standard deviation; our judgement).
 * The constant of 0.02 meq/L keeps traces from seeming certain; it is the one of the least-squares weights.
 */
const ASSUMED_SHARE = 0.5;
/** A laboratory or kit figure without a stated error: 5 % (common practice). */
export const MEASURED_SHARE = 0.05;
/** A field meter, corrected for temperature: 3 % (common practice). */
export const METER_SHARE = 0.03;

/** A condition the amounts obey, with its own standard deviation. */
export interface NoisyRow {
  readonly coefficients: readonly number[];
  readonly spread: number;
}

/** Spread of an amount before the conditions are taken into account, meq/L. */
export const priorSpread = (meq: number, measured: boolean): number => (measured ? MEASURED_SHARE * meq : ASSUMED_SHARE * (meq + 0.02));
export const meterSpread = (ec25UScm: number): number => METER_SHARE * ec25UScm;

/**
 * Standard deviations of amounts once linear conditions (charge, hardness, conductivity) are known: the usual
 * conditioning of independent normal variables, diag(S − S·Aᵀ(A·S·Aᵀ + N)⁻¹·A·S).
 *
 * @param prior standard deviation of each amount before
 */
export function conditionedSpread(prior: readonly number[], rows: readonly NoisyRow[]): number[] {
  const variance = prior.map((sd) => sd * sd);
  const products = rows.map((row) => row.coefficients.map((c, i) => c * variance[i]!));
  const matrix = rows.map((row, r) =>
    rows.map((_, k) => row.coefficients.reduce((sum, c, i) => sum + c * products[k]![i]!, 0) + (r === k ? row.spread ** 2 : 0)),
  );
  return variance.map((own, i) => {
    const towards = rows.map((_, r) => products[r]![i]!);
    const weights = rows.length === 0 ? [] : solveLinear(matrix, towards);
    // Conditions that repeat each other leave nothing to solve: the spread stays what it was.
    if (!weights) return Math.sqrt(own);
    return Math.sqrt(Math.max(0, own - towards.reduce((sum, value, r) => sum + value * weights[r]!, 0)));
  });
}
