import { MOLAR_MASS, type Solute, type Water } from '../water';

/** What a litre of water uses up of each side of a bed, meq/L. */
export interface IonicLoad {
  readonly cationMeqL: number;
  readonly anionMeqL: number;
  /** Part of the anion load no meter sees: CO2 beyond the alkalinity, silica and boron. */
  readonly weakAcidMeqL: number;
  /** Carbon dioxide's own part, meq/L (one equivalent a mole). */
  readonly carbonMeqL: number;
}

const meq = (water: Water, solute: Solute, valence: number): number => (valence * Math.max(0, water.mgL[solute])) / MOLAR_MASS[solute];

/**
 * Ionic load of a water on a mixed bed.
 *
 * Carbon, silica, boron and phosphate take one equivalent of anion resin a mole whatever their charge;
 * total ammonia counts whole on the cation side. The anion side therefore always carries extra.
 */
export function ionicLoad(water: Water): IonicLoad {
  const cationMeqL =
    meq(water, 'Ca', 2) +
    meq(water, 'Mg', 2) +
    meq(water, 'Na', 1) +
    meq(water, 'K', 1) +
    meq(water, 'NH4N', 1) +
    meq(water, 'Fe', 2) +
    meq(water, 'Ba', 2) +
    meq(water, 'Sr', 2);
  const strong = meq(water, 'Cl', 1) + meq(water, 'SO4', 2) + meq(water, 'NO3', 1) + meq(water, 'F', 1) + meq(water, 'organic', 1);
  const silica = meq(water, 'SiO2', 1);
  const boron = meq(water, 'B', 1);
  const carbonMeqL = Math.max(0, water.carbonMmolL);
  const alkalinityMeqL = Math.max(0, cationMeqL - strong);
  return {
    cationMeqL,
    anionMeqL: strong + carbonMeqL + silica + boron + meq(water, 'PO4', 1),
    weakAcidMeqL: Math.max(0, carbonMeqL - alkalinityMeqL) + silica + boron,
    carbonMeqL,
  };
}
