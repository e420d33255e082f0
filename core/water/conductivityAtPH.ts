import { conductsUScm } from './conducts';
import type { Species } from './distribution';
import { equilibria } from './equilibria';
import type { SolutesMgL } from './solutes';
import { speciateAtPH } from './speciation';
import { molalWater } from './water';

/**
 * Conductivity at 25 °C of compositions near each other at one pH, µS/cm; NaN where pH and alkalinity contradict.
 * Each call starts from the species of the last, which saves most of its rounds: completing a water asks a hundred times.
 */
export function conductivityAtPH(pH: number): (mgL: SolutesMgL, alkalinityMgL: number) => number {
  let near: Species | undefined;
  return (mgL, alkalinityMgL) => {
    const molal = molalWater({ mgL, alkalinityMgL, carbonMmolL: 0 });
    const species = speciateAtPH(molal.totals, pH, { by: 'alkalinity', eqPerKg: molal.alkalinityEqPerKg }, equilibria(25), near);
    if (!species.ok) return Number.NaN;
    near = species.value;
    return conductsUScm(mgL, near, molal.totals, 25, molal.waterKgPerL25);
  };
}
