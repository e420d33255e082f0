import { fail, ok, firstError, outOfRange, type Outcome } from '../quantity';
import { beyondOf, conductsUScm, type Beyond } from './conducts';
import { equilibria } from './equilibria';
import { waterKgPerL } from './properties';
import {
  BALANCE_CHARGE,
  CACO3_G_PER_EQ,
  HARDNESS_PER_MG,
  HCO3_PER_ALKALINITY,
  MOLAR_MASS,
  SOLUTES,
  solutesMgL,
  type Solute,
  type SolutesMgL,
} from './solutes';
import type { Species, Totals } from './distribution';
import { solvePH, speciateAtPH } from './speciation';

/** Carbon dioxide in the open air, atm. */
export const AIR_CO2_ATM = 4.2e-4;

/**
 * A water in full: conserved quantities only, so that mixing, treating and warming are plain sums.
 * pH, conductivity and species follow from it (`settleWater`).
 */
export interface Water {
  /** mg per litre of solution at 25 °C. */
  readonly mgL: SolutesMgL;
  /** mg/L as CaCO3; negative means mineral acidity. */
  readonly alkalinityMgL: number;
  /** Total inorganic carbon (CO2 + HCO3 + CO3), mmol/L. */
  readonly carbonMmolL: number;
  readonly temperatureC: number;
}

/** What a water is like: everything a ledger shows of it. */
export interface WaterState {
  readonly pH: number;
  /** At 25 °C, closed. What a compensated meter shows. */
  readonly ec25UScm: number;
  readonly hardnessMgL: number;
  readonly alkalinityMgL: number;
  /** Sum of ions and silica, bicarbonate counted whole, each carbonate as it is. */
  readonly tdsMgL: number;
  readonly co2MgL: number;
  /** Un-ionised ammonia, mg/L as N. */
  readonly freeAmmoniaMgL: number;
  readonly ionicStrength: number;
  /** Whether its conductivity is beyond what the law behind it was tested for. */
  readonly beyond: Beyond;
}

/** Totals of a water in mol per kg of water, with alkalinity and carbon in the same basis. */
export interface MolalWater {
  readonly totals: Totals;
  readonly alkalinityEqPerKg: number;
  readonly carbonMolPerKg: number;
  readonly waterKgPerL25: number;
  readonly tdsMgL: number;
}

/** Sum of entered values plus bicarbonate equivalent of the alkalinity, mg/L. */
export function dissolvedMgL(mgL: SolutesMgL, alkalinityMgL: number): number {
  return SOLUTES.reduce((sum, solute) => sum + mgL[solute], 0) + HCO3_PER_ALKALINITY * Math.max(0, alkalinityMgL);
}

/** Everything dissolved, by its species: entered ions, bicarbonate, carbonate and hydroxide as they are, mg/L. */
export function speciesTdsMgL(mgL: SolutesMgL, s: Species, waterKgPerL25: number): number {
  const entered = SOLUTES.reduce((sum, solute) => sum + mgL[solute], 0);
  const hco3 = s.hco3 + s.caHco3 + s.mgHco3 + s.naHco3;
  const co3 = s.co3 + s.caCo3 + s.mgCo3;
  return entered + 1000 * waterKgPerL25 * (61.017 * hco3 + 60.009 * co3 + 17.007 * (s.oh + s.caOh + s.boh4));
}

/** Total hardness, mg/L as CaCO3: calcium and magnesium only. */
export function hardnessOf(mgL: SolutesMgL): number {
  return HARDNESS_PER_MG.Ca * mgL.Ca + HARDNESS_PER_MG.Mg * mgL.Mg;
}

/** Alkalinity that closes the charge balance of a set of totals, mg/L as CaCO3. */
export function alkalinityByBalance(mgL: SolutesMgL): number {
  return CACO3_G_PER_EQ * SOLUTES.reduce((sum, s) => sum + (BALANCE_CHARGE[s] * mgL[s]) / MOLAR_MASS[s], 0);
}

