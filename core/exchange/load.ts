import { closedSpecies, molalWater, type Water } from '../water';
import { cationsMeqL, ionMeqL, strongAnionsMeqL } from './ions';

/** What a litre of water uses up of each side of a bed, meq/L. */
export interface IonicLoad {
  readonly cationMeqL: number;
  readonly anionMeqL: number;
  /** Its three shares: strong ions and bicarbonate, which a meter sees, and CO2, silica and boron, which none shows. */
  readonly strongMeqL: number;
  readonly bicarbonateMeqL: number;
  readonly weakAcidMeqL: number;
}

/**
 * Ionic load of a water on a mixed bed.
 *
 * Carbon, silica, boron and phosphate take one equivalent of anion resin a mole whatever their charge;
 * total ammonia counts whole on the cation side. The anion side therefore always carries extra.
 */
export function ionicLoad(water: Water): IonicLoad {
  const [cationMeqL, strongMeqL] = [cationsMeqL(water), strongAnionsMeqL(water)];
  // By speciation: at high pH carbon less alkalinity is not what stands as CO2.
  const carbonMeqL = ionMeqL(water, 'carbon');
  const molal = molalWater(water);
  const species = closedSpecies(molal, water.temperatureC);
  const co2MeqL = species.ok ? Math.min(carbonMeqL, 1000 * species.value.co2 * molal.waterKgPerL25) : 0;
  const weakAcidMeqL = co2MeqL + ionMeqL(water, 'SiO2') + ionMeqL(water, 'B');
  const bicarbonateMeqL = carbonMeqL - co2MeqL;
  return { cationMeqL, anionMeqL: strongMeqL + bicarbonateMeqL + weakAcidMeqL, strongMeqL, bicarbonateMeqL, weakAcidMeqL };
}
