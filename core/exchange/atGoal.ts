import { CARBONIC_K1 as K1, HYDROGEN_BICARBONATE_USCM as ACID_USCM_PER_MOLL, type Water } from '../water';
import { frontChain } from './coherence';
import { utilisationAt } from './film';
import { ANION_IDS, ANION_ROWS, ionMeqL } from './ions';
import type { IonicLoad } from './load';
import { anionAlphas } from './selectivity';

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
/** Where next to nothing strong comes, the other side ends first: no side is followed further than this. */
const FARTHEST = 20;

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

/** What comes through behind the carbonic acid's front, and behind each strong ion's after it: when, in balances of the side, and as a meter shows it. */
interface Plateau {
  readonly lambda: number;
  readonly ec25UScm: number;
}

/** What a bed meets, as far as its end depends on it. */
export interface BeforeBed {
  readonly ec25UScm: number;
  readonly water: Water;
  readonly load: IonicLoad;
  /** Whether the goal limits what no meter shows, which leaves with the weak acids: it then ends with them, whatever a meter reads. */
  readonly weakCounts: boolean;
}
export const beforeBed = (water: Water, ec25UScm: number, load: IonicLoad, weakCounts = false): BeforeBed => ({
  ec25UScm,
  water,
  load,
  weakCounts,
});

/** Plateaus behind the anion side from carbonic acid's on, by the exact fronts (Helfferich & Klein 1970, recalled). */
function plateausOf(water: Water): Plateau[] {
  const ids = ANION_IDS.filter((id) => ionMeqL(water, id) > 0);
  const meqL = ids.map((id) => ionMeqL(water, id));
  const total = meqL.reduce((sum, amount) => sum + amount, 0);
  const chain = total > 0 ? frontChain(anionAlphas(ids), meqL.map((amount) => amount / total)) : null; // prettier-ignore
  if (!chain?.ok) return [];
  return chain.value.flatMap(({ lambda, ion, behind }) => {
    // What is held less than carbonic acid passes in a pulse before it, too narrow to end a bed.
    if (ANION_ROWS[ids[ion]!].preference < ANION_ROWS.carbon.preference) return [];
    const of = (is: (id: (typeof ids)[number]) => boolean): number =>
      behind.reduce((sum, share, i) => sum + (is(ids[i]!) ? share * total : 0), 0) / 1000;
    const strong = of((id) => ANION_ROWS[id].preference > ANION_ROWS.carbon.preference || id === 'F');
    const h = (strong + Math.sqrt(strong * strong + 4 * K1 * of((id) => id === 'carbon'))) / 2;
    return [{ lambda, ec25UScm: PURE_USCM + 1000 * STRONG_ACID_USCM * strong + ACID_USCM_PER_MOLL * (h - strong) }];
  });
}

/**
 * Share of a side's stoichiometric capacity that is used when the product passes a goal.
 *
 * @param transferUnits of the side, of all beds in a row together
 * @param goalUScm strength the product may have; null where nothing is asked of it: then its first visible rise
 */
export function usedAtGoal(
  side: 'cation' | 'anion',
  transferUnits: number,
  { ec25UScm, water, weakCounts }: BeforeBed,
  goalUScm: number | null,
): number {
  if (transferUnits <= 0) return 0;
  if (goalUScm === null) return utilisationAt(transferUnits, FIRST_RISE);
  const at = (share: number): number => utilisationAt(transferUnits, Math.min(1, Math.max(LEAST_SHARE, share)));
  if (side === 'cation') return at(goalUScm / Math.max(ec25UScm, 1e-9));
  const weak = Math.max(0, water.carbonMmolL);
  const share = weak > 0 ? weakAcidsAt(goalUScm) / weak : Infinity;
  if (share < 1) return at(share);
  if (weakCounts) return at(1);
  // Behind their front the weak acids leave as they come, and with them those that strong ions push out of the bed; above
  // that it is the front of a strong ion that reaches the goal.
  const plateaus = plateausOf(water);
  const k = plateaus.findIndex((plateau) => plateau.ec25UScm > goalUScm);
  if (k < 0) return plateaus.length > 0 ? FARTHEST : at(1);
  const below = plateaus[k - 1];
  if (!below) return at(1);
  const { lambda, ec25UScm: behind } = plateaus[k]!;
  return Math.min(FARTHEST, Math.max(at(1), lambda * at((goalUScm - below.ec25UScm) / (behind - below.ec25UScm))));
}
