/**
 * Beds of cation and anion resin that are regenerated with acid and alkali where they stand: capacity by dose, what
 * slips, how long a cycle is, and what goes to the drain. Laid through the curves of resin literature for gel resins and
 * mixed waters (recalled): capacities within 10 %, slips within a factor of three.
 */

const MOLAR = { HCl: 36.46, H2SO4: 49.04, NaOH: 40 } as const;
export type Regenerant = keyof typeof MOLAR;
export const REGENERATION_WAYS = ['coCurrent', 'counterCurrent'] as const;
export type RegenerationWay = (typeof REGENERATION_WAYS)[number];
export const ANION_TYPES = ['strongI', 'strongII', 'weakBase'] as const;
export type AnionType = (typeof ANION_TYPES)[number];
export const ACIDS = ['HCl', 'H2SO4'] as const;
export type Acid = (typeof ACIDS)[number];

/** Capacity curve of a resin and its regenerant: the most it comes to, eq/L, and how fast it does. */
interface Curve {
  readonly mostEqPerL: number;
  readonly rise: number;
}
const CATION_CURVES: Readonly<Record<Acid, Readonly<Record<RegenerationWay, Curve>>>> = {
  HCl: { coCurrent: { mostEqPerL: 1.4, rise: 0.9 }, counterCurrent: { mostEqPerL: 1.5, rise: 1 } },
  H2SO4: { coCurrent: { mostEqPerL: 1.15, rise: 0.75 }, counterCurrent: { mostEqPerL: 1.25, rise: 0.85 } },
};
const COUNTER_I: Curve = { mostEqPerL: 0.8, rise: 0.75 };
const ANION_CURVES: Readonly<Record<AnionType, Readonly<Record<RegenerationWay, Curve>>>> = {
  strongI: { coCurrent: { mostEqPerL: 0.75, rise: 0.6 }, counterCurrent: COUNTER_I },
  // Counter-current of type II has no curve of its own: its co-current one is the safe side.
  strongII: { coCurrent: { mostEqPerL: 0.95, rise: 0.75 }, counterCurrent: { mostEqPerL: 0.95, rise: 0.75 } },
  // Nearly stoichiometric, whichever way it runs.
  weakBase: { coCurrent: { mostEqPerL: 1.7, rise: 1 }, counterCurrent: { mostEqPerL: 1.7, rise: 1 } },
};

/** Equivalents of regenerant for each litre of resin. */
export const doseEq = (gPerL: number, regenerant: Regenerant): number => gPerL / MOLAR[regenerant];
const capacityOf = ({ mostEqPerL, rise }: Curve, eq: number): number => mostEqPerL * (1 - Math.exp((-rise * eq) / mostEqPerL));
/** Operating capacity at a dose, eq for each litre of resin. */
export const cationEqPerL = (acid: Acid, way: RegenerationWay, gPerL: number): number =>
  capacityOf(CATION_CURVES[acid][way], doseEq(gPerL, acid));
export const anionEqPerL = (type: AnionType, way: RegenerationWay, gPerL: number): number =>
  capacityOf(ANION_CURVES[type][way], doseEq(gPerL, 'NaOH'));

/** Selectivity of sodium over hydrogen of the last layer (1.98 over 1.27). */
const SODIUM_OVER_HYDROGEN = 1.56;
/** Fits: what regeneration leaves of sodium and silica, and how fast more of it drives them out. */
const LEFT = { sodium: 0.37, e: 1.2, silicaAt: 1.6, warmth: 0.046 } as const;
const AGAINST = { sodium: 0.1, silica: 0.2 } as const;
const SULFURIC_COUNTS = 0.7;
/** Temperatures of caustic the law was laid through, °C. */
export const CAUSTIC_C = { low: 10, usual: 20, high: 50 } as const;

/** Sodium that slips through the cation bed, mg/L, within a factor of three. */
export function sodiumSlipMgL(
  acid: Acid,
  way: RegenerationWay,
  gPerL: number,
  { strongMeqL, sodiumShare }: { readonly strongMeqL: number; readonly sodiumShare: number },
): number {
  const eq = doseEq(gPerL, acid) * (acid === 'H2SO4' ? SULFURIC_COUNTS : 1);
  const y = LEFT.sodium * (way === 'coCurrent' ? 1 : AGAINST.sodium) * sodiumShare * Math.exp(-eq / LEFT.e);
  return (22.99 * strongMeqL * y) / ((1 - y) * SODIUM_OVER_HYDROGEN);
}

/** Silica that slips through a strong anion bed, mg/L, within a factor of three. */
export const silicaSlipMgL = (way: RegenerationWay, gPerL: number, silicaShare: number, causticC: number): number =>
  silicaShare *
  (way === 'coCurrent' ? 1 : AGAINST.silica) *
  Math.exp(-(doseEq(gPerL, 'NaOH') - LEFT.silicaAt) / LEFT.e) *
  Math.exp(-LEFT.warmth * (Math.min(CAUSTIC_C.high, Math.max(CAUSTIC_C.low, causticC)) - CAUSTIC_C.usual));

