import { timesPerYear, type PartLife, type TrainYear } from '../life';
import { DAYS_PER_YEAR } from '../quantity';
import { kindOf, PART_LINES, type ChemicalUse, type PartLine, type Stage, type Standing } from '../stage';
import type { PriceList } from './prices';

/** What a system costs a year to run, line by line: every panel that shows money reads it here. */

/** Lines of cost, in the order they are shown; visits and buying are counted only where they are asked for. */
export const COST_LINES = [...PART_LINES, 'chemicals', 'water', 'sewer', 'energy', 'visits', 'capital', 'penalties'] as const;
export type CostLine = PartLine | 'chemicals' | 'water' | 'sewer' | 'energy' | 'visits' | 'capital' | 'penalties';
export type Costs = Readonly<Partial<Record<CostLine, number>>>;

/** What running a system is made of, whoever does the work. */
export const RUNNING_COSTS = [...PART_LINES, 'chemicals', 'water', 'sewer', 'energy'] as const satisfies readonly CostLine[];

/** Lines of cost as they are called. */
export const COST_WORDS: Readonly<Record<CostLine, string>> = {
  resin: 'Resin',
  cartridges: 'Cartridges',
  carbon: 'Carbon',
  prefilters: 'Filters and parts',
  membrane: 'Membrane',
  salt: 'Salt',
  chemicals: 'Chemicals',
  water: 'Water',
  sewer: 'Sewer',
  energy: 'Power',
  visits: 'Visits',
  capital: 'Buying, by the year',
  penalties: 'Spoiled water',
};

/** One part's share: what is bought, how often, at what price. */
export interface PartCost {
  readonly life: PartLife;
  readonly line: PartLine;
  /** What one time costs. */
  readonly each: number;
  readonly perYear: number;
}

export interface Ledger {
  readonly lines: Costs;
  /** All lines but visits and buying. */
  readonly running: number;
  readonly visits: number;
  readonly parts: readonly PartCost[];
  /** Litres of product, of tap water and of waste in a year. */
  readonly productL: number;
  readonly feedL: number;
  readonly wasteL: number;
  /** Of the waste, what is used for something else. */
  readonly usedL: number;
  readonly kWh: number;
  /** The part changed most often sets how often somebody has to come; all else is changed on those visits. */
  readonly visitsPerYear: number;
}

/** What one time of a part's work costs: what is bought for it. */
export const workCost = ({ brings, takes, pays }: Pick<PartLife, 'brings' | 'takes' | 'pays'>, prices: PriceList): number =>
  brings ? pays.reduce((sum, stage) => sum + takes * (kindOf(stage).price(stage, prices) ?? 0), 0) : 0;

/** Litres a day the stages themselves send to the drain: the rinses of a regeneration. */
export const drainedLPerDay = (standings: readonly Standing<Stage>[]): number =>
  standings.reduce((sum, standing) => sum + standing.litresPerDay * kindOf(standing.stage).drainShare(standing.stage, standing), 0);

const chemicalUses = (standings: readonly Standing<Stage>[]): ChemicalUse[] =>
  standings.flatMap((standing) => kindOf(standing.stage).chemicals(standing.stage, standing));

/** What acid, alkali and the like cost a day. */
export const chemicalsPerDay = (standings: readonly Standing<Stage>[], { piece }: Pick<PriceList, 'piece'>): number =>
  chemicalUses(standings).reduce((sum, use) => sum + use.kgPerDay * piece(use.piece), 0);

/** What of acid, alkali and the like the stages use up, each once. */
export const chemicalsUsed = (standings: readonly Standing<Stage>[]): ChemicalUse['piece'][] => [
  ...new Set(chemicalUses(standings).map(({ piece }) => piece)),
];

/** Litres a year of a need by the day. */
export const litresPerYear = (perDay: number): number => perDay * DAYS_PER_YEAR;

