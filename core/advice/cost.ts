import { kindOf, type Stage } from '../stage';
import type { Prices } from '../file';
import type { BedThroughput } from '../exchange';
import type { SolvedTrain } from '../train';

/** What a cubic metre of product costs to make, in the job's currency. */
export interface WaterCost {
  readonly water: number;
  readonly sewer: number;
  readonly power: number;
  readonly resin: number;
  readonly total: number;
}

/**
 * Cost of a cubic metre of product: the water bought for it, the waste led away, the pump's power and the resin.
 *
 * @param energyKWhPerM3 null without a pump
 * @param resin litres the resins of the train last when new; null without resin
 * @returns null when nothing is made
 */
export function waterCost(
  prices: Prices,
  stages: readonly Stage[],
  solved: SolvedTrain,
  energyKWhPerM3: number | null,
  resin: BedThroughput | null,
): WaterCost | null {
  if (!(solved.productLPerH > 0)) return null;
  const drawn = solved.stations[0]!.flowLPerH / solved.productLPerH;
  const resins = stages.filter((stage) => solved.resins.some(({ stageId }) => stageId === stage.id));
  const filling = resins.reduce((sum, stage) => sum + (kindOf(stage).price(stage, prices) ?? 0), 0);
  const parts = {
    water: drawn * prices.waterPerM3,
    sewer: (drawn - 1) * prices.sewerPerM3,
    power: (energyKWhPerM3 ?? 0) * prices.powerPerKWh,
    resin: resin?.until.kind === 'litres' ? (1000 * filling) / resin.until.litres : 0,
  };
  return { ...parts, total: parts.water + parts.sewer + parts.power + parts.resin };
}
