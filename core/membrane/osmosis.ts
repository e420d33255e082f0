import { barPerOsmolal, daviesSlope, osmolality, OSMOTIC_GROUPS, type OsmoticGroup } from '../water';
import { SPECIES_ROWS, type SpeciesId } from './species';

/**
 * Which law of osmotic pressure a simulation uses. The product uses 'mixture'; the two others are the
 * published forms against which the element model is checked. A and B must be derived with the law they
 * are used with.
 */
export type OsmoticLaw = 'mixture' | 'astmD4516' | 'vanTHoff';

/** bar from the amounts of the feed's species, mmol/L, in the feed's order. */
export type OsmoticFunction = (mmolL: ArrayLike<number>) => number;

const GROUP: Partial<Record<SpeciesId, OsmoticGroup>> = {
  Ca: 'ca',
  Ba: 'ca',
  Sr: 'ca',
  Fe: 'ca',
  Mg: 'mg',
  Na: 'na',
  plus: 'na',
  K: 'k',
  NH4: 'k',
  Cl: 'cl',
  F: 'cl',
  minus: 'cl',
  H2PO4: 'cl',
  H3SiO4: 'cl',
  BOH4: 'cl',
  SO4: 'so4',
  CO3: 'so4',
  HPO4: 'so4',
  HCO3: 'hco3',
  NO3: 'no3',
  SiO2: 'neutral',
  BOH3: 'neutral',
};

/** Mass of all dissolved, mg/L. */
export function massMgL(ids: readonly SpeciesId[]): (mmolL: ArrayLike<number>) => number {
  const grams = Float64Array.from(ids, (id) => SPECIES_ROWS[id].gPerMol);
  return (mmolL) => {
    let sum = 0;
    for (let i = 0; i < grams.length; i++) sum += grams[i]! * mmolL[i]!;
    return sum;
  };
}

/** Prepares the osmotic function of a set of species at a temperature. Gases exert no lasting osmotic pressure. */
export function osmoticFunction(law: OsmoticLaw, ids: readonly SpeciesId[], temperatureC: number): OsmoticFunction {
  const kelvin = temperatureC + 273.15;
  if (law === 'astmD4516') {
    const mass = massMgL(ids);
    return (mmolL) => {
      const c = mass(mmolL);
      return (0.2654 * c * kelvin) / (1000 - c / 1000) / 100;
    };
  }
  const gas = ids.map((id) => !Number.isFinite(SPECIES_ROWS[id].passageRO));
  if (law === 'vanTHoff') {
    return (mmolL) => {
      let sum = 0;
      for (let i = 0; i < gas.length; i++) if (!gas[i]) sum += mmolL[i]!;
      return (0.93 * 0.083144626 * kelvin * sum) / 1000;
    };
  }
  const slope = daviesSlope(temperatureC);
  // Gases are gathered in a place of their own behind the groups, where nobody counts them.
  const place = Uint8Array.from(ids, (id) => {
    const group = GROUP[id];
    return group === undefined ? OSMOTIC_GROUPS.length : OSMOTIC_GROUPS.indexOf(group);
  });
  const grams = Float64Array.from(ids, (id) => SPECIES_ROWS[id].gPerMol);
  const barPer = barPerOsmolal(temperatureC);
  const m = new Float64Array(OSMOTIC_GROUPS.length + 1);
  return (mmolL) => {
    m.fill(0);
    let massMg = 0;
    for (let i = 0; i < place.length; i++) {
      const amount = mmolL[i]!;
      m[place[i]!]! += amount;
      massMg += grams[i]! * amount;
    }
    // Litres of solution to kg of water at 25 °C, as everywhere in the water room.
    const perKg = 1 / (1000 * (0.99705 - (0.3 * massMg) / 1e6));
    for (let i = 0; i < m.length; i++) m[i]! *= perKg;
    return osmolality(m, slope) * barPer;
  };
}
