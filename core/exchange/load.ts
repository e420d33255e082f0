import { closedSpecies, MOLAR_MASS, molalWater, type Solute, type Water } from '../water';

/** What a litre of water uses up of each side of a bed, meq/L. */
export interface IonicLoad {
  readonly cationMeqL: number;
  readonly anionMeqL: number;
  /** Its three shares: strong ions and bicarbonate, which a meter sees, and CO2, silica and boron, which none shows. */
  readonly strongMeqL: number;
  readonly bicarbonateMeqL: number;
  readonly weakAcidMeqL: number;
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
  const strongMeqL =
    meq(water, 'Cl', 1) +
    meq(water, 'SO4', 2) +
    meq(water, 'NO3', 1) +
    meq(water, 'F', 1) +
    meq(water, 'PO4', 1) +
    meq(water, 'organic', 1);
  // By speciation: at high pH carbon less alkalinity is not what stands as CO2.
  const carbonMeqL = Math.max(0, water.carbonMmolL);
  const molal = molalWater(water);
  const species = closedSpecies(molal, water.temperatureC);
  const co2MeqL = species.ok ? Math.min(carbonMeqL, 1000 * species.value.co2 * molal.waterKgPerL25) : 0;
  const weakAcidMeqL = co2MeqL + meq(water, 'SiO2', 1) + meq(water, 'B', 1);
  const bicarbonateMeqL = carbonMeqL - co2MeqL;
  return { cationMeqL, anionMeqL: strongMeqL + bicarbonateMeqL + weakAcidMeqL, strongMeqL, bicarbonateMeqL, weakAcidMeqL };
}