/** What is drawn and drained, and what of the waste is used for something else. */
export interface WaterDrawn {
  readonly feedL: number;
  readonly wasteL: number;
  readonly usedL: number;
}
/** What water costs to buy and to let go: waste that is used saves as much bought water, and is not drained (science of options, 3). */
export const waterCosts = (
  { feedL, wasteL, usedL }: WaterDrawn,
  { waterPerM3, sewerPerM3 }: Pick<PriceList, 'waterPerM3' | 'sewerPerM3'>,
): { readonly water: number; readonly sewer: number } => ({
  water: ((feedL - usedL) / 1000) * waterPerM3,
  sewer: ((wasteL - usedL) / 1000) * sewerPerM3,
});

export interface LedgerAsked {
  readonly prices: PriceList;
  readonly lives: readonly PartLife[];
  readonly year: Pick<TrainYear, 'feedPerL' | 'kWhPerM3'>;
  /** Litres a day the stages send to the drain beside the waste. */
  readonly drainedLPerDay: number;
  /** What acid, alkali and the like cost a day. */
  readonly chemicalsPerDay: number;
  /** Litres of product made in a year, and of tap that is blended back to them afterwards. */
  readonly productLPerYear: number;
  readonly tapLPerYear?: number;
  /** Share of the waste that is used for something else. */
  readonly wasteUsedShare: number;
}

/** The ledger of a year: water, waste and power by the litre, every part by its life. */
export function ledgerOf({
  prices,
  lives,
  year,
  drainedLPerDay,
  chemicalsPerDay,
  productLPerYear,
  tapLPerYear = 0,
  wasteUsedShare,
}: LedgerAsked): Ledger {
  const parts = lives.map((life): PartCost => {
    const each = workCost(life, prices);
    return { life, line: kindOf(life.stage).costLine, each, perYear: each * timesPerYear(life) };
  });
  // What a regeneration rinses out is salt: nobody uses it.
  const ofMembraneL = productLPerYear * (year.feedPerL - 1);
  const wasteL = ofMembraneL + litresPerYear(drainedLPerDay);
  const usedL = wasteUsedShare * ofMembraneL;
  const feedL = productLPerYear + wasteL + tapLPerYear;
  const kWh = (productLPerYear / 1000) * (year.kWhPerM3 ?? 0);
  const lines: Partial<Record<CostLine, number>> = {};
  const book = (line: CostLine, amount: number): void => {
    if (amount > 0) lines[line] = (lines[line] ?? 0) + amount;
  };
  for (const { line, perYear } of parts) book(line, perYear);
  book('chemicals', chemicalsPerDay * DAYS_PER_YEAR);
  const { water, sewer } = waterCosts({ feedL, wasteL, usedL }, prices);
  book('water', water);
  book('sewer', sewer);
  book('energy', kWh * prices.powerPerKWh);
  const running = Object.values(lines).reduce((sum, amount) => sum + amount, 0);
  const visitsPerYear = Math.max(0, ...parts.filter(({ life }) => life.brings).map(({ life }) => timesPerYear(life)));
  const visits = visitsPerYear * prices.visit;
  book('visits', visits);
  return { lines, running, visits, parts, productL: productLPerYear, feedL, wasteL, usedL, kWh, visitsPerYear };
}

/** A line by the cubic metre of product. */
export const perM3 = (amountPerYear: number, { productL }: Pick<Ledger, 'productL'>): number =>
  productL > 0 ? (1000 * amountPerYear) / productL : 0;

/** What a train costs to buy: each piece with its housing, and a frame by the wall it takes. */
export function buyingCost(stages: readonly Stage[], prices: PriceList): number {
  const wallM = stages.reduce((sum, stage) => sum + (kindOf(stage).form === 'tank' ? 0 : kindOf(stage).mounting(stage).wallM), 0);
  return stages.reduce((sum, stage) => sum + kindOf(stage).buys(stage, prices), 0) + prices.piece('frame') * Math.max(LEAST_FRAME_M, wallM);
}
/** The least a frame is priced as, metres of wall. */
const LEAST_FRAME_M = 0.5;

/** What it costs to fill some stages, or buy what fills them, again. */
export const fillingOf = (stages: readonly Stage[], prices: PriceList): number =>
  stages.reduce((sum, stage) => sum + (kindOf(stage).price(stage, prices) ?? 0), 0);
