import { PPM_PER_USCM } from '../quantity';
import { goalLimits, type Limit } from './goals';
import { judgesProduct, type GoalAsked } from './judge';
import type { LimitQuantity } from './schema';

/** How strong the product may be, as a meter on it reads. */
export interface StrengthLimit {
  readonly highUScm: number | null;
  readonly lowUScm: number | null;
  /** The limits that set the two ends. */
  readonly high: Limit | null;
  readonly low: Limit | null;
}

/** What a limit about strength is in µS/cm, by what a µS/cm of this water carries of it. */
const PER_USCM: Readonly<Partial<Record<LimitQuantity, (mgPerUScm: number) => number>>> = {
  ec25UScm: () => 1,
  tdsMgL: (mgPerUScm) => mgPerUScm,
  // What is left after drying: carbon dioxide and half of the bicarbonate go, less than a meter tells.
  residueMgL: (mgPerUScm) => mgPerUScm,
  salinity: (mgPerUScm) => mgPerUScm / 1000,
};

/**
 * The strength a goal allows at the product's meter, the strictest of its limits to either side.
 *
 * @param mgPerUScm dissolved solids of this product for a µS/cm; a half where the water is not known (sodium chloride)
 * @param tapUScm the tap, where some of it is blended back
 * @returns null where no limit is about strength, or where salt or minerals are put in before it is judged
 */
export function strengthLimit(
  goal: GoalAsked,
  ppmFactor: number,
  mgPerUScm = PPM_PER_USCM,
  tapUScm: number | null = null,
): StrengthLimit | null {
  const { prepare } = goal;
  const asProduct = judgesProduct(goal);
  if (!asProduct && (prepare.how !== 'blend' || tapUScm === null)) return null;
  const share = !asProduct && prepare.how === 'blend' ? prepare.tapShare : 0;
  // Of a blend, what is left to the product of what the tap brings.
  const ofProduct = (uScm: number): number => (share < 1 ? Math.max(0, (uScm - share * (tapUScm ?? 0)) / (1 - share)) : uScm);
  let [high, low] = [null, null] as [[number, Limit] | null, [number, Limit] | null];
  for (const limit of goalLimits(goal, ppmFactor)) {
    const per = PER_USCM[limit.quantity]?.(mgPerUScm);
    if (per === undefined) continue;
    if (limit.high !== null && limit.high / per < (high?.[0] ?? Infinity)) high = [limit.high / per, limit];
    if (limit.low !== null && limit.low / per > (low?.[0] ?? 0)) low = [limit.low / per, limit];
  }
  if (!high && !low) return null;
  return {
    highUScm: high && ofProduct(high[0]),
    lowUScm: low && ofProduct(low[0]),
    high: high?.[1] ?? null,
    low: low?.[1] ?? null,
  };
}

/** Where a reading lies against what is allowed; null within it. */
export const outsideStrength = (limit: StrengthLimit, ec25UScm: number): 'high' | 'low' | null =>
  limit.highUScm !== null && ec25UScm > limit.highUScm * (1 + READS_ALIKE)
    ? 'high'
    : limit.lowUScm !== null && ec25UScm < limit.lowUScm * (1 - READS_ALIKE)
      ? 'low'
      : null;
/** What is told in three digits reads alike within half of the last. */
const READS_ALIKE = 1e-9;
