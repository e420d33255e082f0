import { normalCumulative, normalDensity, normalQuantile } from '../numeric';

/** Belief about the capacity of this kind of cartridge at this site: ln Θ ~ Normal(mean, sd²), Θ in eq. */
export interface CapacityBelief {
  readonly lnMean: number;
  readonly sd: number;
}

/** Scatter of one cartridge about its kind, and of a load counted from a log (our defaults). */
export const BED_SD = 0.1;
export const PRIOR_SD = 0.25;
const LOAD_SD_SYSTEMATIC = 0.1;
const LOAD_SD_RANDOM = 0.2;

/** Relative standard deviation of a load summed over n intervals. */
export function loadSd(intervals: number): number {
  return Math.sqrt(LOAD_SD_SYSTEMATIC ** 2 + LOAD_SD_RANDOM ** 2 / Math.max(1, intervals));
}

/** The belief before anything was seen: the balance capacity, ± 25 %. */
export function priorCapacity(balanceEq: number, sd = PRIOR_SD): CapacityBelief {
  return { lnMean: Math.log(balanceEq), sd };
}

/** A cartridge seen to its end: broke through at this load, or was taken out before it did. */
export interface CapacityObservation {
  readonly kind: 'breakthrough' | 'removedBefore';
  readonly loadEq: number;
  readonly loadSd: number;
}

/**
 * Bayesian update of the belief. Breakthrough is a measurement of ln Θ; removal before it says only that
 * Θ was larger, and moves mean and sd exactly as the censored posterior does.
 */
export function updateCapacity(belief: CapacityBelief, seen: CapacityObservation): CapacityBelief {
  const observed2 = BED_SD ** 2 + seen.loadSd ** 2;
  const s2 = belief.sd ** 2;
  if (seen.kind === 'breakthrough') {
    const precision = 1 / s2 + 1 / observed2;
    return { lnMean: (belief.lnMean / s2 + Math.log(seen.loadEq) / observed2) / precision, sd: 1 / Math.sqrt(precision) };
  }
  const t = Math.sqrt(s2 + observed2);
  const z = (Math.log(seen.loadEq) - belief.lnMean) / t;
  // The tail is taken directly, for 1 − Φ cancels to nothing; beyond z = 8 the ratio tends to z + 1/z.
  const hazard = z > 8 ? z + 1 / z : normalDensity(z) / normalCumulative(-z);
  return {
    lnMean: belief.lnMean + (s2 * hazard) / t,
    sd: Math.sqrt(s2 - (s2 * s2 * hazard * (hazard - z)) / (t * t)),
  };
}

/** A quantity as a band: one in ten below, the middle, one in ten above. */
export interface Band {
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
}

export interface CartridgeForecast {
  /** Share of the capacity left, 0–1. */
  readonly remaining: Band;
  /** Days until spent at the given rate; null when nothing is being used. */
  readonly daysLeft: Band | null;
}

/**
 * What is left of a cartridge in service that has not broken through at its load.
 *
 * @param loadEq equivalents taken up so far
 * @param sdOfLoad relative sd of that load, see `loadSd`
 * @param rateEqPerDay present use
 */
export function forecastCartridge(belief: CapacityBelief, loadEq: number, sdOfLoad: number, rateEqPerDay: number): CartridgeForecast {
  const sd = Math.sqrt(belief.sd ** 2 + BED_SD ** 2 + sdOfLoad ** 2);
  const already = loadEq > 0 ? normalCumulative((Math.log(loadEq) - belief.lnMean) / sd) : 0;
  const capacity = (p: number): number => Math.exp(belief.lnMean + sd * normalQuantile(already + p * (1 - already)));
  const band = (of: (capacityEq: number) => number): Band => ({ p10: of(capacity(0.1)), p50: of(capacity(0.5)), p90: of(capacity(0.9)) });
  return {
    remaining: band((theta) => Math.max(0, 1 - loadEq / theta)),
    daysLeft: rateEqPerDay > 0 ? band((theta) => Math.max(0, (theta - loadEq) / rateEqPerDay)) : null,
  };
}
