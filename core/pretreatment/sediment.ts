import { feedViscosity } from '../membrane';

/** One US gallon a minute, the flow at which cartridge losses are quoted, L/h. */
const REFERENCE_FLOW_L_PER_H = 227.124707;

/** A 10-inch cartridge as the hydraulics see it. */
export interface Prefilter {
  /** Loss when clean at 1 gal/min and 25 °C, bar. */
  readonly cleanLossBar: number;
  /** Share of its dirt capacity already filled, 0–0.95. */
  readonly loading: number;
}

/**
 * Pressure a cartridge takes per L/h: laminar through the pores, so in proportion to flow and viscosity,
 * and growing as the pores fill (product assumption: 1/(1 − loading)).
 */
export function prefilterBarPerLPerH(filter: Prefilter, temperatureC: number): number {
  const viscosity = feedViscosity(temperatureC, 0) / feedViscosity(25, 0);
  return ((filter.cleanLossBar / REFERENCE_FLOW_L_PER_H) * viscosity) / (1 - filter.loading);
}

/** A cartridge this full is at its end; nothing passes one that is wholly full. */
const MOST_LOADING = 0.95;
/** Suspended matter for a unit of turbidity (product assumption), mg/L per NTU. */
const MG_L_PER_NTU = 1;

/** Share of its dirt capacity a sediment filter has filled after so many litres, 0–0.95. */
export const dirtLoading = (passedL: number, turbidityNTU: number, holdsG: number): number =>
  Math.min(MOST_LOADING, (passedL * turbidityNTU * MG_L_PER_NTU) / 1000 / holdsG);

/** Litres that fill a clean sediment filter to a share of its dirt capacity. */
export const loadingLitres = (share: number, turbidityNTU: number, holdsG: number): number =>
  (share * holdsG * 1000) / (turbidityNTU * MG_L_PER_NTU);
