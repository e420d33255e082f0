import type { BoughtSet, System } from '../file';
import { elementCount, isSeawaterElement, isSmallElement, pumpingKWhPerM3 } from '../membrane';
import { carbonLoadMgL } from '../pretreatment';
import { kindOf, unitRanks, type StageKind, type StageOf } from '../stage';
import type { SolvedTrain } from '../train';
import type { Figures, OptionLine } from './figures';
import { cartridgeNear, NOTHING } from './jobs';
import type { Judging } from './judging';
import { capitalRecovery } from './money';
import type { Plan, PlannedMembrane, PlannedResin, Upkeep } from './plan';

/** What stands today, and what may be bought whole, as plans to be held against the options. */

/** Efficiency of pump and motor where nothing else is known. */
const EFFICIENCY = 0.4;

function membraneToday(stage: StageOf<'membrane'>, softens: boolean, pumped: boolean, { unit }: SolvedTrain): PlannedMembrane | null {
  if (!unit || unit.noProduction || !(unit.recovery > 0)) return null;
  const bar = unit.feedPressureBar;
  const kW = (pumpingKWhPerM3(bar, 1, EFFICIENCY) * unit.membraneFeedLPerH) / 1000;
  const sea = isSeawaterElement(stage.elementClass);
  return {
    elementClass: stage.elementClass,
    ranks: unitRanks(stage),
    pump: pumped ? { bar, kW, part: 'booster', heldFeedLPerH: sea || unit.recycleLPerH > 0 ? unit.membraneFeedLPerH : null } : null,
    recovery: sea ? null : unit.recovery,
    softened: softens,
  };
}

/** Filters and carbons as they are: each carbon by the chlorine it is sold to take. */
function upkeepToday(filters: number, carbons: readonly StageOf<'carbon'>[], small: boolean, { water }: Judging): Upkeep[] {
  const taken = carbonLoadMgL(water.chlorineMgL, water.chloramineMgL);
  const often = small ? 2 : 4;
  return [
    ...(filters > 0 ? [{ line: 'prefilters', part: 'sediment', count: filters, timesAYear: often } as const] : []),
    ...(carbons.length > 0
      ? [
          {
            line: 'carbon',
            part: 'carbonBlock',
            count: carbons.reduce((sum, { volumeL }) => sum + volumeL, 0) / BLOCK_L,
            timesAYear: 2,
            ...(taken > 0 && { everyFeedL: (2 * carbons.reduce((sum, { ratedL }) => sum + ratedL, 0)) / taken }),
          } as const,
        ]
      : []),
  ];
}
/** What a carbon block of the price list holds, L: larger ones cost as many. */
const BLOCK_L = 0.5;

/** The train as it stands, as a plan that has been bought already; null where it makes nothing or is of two passes. */
export function planToday({ train }: Pick<System, 'train'>, solved: SolvedTrain, judging: Judging): Plan | null {
  const of = <K extends StageKind>(kind: K): StageOf<K>[] => train.stages.filter((stage): stage is StageOf<K> => stage.kind === kind);
  const membranes = of('membrane');
  if (membranes.length > 1) return null;
  const [stage] = membranes;
  const softeners = of('softener');
  const carbons = of('carbon');
  const beds = of('resin');
  const tanks = of('tank');
  const [lane] = of('decarboniser');
  const membrane = stage ? membraneToday(stage, softeners.length > 0, of('pump').length > 0, solved) : null;
  if (stage && !membrane) return null;
  const resin: PlannedResin | null =
    beds.length > 0 ? { beds: beds.length, litresEach: beds[0]!.volumeL, inSeries: beds.length > 1, priceFactor: 1 } : null;
  const small = !stage || isSmallElement(stage.elementClass);
  return {
    ...NOTHING,
    route: lane ? 'cartridge' : membrane ? (resin ? 'membraneAndResin' : 'membrane') : 'resin',
    membrane,
    membraneChange: stage ? { part: stage.elementClass, count: elementCount(unitRanks(stage)), years: null } : null,
    resin,
    carbon: carbons.length > 0 ? { blocks: carbons.length, litresEach: carbons[0]!.volumeL, chloramine: false } : null,
    cartridge: lane ? { capacityMeq: 1000 * lane.capacityEq, part: cartridgeNear(1000 * lane.capacityEq), bypass: lane.bypass } : null,
    scale: softeners.length > 0 ? 'softener' : of('inhibitor').length > 0 ? 'inhibitor' : 'nothing',
    softener: softeners[0] ?? null,
    blends: (stage?.bypassShare ?? 0) > 0,
    tankL: Math.max(0, ...tanks.map(({ volumeL }) => volumeL)),
    widthMm: Math.round(
      1000 * train.stages.reduce((sum, one) => sum + (kindOf(one).form === 'tank' ? 0 : kindOf(one).mounting(one).wallM), 0),
    ),
    owned: true,
    parts: [],
    upkeep: upkeepToday(of('sediment').length, carbons, small, judging),
    energyRecovery: 0,
  };
}

/** A year of a set that is bought whole: its own figures, on this job's water and prices. */
export function figuresOfBought(set: BoughtSet, { need, water, prices, horizonYears, rate }: Judging): Figures {
  const made = need.litresPerYear;
  const wasteL = made * set.wasteToProduct;
  const lines: Partial<Record<OptionLine, number>> = {
    capital: set.price * capitalRecovery(rate, horizonYears),
    prefilters: set.partsPerYear,
    energy: (made / 1000) * set.kWhPerM3 * prices.energyPerKWh,
    water: ((made + wasteL) / 1000) * prices.waterPerM3,
    sewer: (wasteL / 1000) * prices.sewerPerM3,
    visits: set.visitsPerYear * prices.visit,
  };
  const hours = set.productLPerH > 0 ? made / set.productLPerH : 0;
  return {
    annualCost: Object.values(lines).reduce((sum, amount) => sum + amount, 0),
    capital: set.price,
    lines,
    feedL: made + wasteL,
    wasteL,
    visitsPerYear: set.visitsPerYear,
    changesPerYear: 0,
    winterMargin: need.litresPerDay > 0 ? (set.productLPerH * need.hoursPerDay) / need.litresPerDay : Infinity,
    widthMm: 0,
    ppm: water.ppm,
    hours,
  };
}

/** Energy a litre of product takes, Wh, by what is paid for it; null where none is. */
export function whPerL({ lines, feedL, wasteL }: Figures, energyPerKWh: number): number | null {
  const made = feedL - wasteL;
  const wh = energyPerKWh > 0 && made > 0 ? (1000 * ((lines.energy ?? 0) / energyPerKWh)) / made : 0;
  return wh > LEAST_WH ? wh : null;
}
/** Less than this a litre is told of nobody's pump. */
const LEAST_WH = 0.05;
