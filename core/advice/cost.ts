import { kindOf, type Stage, type Standing, type Upkeep } from '../stage';
import type { Prices } from '../file';
import type { BedThroughput } from '../exchange';
import type { SolvedTrain } from '../train';

/** What a cubic metre of product costs to make, in the job's currency, by what it is paid for. */
export interface WaterCost {
  readonly water: number;
  readonly sewer: number;
  readonly power: number;
  readonly resin: number;
  /** Cartridges, filters, lamps and salt, as often as they are changed. */
  readonly parts: number;
  /** The membrane and its unit, by the year. */
  readonly unit: number;
  readonly total: number;
}

/** What it costs to buy some stages, or what fills them, again. */
export const fillingOf = (stages: readonly Stage[], prices: Prices): number =>
  stages.reduce((sum, stage) => sum + (kindOf(stage).price(stage, prices) ?? 0), 0);

const DAYS_PER_YEAR = 365;

/** Days from one change to the next, by time or by litres, whichever comes first. */
function daysBetween(upkeep: Upkeep, litresPerDay: number): number {
  const litres = upkeep.litresNew ?? upkeep.litresLeft;
  const byLitres = litres !== undefined && litresPerDay > 0 ? litres / litresPerDay : Infinity;
  return Math.min(byLitres, upkeep.afterDays ?? Infinity, upkeep.everyDays ?? Infinity);
}

/** What the parts of some stages cost a day that are bought again and again. */
export const partsPerDay = (standings: readonly Standing<Stage>[], prices: Prices): number =>
  standings.reduce((sum, standing) => {
    const { stage, litresPerDay } = standing;
    const kind = kindOf(stage);
    const price = kind.price(stage, prices);
    if (price === null) return sum;
    return kind.upkeep(stage, standing).reduce((all, one) => all + (price * (one.takes ?? 1)) / daysBetween(one, litresPerDay), sum);
  }, 0);

/**
 * Cost of a cubic metre of product: the water bought for it, the waste led away, the pumps' power, the resin, the parts
 * that are changed, and the membrane unit by the year.
 *
 * @param standings the stages of the train and of its uses, each where it stands
 * @param energyKWhPerM3 null without a pump
 * @param resin litres the resins of the train last when new; null without resin
 * @param demandLPerDay what parts changed by the calendar are spread over; at 0 they are left out
 * @returns null when nothing is made
 */
export function waterCost(
  prices: Prices,
  standings: readonly Standing<Stage>[],
  solved: SolvedTrain,
  energyKWhPerM3: number | null,
  resin: BedThroughput | null,
  demandLPerDay: number,
): WaterCost | null {
  if (!(solved.productLPerH > 0)) return null;
  const drawn = solved.stations[0]!.flowLPerH / solved.productLPerH;
  const resins = standings.filter(({ stage }) => solved.resins.some(({ stageId }) => stageId === stage.id));
  const filling = fillingOf(
    resins.map(({ stage }) => stage),
    prices,
  );
  const aM3 = (perDay: number): number => (demandLPerDay > 0 ? (1000 * perDay) / demandLPerDay : 0);
  const cost = {
    water: drawn * prices.waterPerM3,
    sewer: (drawn - 1) * prices.sewerPerM3,
    power: (energyKWhPerM3 ?? 0) * prices.powerPerKWh,
    resin: resin?.until.kind === 'litres' ? (1000 * filling) / resin.until.litres : 0,
    parts: aM3(partsPerDay(standings, prices)),
    unit: solved.unit ? aM3(prices.membranePerYear / DAYS_PER_YEAR) : 0,
  };
  return { ...cost, total: Object.values(cost).reduce((sum, part) => sum + part, 0) };
}
