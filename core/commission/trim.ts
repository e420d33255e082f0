import { lengthForRatio, solveUnitFlows, speciesOfWater, type FeedSpecies, type MembraneUnit, type UnitConditions } from '../membrane';
import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import type { Water } from '../water';
import type { BucketResult } from './ratio';

/** What to do to the restrictor next. */
export type TrimAdvice =
  | { readonly kind: 'onTarget'; readonly calibratedBoreMm: number }
  | {
      readonly kind: 'cut';
      readonly cutMm: number;
      readonly lengthAfterMm: number;
      /** Length at which the target is expected, and its span from the jugs' uncertainty. */
      readonly expectedMm: number;
      readonly expectedLowMm: number;
      readonly expectedHighMm: number;
      readonly calibratedBoreMm: number;
    }
  | { readonly kind: 'fitLonger'; readonly expectedMm: number | null; readonly calibratedBoreMm: number }
  | { readonly kind: 'fitLarger'; readonly calibratedBoreMm: number };

/** Close enough to stop cutting (common practice). */
const ON_TARGET = 0.05;
/** Most of the present length one cut may take (common practice). */
const LARGEST_CUT = 0.1;
/** Nobody cuts less than this with a tube cutter. */
const SMALLEST_CUT_MM = 2;

/**
 * The bore with which the model shows the measured ratio at the present length: a label's bore is nominal,
 * and the ratio feels its fourth power.
 */
export function calibratedBore(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, measuredRatio: number): Outcome<number> {
  const miss = (lnBore: number): number => {
    const solved = solveUnitFlows({ ...unit, restrictor: { ...unit.restrictor, boreMm: Math.exp(lnBore) } }, feed, at);
    return solved.ok && solved.value.wasteToProduct !== null ? Math.log(solved.value.wasteToProduct / measuredRatio) : Number.NaN;
  };
  const near = Math.log(unit.restrictor.boreMm);
  const root = findRoot(miss, near - 0.3, near + 0.3, 1e-6) ?? findRoot(miss, Math.log(0.2), Math.log(3), 1e-6);
  if (!root) {
    return fail(
      'wasteToProduct',
      Number(measuredRatio.toPrecision(3)),
      'a ratio this membrane and line pressure can make',
      `${measuredRatio.toFixed(1)} : 1 does not fit this membrane at this line pressure with any restrictor. Check pressure, temperature and both jugs.`,
    );
  }
  return ok(Math.exp(root.x));
}

/** Product of the unit under the conditions a jug was filled in, L/h; null where they cannot be solved. */
export function expectedProductLPerH(unit: MembraneUnit, water: Water, conditions: Omit<UnitConditions, 'temperatureC'>): number | null {
  const feed = speciesOfWater(water);
  const solved = feed.ok ? solveUnitFlows(unit, feed.value, { ...conditions, temperatureC: water.temperatureC }) : feed;
  return solved.ok && solved.value.permeateLPerH > 0 ? solved.value.permeateLPerH : null;
}

/**
 * Staged cutting: calibrate to what was measured, cut little, run, measure, calibrate again. A cut takes at
 * most a tenth of the present length and half of the predicted excess, for it cannot be undone.
 *
 * @param conditions pressures while the jugs were filled
 * @param target wanted waste : product
 */
export function trimAdvice(
  unit: MembraneUnit,
  water: Water,
  conditions: Omit<UnitConditions, 'temperatureC'>,
  measured: BucketResult,
  target: number,
): Outcome<TrimAdvice> {
  const species = speciesOfWater(water);
  if (!species.ok) return species;
  const feed = species.value;
  const at = { ...conditions, temperatureC: water.temperatureC };
  const bore = calibratedBore(unit, feed, at, measured.wasteToProduct);
  if (!bore.ok) return bore;
  const calibratedBoreMm = bore.value;
  const present = unit.restrictor.lengthMm;
  if (Math.abs(measured.wasteToProduct / target - 1) <= ON_TARGET) return ok({ kind: 'onTarget', calibratedBoreMm });

  const lengthWith = (boreMm: number): Outcome<number> =>
    lengthForRatio({ ...unit, restrictor: { lengthMm: present, boreMm } }, feed, at, target);
  const expected = lengthWith(calibratedBoreMm);
  if (measured.wasteToProduct > target) return ok({ kind: 'fitLonger', expectedMm: expected.ok ? expected.value : null, calibratedBoreMm });
  if (!expected.ok) return ok({ kind: 'fitLarger', calibratedBoreMm });

  const edge = (ratio: number): number => {
    const shifted = ratio < target ? calibratedBore(unit, feed, at, ratio) : bore;
    const length = shifted.ok ? lengthWith(shifted.value) : expected;
    return length.ok ? length.value : expected.value;
  };
  const excess = present - expected.value;
  const cutMm = excess < 2 * SMALLEST_CUT_MM ? excess : Math.max(SMALLEST_CUT_MM, Math.min(LARGEST_CUT * present, excess / 2));
  return ok({
    kind: 'cut',
    cutMm,
    lengthAfterMm: present - cutMm,
    expectedMm: expected.value,
    expectedLowMm: edge(measured.wasteToProduct - measured.uncertainty),
    expectedHighMm: edge(measured.wasteToProduct + measured.uncertainty),
    calibratedBoreMm,
  });
}