/** Converts mg/L to mol per kg of water. */
export function molalWater(water: Pick<Water, 'mgL' | 'alkalinityMgL' | 'carbonMmolL'>): MolalWater {
  const { mgL } = water;
  const tdsMgL = dissolvedMgL(mgL, water.alkalinityMgL);
  const W = waterKgPerL(25, tdsMgL);
  const of = (solute: Solute): number => mgL[solute] / MOLAR_MASS[solute] / 1000 / W;
  const totals: Totals = {
    ca: of('Ca'),
    mg: of('Mg'),
    na: of('Na'),
    k: of('K'),
    nh4: of('NH4N'),
    fe: of('Fe'),
    ba: of('Ba'),
    sr: of('Sr'),
    cl: of('Cl'),
    so4: of('SO4'),
    no3: of('NO3'),
    f: of('F'),
    po4: of('PO4'),
    si: of('SiO2'),
    b: of('B'),
    org: of('organic'),
    ocl: of('chlorine'),
  };
  return {
    totals,
    alkalinityEqPerKg: water.alkalinityMgL / CACO3_G_PER_EQ / 1000 / W,
    carbonMolPerKg: water.carbonMmolL / 1000 / W,
    waterKgPerL25: W,
    tdsMgL,
  };
}

/** Validates the ranges of section 14 of the water chapter. */
function waterError(water: Water): ReturnType<typeof outOfRange> {
  for (const solute of SOLUTES) {
    const wrong = outOfRange(`mgL.${solute}`, solute, water.mgL[solute], 0, 300_000, 'mg/L');
    if (wrong) return wrong;
  }
  return firstError(
    outOfRange('alkalinityMgL', 'Alkalinity', water.alkalinityMgL, -500, 40_000, 'mg/L as CaCO₃'),
    outOfRange('carbonMmolL', 'Total carbon', water.carbonMmolL, 0, 1000, 'mmol/L'),
    outOfRange('temperatureC', 'Temperature', water.temperatureC, 0, 130, '°C'),
  );
}

/** Species of a closed water at a temperature, in mol per kg, pH solved from alkalinity and carbon. */
export function closedSpecies(molal: MolalWater, temperatureC: number, guess?: number, near?: Species): Outcome<Species> {
  return solvePH(
    molal.totals,
    molal.alkalinityEqPerKg,
    { by: 'carbon', molPerKg: molal.carbonMolPerKg },
    equilibria(temperatureC),
    guess,
    near,
  );
}

/** Whether two temperatures are one for all purposes of a reading. */
const same = (a: number, b: number): boolean => Math.abs(a - b) < 1e-9;

/**
 * Solves a water: pH at its temperature, conductivity at 25 °C, hardness, CO2, free ammonia.
 *
 * @param guess pH near which to look; saves time when a similar water was just solved
 * @returns an error naming the field when the composition is out of range or no pH fits it
 */
export function settleWater(water: Water, guess?: number): Outcome<WaterState> {
  const invalid = waterError(water);
  if (invalid) return { ok: false, error: invalid };
  const molal = molalWater(water);
  const here = closedSpecies(molal, water.temperatureC, guess);
  if (!here.ok) return here;
  const at25 = same(water.temperatureC, 25) ? here : closedSpecies(molal, 25, undefined, here.value);
  if (!at25.ok) return at25;
  const species = here.value;
  const W25 = molal.waterKgPerL25;
  return ok({
    pH: species.pH,
    ec25UScm: conductsUScm(water.mgL, at25.value, molal.totals, 25, W25),
    hardnessMgL: hardnessOf(water.mgL),
    alkalinityMgL: water.alkalinityMgL,
    tdsMgL: speciesTdsMgL(water.mgL, at25.value, W25),
    co2MgL: species.co2 * W25 * 44010,
    freeAmmoniaMgL: species.nh3 * W25 * 14007,
    ionicStrength: species.ionicStrength,
    beyond: beyondOf(water.mgL, at25.value, molal.totals, W25),
  });
}

