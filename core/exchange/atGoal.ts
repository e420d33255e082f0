import { CARBONIC_K1 as K1, HYDROGEN_BICARBONATE_USCM as ACID_USCM_PER_MOLL, type Water } from '../water';
import { utilisationAt } from './film';
import type { IonicLoad } from './load';

/** How far a bed is used when the strength of its product passes a goal (science of logs, 5.2): with weak acids first through, a meter is late. */

/** Conductivity of pure water, µS/cm. */
const PURE_USCM = 0.055;
/** Hydrogen of pure water at 25 °C, mol/L. */
const PURE_H = 1e-7;
/** Strong acids behind a spent anion side, µS/cm for meq/L: hydrogen with the mean anion. */
const STRONG_ACID_USCM = 426;
/** Breakthrough without a goal: the first visible rise. */
export const FIRST_RISE = 0.01;
/** Beyond this a front is not followed: less of it than any meter could tell. */
const LEAST_SHARE = 1e-3;
/** Where only strong ions reach a goal: by so much of the weak share later. */
const LATER = 0.22;

/** Weak acids whose carbonic acid alone reads so much, mmol/L. */
export function weakAcidsAt(ec25UScm: number): number {
  const h = Math.max(0, ec25UScm - PURE_USCM) / ACID_USCM_PER_MOLL + PURE_H;
  return 1000 * ((h * h - PURE_H * PURE_H) / K1 + h);
}

/** What a meter reads when all of so much carbonic acid comes through, µS/cm. */
export function weakAcidPlateauUScm(mmolL: number): number {
  const c = mmolL / 1000;
  // (h² − h0²)/K1 + h = c, solved for the positive root.
  const h = (-1 + Math.sqrt(1 + (4 * (c + (PURE_H * PURE_H) / K1)) / K1)) * (K1 / 2);
  return PURE_USCM + ACID_USCM_PER_MOLL * (h - PURE_H);
}

/** What a bed meets, as far as its end depends on it. */
export interface BeforeBed {
  readonly ec25UScm: number;
  readonly carbonMmolL: number;
  readonly load: IonicLoad;
}
export const beforeBed = (water: Pick<Water, 'carbonMmolL'>, ec25UScm: number, load: IonicLoad): BeforeBed => ({
  ec25UScm,
  carbonMmolL: water.carbonMmolL,
  load,
});

/**
 * Share of a side's stoichiometric capacity that is used when the product passes a goal.
 *
 * @param transferUnits of the side, of all beds in a row together
 * @param goalUScm strength the product may have; null where nothing is asked of it: then its first visible rise
 */
export function usedAtGoal(
  side: 'cation' | 'anion',
  transferUnits: number,
  { ec25UScm, carbonMmolL, load }: BeforeBed,
  goalUScm: number | null,
): number {
  if (transferUnits <= 0) return 0;
  if (goalUScm === null) return utilisationAt(transferUnits, FIRST_RISE);
  const at = (share: number): number => utilisationAt(transferUnits, Math.min(1, Math.max(LEAST_SHARE, share)));
  if (side === 'cation') return at(goalUScm / Math.max(ec25UScm, 1e-9));
  const weak = Math.max(0, carbonMmolL);
  const share = weak > 0 ? weakAcidsAt(goalUScm) / weak : Infinity;
  if (share < 1) return at(share);
  const left = goalUScm - weakAcidPlateauUScm(weak);
  const strong = load.strongMeqL > 0 ? left / (STRONG_ACID_USCM * load.strongMeqL) : 1;
  const weakShare = load.anionMeqL > 0 ? 1 - load.strongMeqL / load.anionMeqL : 0;
  // Never sooner than the weak acids are through.
  return Math.max(at(1), LATER * weakShare + at(strong));
}
