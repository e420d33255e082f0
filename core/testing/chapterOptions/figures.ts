import { sizeSoftener } from '../../exchange';
import { BED_USED, mixedBedPerLitre } from './routes';
import { CACO3_G_PER_EQ } from '../../water';
import { DAYS_PER_YEAR } from '../../quantity';
import type { ChapterLine } from './lines';
import { lifeYears } from './answers';
import { blendShare, marginOf, type ChoiceWater, type Judging } from './judging';
import { capitalRecovery } from '../../choice/money';
import { capitalOf, type Plan, type PlannedResin } from './plan';

/** What a train costs a year to buy and to keep, by what it is paid for (science of options, 3 and 4). */

/** Lines of cost of an option: what is bought, and the lines of a year. */
export type OptionLine = 'capital' | ChapterLine;
export interface Figures {
  readonly annualCost: number;
  readonly capital: number;
  readonly lines: Readonly<Partial<Record<OptionLine, number>>>;
  readonly feedL: number;
  readonly wasteL: number;
  /** The most often of all that is changed: everything else is changed on those visits. */
  readonly visitsPerYear: number;
  /** Changes of resin or of a cartridge a year. */
  readonly changesPerYear: number;
  /** What it makes on the coldest day at the end of its membrane, against the need of a day. */
  readonly winterMargin: number;
  readonly widthMm: number;
  /** Strength of what leaves the membrane, mean of the year; of the tap without one. */
  readonly ppm: number;
  readonly hours: number;
}

/** Cartridges are changed before they are wholly spent. */
const CARTRIDGE_USED = 0.9;
/** What stands longest in water is changed once a year all the same. */
const LEAST_CHANGES = 1;
/** Hardness tied to alkalinity that a lane lets through, as a share (common practice). */
export const LANE_LEAK = 0.03;
/** Margin of an option that makes its water as fast as it is drawn. */
const AMPLE_MARGIN = 3;

/** Litres of resin a year's water takes, and how often beds are changed for it. */
function resinOf(
  { beds, litresEach, inSeries }: PlannedResin,
  litres: number,
  load: { readonly cationMeqL: number; readonly anionMeqL: number },
): { readonly changes: number; readonly litres: number } {
  const lead = inSeries && beds > 1;
  const taken = litres * mixedBedPerLitre(load, lead ? BED_USED.lead : BED_USED.alone);
  const changed = lead ? litresEach : beds * litresEach;
  const changes = Math.max(LEAST_CHANGES, taken / changed);
  return { changes, litres: changes * changed };
}

/** Litres a cartridge gives with its bypass. */
export function cartridgeLitres(
  { capacityMeq, bypass }: NonNullable<Plan['cartridge']>,
  water: Pick<ChoiceWater, 'hardnessMgL' | 'alkalinityMgL'>,
): number {
  const taken = ((1 - bypass) * (1 - LANE_LEAK) * Math.min(water.hardnessMgL, water.alkalinityMgL)) / CACO3_G_PER_EQ;
  return taken > 0 ? capacityMeq / taken : Infinity;
}

/** Salt, and water of regenerations, for a year's feed. */
function softeningOf(
  softener: NonNullable<Plan['softener']>,
  feedL: number,
  hardnessMgL: number,
): { readonly saltKg: number; readonly rinseL: number } {
  const plan = sizeSoftener({
    ...softener,
    hardnessMgL: Math.max(0.1, hardnessMgL),
    ironMgL: 0,
    litresPerDay: Math.max(0.01, feedL / DAYS_PER_YEAR),
  });
  if (!plan.ok) return { saltKg: 0, rinseL: 0 };
  const times = feedL / plan.value.litresBetween;
  return { saltKg: times * plan.value.saltKg, rinseL: times * (plan.value.rinseL + plan.value.brineFillL) };
}

/** A year of a plan; null where its membrane makes nothing. */
export function figuresOf(plan: Plan, judging: Judging): Figures | null {
  const { water, need, prices, ageing, horizonYears, rate, asked } = judging;
  const { membrane } = plan;
  const answers = membrane ? asked(membrane) : null;
  const year = answers?.year() ?? null;
  const cold = answers?.coldOld() ?? null;
  if (membrane && (!year || !cold)) return null;
  const made = need.litresPerYear;
  const blend = cold ? blendShare(plan, cold, judging) : 0;
  const through = year ? made * (1 - blend) : 0;
  const membraneFeedL = year ? through * year.feedPerL : 0;
  const regeneration = plan.softener ? softeningOf(plan.softener, membraneFeedL, water.hardnessMgL) : { saltKg: 0, rinseL: 0 };
  const feedL = (year ? membraneFeedL + made * blend : made) + regeneration.rinseL;
  const wasteL = feedL - made;
  const lines: Partial<Record<OptionLine, number>> = {};
  const book = (line: OptionLine, amount: number): void => {
    if (amount > 0) lines[line] = (lines[line] ?? 0) + amount;
  };

  const capital = capitalOf(plan, prices);
  book('capital', capital * capitalRecovery(rate, horizonYears));
  const often: number[] = [];
  if (plan.resin) {
    const load = year ? { ...year, anionMeqL: year.anionMeqL - (plan.degassed ? DEGASSED * year.gasMeqL : 0) } : water;
    const resin = resinOf(plan.resin, made, load);
    often.push(resin.changes);
    book('resin', resin.litres * prices.resinPerL * plan.resin.priceFactor);
  }
  if (plan.cartridge) {
    const changes = Math.max(LEAST_CHANGES, made / (CARTRIDGE_USED * cartridgeLitres(plan.cartridge, water)));
    often.push(changes);
    book('resin', changes * prices.part(plan.cartridge.part));
  }
  const changesPerYear = Math.max(0, ...often);
  for (const { line, part, count, timesAYear, everyFeedL, everyProductL } of plan.upkeep) {
    const times = Math.max(timesAYear, feedL / (everyFeedL ?? Infinity), made / (everyProductL ?? Infinity));
    often.push(times);
    book(line, times * count * prices.part(part));
  }
  if (plan.membraneChange) {
    const { part, count, years } = plan.membraneChange;
    book('membrane', (count * prices.part(part)) / (years ?? lifeYears(ageing)));
  }
  const hours = year ? through * year.hoursPerL : 0;
  const recovered = year && plan.energyRecovery > 0 ? plan.energyRecovery * (1 - 1 / year.feedPerL) : 0;
  book('energy', ((membrane?.pump?.kW ?? 0) * (1 - recovered) * hours + (through / 1000) * plan.kWhPerM3) * prices.energyPerKWh);
  book('water', (feedL / 1000) * prices.waterPerM3);
  book('sewer', (wasteL / 1000) * prices.sewerPerM3);
  book('salt', regeneration.saltKg * prices.saltPerKg);
  const visitsPerYear = Math.max(0, ...often);
  book('visits', visitsPerYear * prices.visit);
  return {
    annualCost: Object.values(lines).reduce((sum, amount) => sum + amount, 0),
    capital,
    lines,
    feedL,
    wasteL,
    visitsPerYear,
    changesPerYear,
    winterMargin: cold ? marginOf(cold.productLPerH, blend, need) : AMPLE_MARGIN,
    widthMm: plan.widthMm,
    ppm: year?.ppm ?? water.ppm,
    hours,
  };
}
/** Share of the carbon dioxide a degasser takes out (common practice). */
const DEGASSED = 0.85;
