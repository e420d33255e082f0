import { findRoot } from '../numeric';
import { DAYS_PER_YEAR, firstError, KG_PER_POUND, ok, outOfRange, type Outcome } from '../quantity';
import { CACO3_G_PER_EQ, hardnessOf, MOLAR_MASS, type Water } from '../water';
import { amountOf, CATION_ROWS, cationsMeqL, ionMeqL, type CationId } from './ions';

/** g/L of resin in a pound a cubic foot, and eq/L in a kilograin a cubic foot. */
export const G_PER_L_IN_LB_PER_FT3 = KG_PER_POUND * (1000 / 28.316846592);
export const EQ_PER_L_IN_KGR_PER_FT3 = (1000 * 0.06479891) / 28.316846592 / CACO3_G_PER_EQ;

/** Capacity against salt dose, co-current regeneration: lb and kilograins a cubic foot (common practice, recalled). */
const DOSE_CURVE: readonly (readonly [lbPerFt3: number, kgrPerFt3: number])[] = [
  [0, 0],
  [6, 20],
  [8, 24],
  [10, 27],
  [15, 30],
];

/** Operating capacity at a dose, eq per litre of resin; above 15 lb/ft³ it grows no more. */
export function softenerCapacityEqPerL(saltGPerL: number): number {
  const dose = saltGPerL / G_PER_L_IN_LB_PER_FT3;
  const above = DOSE_CURVE.findIndex(([lb]) => lb >= dose);
  if (above < 0) return DOSE_CURVE.at(-1)![1] * EQ_PER_L_IN_KGR_PER_FT3;
  if (above === 0) return 0;
  const [[lb0, kgr0], [lb1, kgr1]] = [DOSE_CURVE[above - 1]!, DOSE_CURVE[above]!];
  return (kgr0 + ((dose - lb0) / (lb1 - lb0)) * (kgr1 - kgr0)) * EQ_PER_L_IN_KGR_PER_FT3;
}

/** Hardness a milligram of dissolved iron counts as, mg/L as CaCO3: 4 grains a gallon (common practice 3–5). */
const IRON_AS_HARDNESS = 4 * 17.118;
/** Longest between two regenerations without iron and with it, days (our defaults). */
const MOST_DAYS = 14;
const MOST_DAYS_WITH_IRON = 4;
/** Iron from which the shorter time holds, mg/L. */
const IRON_COUNTS_MG_L = 0.1;
/** Sodium chloride in saturated brine at 20 °C, g/L (recalled), and rinse water in bed volumes. */
const BRINE_G_PER_L = 359;
const RINSE_BV = 8;
/** Total capacity of the resin, eq/L. */
const TOTAL_EQ_PER_L = 2;

export interface SoftenerInput {
  readonly volumeL: number;
  readonly saltGPerL: number;
  readonly hardnessMgL: number;
  readonly ironMgL: number;
  readonly litresPerDay: number;
  readonly reserveShare: number;
}

export interface SoftenerPlan {
  readonly capacityEq: number;
  /** Hardness with what iron counts as. */
  readonly compensatedMgL: number;
  readonly litresBetween: number;
  /** Days its capacity would last, and days between regenerations as it will be run. */
  readonly daysByCapacity: number;
  readonly days: number;
  readonly saltKg: number;
  readonly saltKgPerYear: number;
  readonly brineFillL: number;
  readonly rinseL: number;
  /** Share of the water that goes down the drain in regeneration. */
  readonly wasteShare: number;
  /** Exchanged over what the salt could exchange. */
  readonly saltEfficiency: number;
}

/**
 * Litres and days between regenerations, and the salt.
 *
 * @returns an error naming the field; zero hardness is refused, for there is nothing to soften
 */
