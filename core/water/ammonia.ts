import { MOLAR_MASS } from './solutes';

/** Share of total ammonia that is free NH3 in dilute water, 0–1. Emerson et al. 1975 (formula recalled). */
export function freeAmmoniaShare(pH: number, temperatureC: number): number {
  return 1 / (1 + 10 ** (0.09018 + 2729.92 / (temperatureC + 273.15) - pH));
}

/**
 * Nitrogen set free as ammonia when carbon breaks monochloramine, mg/L as N per mg/L of chloramine as Cl2.
 * An upper figure: an aged bed turns part of it into nitrogen gas.
 */
export const NITROGEN_PER_CHLORAMINE = MOLAR_MASS.NH4N / MOLAR_MASS.chloramine;

/** Total ammonia before a membrane once carbon has broken the chloramine, mg/L as N. */
export const ammoniaAfterCarbonMgL = (mgL: { readonly NH4N: number; readonly chloramine: number }): number =>
  mgL.NH4N + NITROGEN_PER_CHLORAMINE * mgL.chloramine;
