import { CACO3_G_PER_MOL } from '../quantity';

/**
 * What a water contains: the solutes, as a laboratory reports them, with their masses.
 * Molar masses g/mol: IUPAC abridged.
 */

/** Solutes in the basis they are stored in: nitrate as NO3, ammonia as N, phosphate as PO4, silica as SiO2, boron as B, organic anions as the dissolved organic carbon that carries them, chlorine and chloramine as Cl2. */
export const SOLUTES = [
  'Ca',
  'Mg',
  'Na',
  'K',
  'NH4N',
  'Fe',
  'Ba',
  'Sr',
  'Cl',
  'SO4',
  'NO3',
  'F',
  'PO4',
  'SiO2',
  'B',
  'organic',
  'chlorine',
  'chloramine',
] as const;
export type Solute = (typeof SOLUTES)[number];

export const isSolute = (quantity: string): quantity is Solute => (SOLUTES as readonly string[]).includes(quantity);

/** g of the stored basis per mol. */
export const MOLAR_MASS: Readonly<Record<Solute, number>> = {
  Ca: 40.078,
  Mg: 24.305,
  Na: 22.99,
  K: 39.098,
  NH4N: 14.007,
  Fe: 55.845,
  Ba: 137.327,
  Sr: 87.62,
  Cl: 35.453,
  SO4: 96.063,
  NO3: 62.005,
  F: 18.998,
  PO4: 94.971,
  SiO2: 60.084,
  B: 10.811,
  // Carbon of humic anions: 10 µeq carry one mg of it.
  organic: 100,
  chlorine: 70.906,
  chloramine: 70.906,
};

/** Charge with which a total enters the charge balance (section 3.1 of the water chapter); 0 for what is counted neutral. */
export const BALANCE_CHARGE: Readonly<Record<Solute, number>> = {
  Ca: 2,
  Mg: 2,
  Na: 1,
  K: 1,
  NH4N: 1,
  Fe: 2,
  Ba: 2,
  Sr: 2,
  Cl: -1,
  SO4: -2,
  NO3: -1,
  F: -1,
  PO4: -1,
  SiO2: 0,
  B: 0,
  organic: -1,
  chlorine: 0,
  chloramine: 0,
};

/** g of CaCO3 per equivalent: alkalinity and hardness are counted in it. */
export const CACO3_G_PER_EQ = CACO3_G_PER_MOL / 2;
/** Hardness that calcium and magnesium bring, mg/L as CaCO3 per mg/L. */
export const HARDNESS_PER_MG = { Ca: CACO3_G_PER_MOL / MOLAR_MASS.Ca, Mg: CACO3_G_PER_MOL / MOLAR_MASS.Mg } as const;
/** mg of HCO3 per mg of alkalinity as CaCO3, when all of it is bicarbonate. */
export const HCO3_PER_ALKALINITY = 61.017 / CACO3_G_PER_EQ;

/** Amounts in mg per litre of solution at 25 °C. */
export type SolutesMgL = Readonly<Record<Solute, number>>;

/** A record of every solute, each by the same rule. */
export function eachSolute(of: (solute: Solute) => number): Record<Solute, number> {
  const all = {} as Record<Solute, number>;
  for (const solute of SOLUTES) all[solute] = of(solute);
  return all;
}

/** A record with every solute, zero where not given. */
export const solutesMgL = (given: Partial<Record<Solute, number>>): SolutesMgL => eachSolute((solute) => given[solute] ?? 0);
