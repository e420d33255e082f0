import { conductivityUScm, isBeyondLaw, strengthEqL } from './conductivity';
import type { Species, Totals } from './distribution';
import { seaConductivityMScm, seaSalinityOf, SEA_SALINITY, SEA_WARMEST_C } from './salinity';
import type { SolutesMgL } from './solutes';

/** What a conductivity rests on beyond the range it was tested in; null where it is within it. */
export type Beyond = 'strong' | 'sea' | null;

/**
 * Conductivity of a water at the temperature of its species, µS/cm: by practical salinity where it has the proportions
 * of the sea (also as a brine), else by the law of its ions; joined linearly between salinity 1 and 2.
 */
export function conductsUScm(mgL: SolutesMgL, species: Species, totals: Totals, temperatureC: number, waterKgPerL: number): number {
  const salinity = temperatureC >= 0 && temperatureC <= SEA_WARMEST_C ? seaSalinityOf(mgL) : null;
  if (salinity === null || salinity > SEA_SALINITY.extended) return conductivityUScm(species, totals, temperatureC, waterKgPerL);
  const sea = 1000 * seaConductivityMScm(salinity, temperatureC);
  const { low } = SEA_SALINITY;
  if (salinity >= low) return sea;
  const share = Math.max(0, salinity - (low - 1));
  return share * sea + (1 - share) * conductivityUScm(species, totals, temperatureC, waterKgPerL);
}

/** Whether a water's conductivity is beyond what its law was tested for. */
export function beyondOf(mgL: SolutesMgL, species: Species, totals: Totals, waterKgPerL: number): Beyond {
  const salinity = seaSalinityOf(mgL);
  if (salinity !== null && salinity <= SEA_SALINITY.extended) return salinity > SEA_SALINITY.high ? 'sea' : null;
  return isBeyondLaw(strengthEqL(species, totals, waterKgPerL)) ? 'strong' : null;
}

/** What is said at a figure that is beyond its law. */
export const BEYOND_SAYS: Readonly<Record<Exclude<Beyond, null>, string>> = {
  strong: 'Stronger than the conductivity law was tested for: ±5 %.',
  sea: 'Stronger than the salinity scale was published for: ±1 %.',
};
