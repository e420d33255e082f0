import {
  boreForRatio,
  lengthForRatio,
  solveUnitFlows,
  speciesOfWater,
  type FeedSpecies,
  type MembraneUnit,
  type UnitConditions,
} from '../membrane';
import { fail, ok, type Outcome } from '../quantity';
import { ratedMlPerMin, soldRestrictor, type StageOf } from '../stage';
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
  | {
      /** One that is not cut: the size as sold that gives the target, and what it would give; null beyond the largest sold. */
      readonly kind: 'fitSize';
      readonly mLPerMin: number | null;
      readonly calibratedBoreMm: number;
    }
  | { readonly kind: 'fitLonger'; readonly expectedMm: number | null; readonly calibratedBoreMm: number }
  | { readonly kind: 'fitLarger'; readonly calibratedBoreMm: number };

/** Close enough to stop cutting (common practice). */
const ON_TARGET = 0.05;
/** Most a cut may raise the ratio by: farther the law of a tube is not trusted from one measurement (ours). */
const MOST_TIMES = 2.5;
/** Left beyond the safe edge by the first cut, as a share of the length wanted: what the law may be off by (ours). */
const MARGIN = 0.15;
/** Nobody cuts less than this with a tube cutter. */
const SMALLEST_CUT_MM = 2;

/**
 * The bore with which the model shows the measured ratio at the present length: a label's bore is nominal,
 * and the ratio feels its fourth power.
 */
export function calibratedBore(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, measuredRatio: number): Outcome<number> {
  const bore = boreForRatio(unit, feed, at, measuredRatio);
  if (bore === null) {
    return fail(
      'wasteToProduct',
      Number(measuredRatio.toPrecision(3)),
      'a ratio this membrane and line pressure can make',
      `${measuredRatio.toFixed(1)} : 1 does not fit this membrane at this line pressure with any restrictor. Check pressure, temperature and both jugs.`,
    );
  }
  return ok(bore);
}

/** Product of the unit under the conditions a jug was filled in, L/h; null where they cannot be solved. */
export function expectedProductLPerH(unit: MembraneUnit, water: Water, conditions: Omit<UnitConditions, 'temperatureC'>): number | null {
  const feed = speciesOfWater(water);
  const solved = feed.ok ? solveUnitFlows(unit, feed.value, { ...conditions, temperatureC: water.temperatureC }) : feed;
  return solved.ok && solved.value.permeateLPerH > 0 ? solved.value.permeateLPerH : null;
}

/**
 * Staged cutting: calibrate to what was measured, cut, run, measure, calibrate again. A cut cannot be undone: while much is
 * to come off it goes to the longest tube the jugs allow for the ratio, with a margin; near the end it takes half of what
 * is left. A restrictor that is not cut is changed for a size as sold.
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
  form: StageOf<'membrane'>['restrictor']['form'] = 'tube',
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

  if (form === 'fixed') {
    const wanted = boreForRatio(unit, feed, at, target);
    // What the measured one passes against its print, the next size will against its own.
    const times = (boreMm: number): number => ratedMlPerMin({ lengthMm: present, boreMm });
    const mLPerMin = wanted === null ? null : soldRestrictor((times(unit.restrictor.boreMm) * times(wanted)) / times(calibratedBoreMm));
    return ok({ kind: 'fitSize', mLPerMin, calibratedBoreMm });
  }

  const lengthWith = (boreMm: number, ratio = target): Outcome<number> =>
    lengthForRatio({ ...unit, restrictor: { lengthMm: present, boreMm } }, feed, at, ratio);
  const expected = lengthWith(calibratedBoreMm);
  if (measured.wasteToProduct > target) return ok({ kind: 'fitLonger', expectedMm: expected.ok ? expected.value : null, calibratedBoreMm });
  if (!expected.ok) return ok({ kind: 'fitLarger', calibratedBoreMm });

  const edge = (ratio: number): number => {
    const shifted = ratio < target ? calibratedBore(unit, feed, at, ratio) : bore;
    const length = shifted.ok ? lengthWith(shifted.value) : expected;
    return length.ok ? length.value : expected.value;
  };
  const [low, high] = [edge(measured.wasteToProduct - measured.uncertainty), edge(measured.wasteToProduct + measured.uncertainty)];
  const within = lengthWith(calibratedBoreMm, Math.min(target, MOST_TIMES * measured.wasteToProduct));
  const safe = (1 + MARGIN) * Math.max(low, high, within.ok ? within.value : expected.value);
  const excess = present - expected.value;
  const cutMm =
    excess < 2 * SMALLEST_CUT_MM ? excess : Math.max(SMALLEST_CUT_MM, present - safe, Math.min(excess / 2, present - Math.max(low, high)));
  return ok({
    kind: 'cut',
    cutMm,
    lengthAfterMm: present - cutMm,
    expectedMm: expected.value,
    expectedLowMm: low,
    expectedHighMm: high,
    calibratedBoreMm,
  });
}