/** Conductivity at the water's own temperature, µS/cm: what a meter without compensation shows. */
export function uncompensatedUScm(water: Water): Outcome<number> {
  const invalid = waterError(water);
  if (invalid) return { ok: false, error: invalid };
  const molal = molalWater(water);
  const species = closedSpecies(molal, water.temperatureC);
  if (!species.ok) return species;
  return ok(conductsUScm(water.mgL, species.value, molal.totals, water.temperatureC, waterKgPerL(water.temperatureC, molal.tdsMgL)));
}

/** What water holds under an atmosphere of pure CO2 near freezing (Henry's law): no supply has more. */
const MOST_CO2_MMOL_L = 80;

/**
 * A water from its analysis with a measured pH (mode a): total carbon follows from pH and alkalinity
 * at the temperature of the measurement, and is conserved from there on.
 */
export function waterFromPH(mgL: Partial<Record<Solute, number>>, alkalinityMgL: number, pH: number, temperatureC: number): Outcome<Water> {
  const solutes = solutesMgL(mgL);
  const invalid = firstError(outOfRange('pH', 'pH', pH, 0, 14), waterError({ mgL: solutes, alkalinityMgL, carbonMmolL: 0, temperatureC }));
  if (invalid) return { ok: false, error: invalid };
  const molal = molalWater({ mgL: solutes, alkalinityMgL, carbonMmolL: 0 });
  const species = speciateAtPH(molal.totals, pH, { by: 'alkalinity', eqPerKg: molal.alkalinityEqPerKg }, equilibria(temperatureC));
  if (!species.ok) return species;
  const co2MmolL = species.value.co2 * molal.waterKgPerL25 * 1000;
  if (co2MmolL > MOST_CO2_MMOL_L) {
    const alkalinity = Math.round(alkalinityMgL * 10) / 10;
    return fail(
      'pH',
      pH,
      'a pH and an alkalinity that fit together',
      `pH ${Number(pH.toPrecision(3))} with alkalinity ${alkalinity} mg/L as CaCO₃ would need ${(co2MmolL * 0.04401).toPrecision(2)} g/L of carbon dioxide, more than water holds. Check both.`,
    );
  }
  return ok({ mgL: solutes, alkalinityMgL, carbonMmolL: species.value.carbon * molal.waterKgPerL25 * 1000, temperatureC });
}

/** Alkalinity a water would have at a pH with the carbon it holds, mg/L as CaCO3: what acid or caustic brings it to, closed. */
export function alkalinityAtPH(water: Water, pH: number): Outcome<number> {
  const molal = molalWater(water);
  const species = speciateAtPH(molal.totals, pH, { by: 'carbon', molPerKg: molal.carbonMolPerKg }, equilibria(water.temperatureC));
  return species.ok ? ok(species.value.alkalinity * molal.waterKgPerL25 * 1000 * CACO3_G_PER_EQ) : species;
}

/**
 * The same water after standing open to air: strong ions and alkalinity stay, carbon comes to rest
 * with the CO2 of the air (mode d). Pure water ends at pH 5.60 and 0.99 µS/cm.
 */
export function openToAir(water: Water, pCO2Atm = AIR_CO2_ATM): Outcome<Water> {
  const molal = molalWater(water);
  const species = solvePH(molal.totals, molal.alkalinityEqPerKg, { by: 'air', pCO2Atm }, equilibria(water.temperatureC));
  if (!species.ok) return species;
  return ok({ ...water, carbonMmolL: species.value.carbon * molal.waterKgPerL25 * 1000 });
}

/** Alkalinity of permeates and polished waters follows from their ions; this keeps them electroneutral. */
export function balanced(mgL: SolutesMgL, carbonMmolL: number, temperatureC: number): Water {
  return { mgL, alkalinityMgL: alkalinityByBalance(mgL), carbonMmolL, temperatureC };
}