/** Strengths sulfuric acid is used at, % by mass. */
const SULFURIC = { least: 1, most: 6, mmolL: 50 } as const;
/** Strongest sulfuric acid before gypsum falls out in the bed, %, by the share of calcium among the cations. */
export const strongestAcidPercent = (gPerL: number, calciumShare: number, capacityEqPerL: number): number =>
  calciumShare > 0 ? Math.min(SULFURIC.most, Math.max(SULFURIC.least, gPerL / (100 * calciumShare * capacityEqPerL))) : SULFURIC.most;
/** Calcium in the spent acid, mmol/L; above 50 it does not stay dissolved the minutes it takes. */
export const calciumInAcidMmolL = (gPerL: number, percent: number, calciumShare: number, capacityEqPerL: number): number =>
  (calciumShare * capacityEqPerL * 1000) / 2 / (gPerL / (10 * percent));
export const MOST_CALCIUM_MMOL_L = SULFURIC.mmolL;

/** Litres of water a regeneration of a litre of resin takes: backwash, the regenerant's own, slow and fast rinse. */
const WATER = { backwash: 2.5, slowRinse: 2.5 } as const;
export const FAST_RINSE_BV = { cation: 5, anion: 8 } as const;
export const regenerationBV = (gPerL: number, percent: number, fastRinseBV: number): number =>
  WATER.backwash + gPerL / (10 * percent) + WATER.slowRinse + fastRinseBV;

/** What the water brings to a pair of beds, meq/L: all cations, strong anions, carbon with silica and boron. */
export interface PairLoad {
  readonly cationMeqL: number;
  readonly strongMeqL: number;
  readonly weakMeqL: number;
}
/** Two beds as they are filled and regenerated. */
export interface PairOfBeds {
  readonly cationL: number;
  readonly anionL: number;
  readonly acid: Acid;
  readonly anionType: AnionType;
  readonly way: RegenerationWay;
  readonly acidGPerL: number;
  readonly causticGPerL: number;
}
/** Litres each bed makes; null where the water brings nothing to it. */
export interface PairCycle {
  readonly cationL: number | null;
  readonly anionL: number | null;
  /** Whichever ends first. */
  readonly litres: number | null;
}
/** @param degassedMeqL carbon a degasser between them takes out */
export function pairCycle(beds: PairOfBeds, load: PairLoad, degassedMeqL = 0): PairCycle {
  const ofCation = beds.cationL * cationEqPerL(beds.acid, beds.way, beds.acidGPerL);
  const ofAnion = beds.anionL * anionEqPerL(beds.anionType, beds.way, beds.causticGPerL);
  const toAnion = beds.anionType === 'weakBase' ? load.strongMeqL : load.strongMeqL + load.weakMeqL - degassedMeqL;
  const cationL = load.cationMeqL > 0 ? (1000 * ofCation) / load.cationMeqL : null;
  const anionL = toAnion > 0 ? (1000 * ofAnion) / toAnion : null;
  return { cationL, anionL, litres: cationL === null ? anionL : anionL === null ? cationL : Math.min(cationL, anionL) };
}

/** Acid and alkali of one regeneration, kg as 100 %, and their water. */
export function pairChemicals(
  beds: PairOfBeds,
  strengths: { readonly acidPercent: number; readonly causticPercent: number },
): { readonly acidKg: number; readonly causticKg: number; readonly waterL: number } {
  return {
    acidKg: (beds.cationL * beds.acidGPerL) / 1000,
    causticKg: (beds.anionL * beds.causticGPerL) / 1000,
    waterL:
      beds.cationL * regenerationBV(beds.acidGPerL, strengths.acidPercent, FAST_RINSE_BV.cation) +
      beds.anionL * regenerationBV(beds.causticGPerL, strengths.causticPercent, FAST_RINSE_BV.anion),
  };
}

/** What is left over in the joined waste of a cycle, eq: above 0 alkaline, below acid. Exact, by charge. */
export function wasteAlkalinityEq(beds: PairOfBeds, load: PairLoad, litres: number): number {
  const caustic = beds.anionL * doseEq(beds.causticGPerL, 'NaOH') - (litres * load.strongMeqL) / 1000;
  const acid = beds.cationL * doseEq(beds.acidGPerL, beds.acid) - (litres * load.cationMeqL) / 1000;
  return caustic - acid;
}

/** Capacity of beds that are exchanged by a service, eq for each litre (common practice; mixed 0.40–0.60). */
export const SERVICE_EQ_PER_L = { cation: 1.25, anion: 0.64, mixed: 0.5 } as const;
/** Litres an exchanged tank makes of a water. */
export const serviceTankL = (litres: number, eqPerL: number, utilisation: number, loadMeqL: number): number =>
  (1000 * litres * eqPerL * utilisation) / loadMeqL;