export function sizeSoftener(input: SoftenerInput): Outcome<SoftenerPlan> {
  const invalid = firstError(
    outOfRange('volumeL', 'Resin volume', input.volumeL, 0.05, 1000, 'L'),
    outOfRange('saltGPerL', 'Salt dose', input.saltGPerL, 3 * G_PER_L_IN_LB_PER_FT3 * 0.999, 20 * G_PER_L_IN_LB_PER_FT3 * 1.001, 'g/L'),
    outOfRange('hardnessMgL', 'Hardness', input.hardnessMgL, 0.1, 20_000, 'mg/L'),
    outOfRange('ironMgL', 'Dissolved iron', input.ironMgL, 0, 5, 'mg/L'),
    outOfRange('litresPerDay', 'Use a day', input.litresPerDay, 0.01, 1e6, 'L'),
    outOfRange('reserveShare', 'Reserve', input.reserveShare, 0, 0.5),
  );
  if (invalid) return { ok: false, error: invalid };
  const capacityEq = input.volumeL * softenerCapacityEqPerL(input.saltGPerL);
  const compensatedMgL = input.hardnessMgL + IRON_AS_HARDNESS * input.ironMgL;
  const litresBetween = (capacityEq * (1 - input.reserveShare) * 1000 * CACO3_G_PER_EQ) / compensatedMgL;
  const daysByCapacity = litresBetween / input.litresPerDay;
  const days = Math.min(daysByCapacity, MOST_DAYS, input.ironMgL > IRON_COUNTS_MG_L ? MOST_DAYS_WITH_IRON : Infinity);
  const saltKg = (input.saltGPerL * input.volumeL) / 1000;
  const rinseL = RINSE_BV * input.volumeL;
  return ok({
    capacityEq,
    compensatedMgL,
    litresBetween,
    daysByCapacity,
    days,
    saltKg,
    saltKgPerYear: (saltKg * DAYS_PER_YEAR) / days,
    brineFillL: (saltKg * 1000) / BRINE_G_PER_L,
    rinseL,
    wasteShare: rinseL / (rinseL + days * input.litresPerDay),
    saltEfficiency: capacityEq / ((saltKg * 1000) / (MOLAR_MASS.Na + MOLAR_MASS.Cl)),
  });
}

/** Sodium that comes for hardness taken, mg per mg of hardness as CaCO3. */
export const SODIUM_PER_HARDNESS = MOLAR_MASS.Na / CACO3_G_PER_EQ;

/**
 * How what regeneration leaves lies in the bed: with brine the way of the water more of it at the outlet, against it less
 * (fitted to what softener handbooks print near 10 meq/L; recalled, within half).
 */
const LEFT_AT_OUTLET = { coCurrent: 1.5, counterCurrent: 0.5 } as const;

/**
 * Hardness that slips through a softener, mg/L as CaCO3, by mass action with what regeneration left on the resin: within
 * half, below 6 lb a cubic foot within a factor of three. It grows as the square of the strength.
 *
 * @param operatingEqPerL capacity at the dose, see `softenerCapacityEqPerL`
 * @param totalMeqL cations of the water
 * @param brine which way it runs
 */
export function softenerLeakageMgL(operatingEqPerL: number, totalMeqL: number, brine: keyof typeof LEFT_AT_OUTLET = 'coCurrent'): number {
  const y = 1 - (operatingEqPerL / TOTAL_EQ_PER_L) ** LEFT_AT_OUTLET[brine];
  const total = totalMeqL / 1000;
  const k = CATION_ROWS.Ca.preference / CATION_ROWS.Na.preference;
  const wanted = y / ((1 - y) ** 2 * k * (TOTAL_EQ_PER_L / total));
  const root = findRoot((x) => x / (1 - x) ** 2 - wanted, 0, 1 - 1e-9, 1e-14);
  return (root?.x ?? 0) * total * CACO3_G_PER_EQ * 1000;
}

const EXCHANGED: readonly CationId[] = ['Ca', 'Mg', 'Fe', 'Sr', 'Ba'];

/** Water behind a softener: sodium for hardness and its kin, but for what slips through. */
export function softened(water: Water, operatingEqPerL: number): Water {
  const hardness = hardnessOf(water.mgL);
  const total = cationsMeqL(water);
  if (hardness <= 0 || total <= 0) return water;
  const slips = Math.min(1, softenerLeakageMgL(operatingEqPerL, total) / hardness);
  const mgL = { ...water.mgL };
  let given = 0;
  for (const id of EXCHANGED) {
    given += ionMeqL(water, id) * (1 - slips);
    mgL[id] = water.mgL[id] * slips;
  }
  mgL.Na += amountOf('Na', given);
  return { ...water, mgL };
}
