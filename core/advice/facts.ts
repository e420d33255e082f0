import { lastTank, type System } from '../file';
import {
  demandLPerDay,
  productDemand,
  productLPerDay,
  hourlyNeedL,
  smallestTankL,
  strengthLimit,
  type Judgement,
  type StrengthLimit,
} from '../goal';
import { chemicalsPerDay, drainedLPerDay, ledgerOf, litresPerYear, priceList, type Ledger, type PriceList } from '../ledger';
import {
  feedSeasons,
  loopPolisherDays,
  loopState,
  partLives,
  resinLife,
  trainYear,
  worstMOhmCm,
  yearStandings,
  type PartLife,
  type ResinLife,
  type TrainYear,
} from '../life';
import { solveUnitFlows, speciesOfWater } from '../membrane';
import { ok, type Outcome } from '../quantity';
import { settleWater, type CompletedWater, type Water } from '../water';
import { judgeTrain } from './judged';
import { scaleLimits } from './service';
import { scaleOutlook, type ScaleOutlook } from './scaling';
import { bladderFillH, floatCycle, type FloatCycle } from '../storage';
import { gasOf, type TrainUse } from '../stage';
import {
  gasBar,
  inletBar,
  membraneOperation,
  polishedStation,
  seasonSpan,
  shutOffBar,
  solveTrain,
  wasteToProduct,
  type SolvedTrain,
} from '../train';

/** A tank with gas, filled against its own pressure. */
export interface BladderFacts {
  readonly heldL: number;
  readonly hours: number;
  readonly shutOffBar: number;
}

/** What is known of a solved train: what the findings are made from, and what the foot line shows. */
export interface TrainFacts {
  readonly solved: SolvedTrain;
  /** Conductivity of the tap as its meter read it, µS/cm at 25 °C; null where none was read, or two waters are mixed. */
  readonly tapReadUScm: number | null;
  /** What of the tap was measured and what assumed; null where nobody asks. */
  readonly tap: CompletedWater | null;
  /** What was judged: limit by limit, and the product as it is used, with salt or minerals put back, or blended. */
  readonly verdict: Judgement['verdict'];
  readonly checks: Judgement['checks'];
  readonly prepared: Judgement['prepared'];
  /** Conductivity the goal is judged by, where the trade reads its meter: before a tank's air, at a loop's outlets at their worst hour, µS/cm. */
  readonly judgedUScm: number;
  /** What the goal allows there; null where it says nothing of strength. */
  readonly strength: StrengthLimit | null;
  /** Smallest tank that never runs dry over the week, L; null when too little is made. */
  readonly smallestTankL: number | null;
  readonly winter: { readonly temperatureC: number; readonly productLPerDay: number; readonly ratio: number | null } | null;
  readonly scale: ScaleOutlook | null;
  readonly resin: ResinLife | null;
  /** Of a train with a loop: its outlets with the mean draw, and at the worst hour of the week. */
  readonly loop: { readonly restMOhmCm: number; readonly worstMOhmCm: number } | null;
  /** Electricity for a cubic metre of product; null without a pump. */
  readonly energyKWhPerM3: number | null;
  /** The train over the year of its water, as its use has left it. */
  readonly year: Omit<TrainYear, 'mean' | 'coldest'>;
  /** How long each part lasts. */
  readonly lives: readonly PartLife[];
  /** What a year costs to run, by line. */
  readonly ledger: Ledger;
  /** What each stage has been through, from the log. */
  readonly use: TrainUse;
  /** The last tank's float; null without a tank, or where its gas and not a float stops the unit. */
  readonly float: Outcome<FloatCycle> | null;
  /** A tank with gas: litres to be had, hours to fill it, and the pressure at which the unit stops; null without one. */
  readonly bladder: Outcome<BladderFacts> | null;
  /** Litres of product the need asks for a day: what is used, less the tap blended back. */
  readonly demandLPerDay: number;
  /** What is used a day, tap blended back included. */
  readonly usedLPerDay: number;
  /** Hours the unit runs for a day's need; null when it makes nothing. */
  readonly runHoursPerDay: number | null;
}

/**
 * Solves a system's train on its tap water and gathers what follows from it.
 *
 * @param feed the completed tap water, see `tapWater`
 * @param use what each stage has been through, from the log
 * @param near the same train solved before; only saves time
 * @param tap what of the tap was measured and what assumed; null where nobody asks
 */
export function gatherFacts(
  system: System,
  feed: Water,
  use: TrainUse = {},
  near?: SolvedTrain,
  tap: CompletedWater | null = null,
): Outcome<TrainFacts> {
  const solved = solveTrain(system.train, system.source, feed, use, near);
  if (!solved.ok) return solved;
  const need = productLPerDay(system.goal);
  const used = demandLPerDay(system.goal.demand);
  const made = solved.value.productLPerH * 24;
  const year = yearOf(system, feed, use);
  if (!year.ok) return year;
  const loop = loopState(system, solved.value);
  const judgement = judgeTrain(system, solved.value, feed, tap);
  const strength = strengthOf(system, solved.value);
  const books = booksOf(system, year.value, use, strength);
  const facts: TrainFacts = {
    solved: solved.value,
    tapReadUScm: tap?.readUScm ?? null,
    tap,
    ...judgement,
    strength,
    smallestTankL: smallestTankL(productDemand(system.goal), made),
    winter: winterOutput(feed, year.value),
    scale: solved.value.unit ? scaleOutlook(solved.value.unit, scaleLimits(system, solved.value)) : null,
    loop: loop?.ok ? { restMOhmCm: loop.value.restMOhmCm, worstMOhmCm: worstMOhmCm(loop.value.week) } : null,
    energyKWhPerM3: year.value.kWhPerM3,
    year: pageYear(year.value),
    ...books,
    use,
    float: floatOf(system, solved.value),
    bladder: bladderFacts(system, solved.value),
    demandLPerDay: need,
    usedLPerDay: used,
    runHoursPerDay: made > 0 ? (24 * need) / made : null,
  };
  return ok(facts);
}

/** A year without its solved trains: what is sent to a page. */
const pageYear = ({ mean: _, coldest: __, ...figures }: TrainYear): TrainFacts['year'] => figures;

/** A train over the year of its water, as its use has left it: from the same beginning whoever asks, so that it is the same to the digit. */
export function yearOf(system: System, feed: Water, use: TrainUse = {}): Outcome<TrainYear> {
  const state = settleWater(feed);
  if (!state.ok) return state;
  let last: SolvedTrain | undefined;
  const solve = (water: Water): Outcome<SolvedTrain> => {
    const solved = solveTrain(system.train, system.source, water, use, last);
    if (solved.ok) last = solved.value;
    return solved;
  };
  return trainYear(system, solve, feed, feedSeasons(seasonSpan(system.source, system.instruments), state.value.ec25UScm));
}

/** What is drawn of a train a day: its product, and tap blended back to it. */
export interface Drawn {
  readonly productLPerDay: number;
  readonly tapLPerDay: number;
}
const NOTHING_DRAWN: Drawn = { productLPerDay: 0, tapLPerDay: 0 };
const drawnOf = ({ goal }: Pick<System, 'goal'>): Drawn => {
  const need = productLPerDay(goal);
  return { productLPerDay: need, tapLPerDay: demandLPerDay(goal.demand) - need };
};

/**
 * What follows from a train's year: the life of its resin and of every part, and what a year of it costs.
 *
 * @param wanted what is drawn of it, where that is not what the goal says
 */
export function booksOf(
  system: System,
  year: TrainYear,
  use: TrainUse,
  strength: StrengthLimit | null,
  wanted: Drawn = drawnOf(system),
  prices: PriceList = priceList(system),
): Pick<TrainFacts, 'resin' | 'lives' | 'ledger'> {
  const drawn = year.produces ? wanted : NOTHING_DRAWN;
  const resin = resinLife(system, year, loopPolisherDays(system, year.mean), strength);
  const asked = { solved: year.mean, demandLPerDay: drawn.productLPerDay, use, year, resin };
  const standings = yearStandings(system, asked);
  const lives = partLives(system, asked, standings);
  const ledger = ledgerOf({
    prices,
    lives,
    year,
    drainedLPerDay: drainedLPerDay(standings),
    chemicalsPerDay: chemicalsPerDay(standings, prices),
    productLPerYear: litresPerYear(drawn.productLPerDay),
    tapLPerYear: litresPerYear(drawn.tapLPerDay),
    wasteUsedShare: system.choice.wasteUsedShare,
  });
  return { resin, lives, ledger };
}

/** What the goal allows the product's meter, on this tap and by what this product conducts. */
export function strengthOf({ goal, units }: Pick<System, 'goal' | 'units'>, solved: SolvedTrain): StrengthLimit | null {
  const { tdsMgL, ec25UScm } = polishedStation(solved).state;
  // What is nearly pure conducts by its carbon dioxide: no measure of solids.
  const mgPerUScm = ec25UScm > LEAST_USCM && tdsMgL > 0 ? tdsMgL / ec25UScm : undefined;
  return strengthLimit(goal, units.ppmFactor, mgPerUScm, solved.stations[0]!.state.ec25UScm);
}
const LEAST_USCM = 5;

/** Output and ratio on the coldest day of the year; null where today is no warmer. */
function winterOutput(feed: Water, { coldest }: TrainYear): TrainFacts['winter'] {
  const { temperatureC } = coldest.stations[0]!.water;
  if (temperatureC >= feed.temperatureC - 0.5 || !coldest.unit) return null;
  return { temperatureC, productLPerDay: coldest.productLPerH * 24, ratio: wasteToProduct(coldest) };
}

/** How often the float of the last tank starts the unit on a mean day. */
function floatOf(system: System, solved: SolvedTrain): TrainFacts['float'] {
  const tank = lastTank(system.train.stages);
  if (!tank || gasOf(tank) || !solved.unit || solved.productLPerH <= 0) return null;
  return floatCycle(tank, hourlyNeedL(productDemand(system.goal)), solved.productLPerH);
}

/** The last tank filled against its gas, by the same membrane unit at rising back-pressure. */
function bladderFacts(system: System, solved: SolvedTrain): TrainFacts['bladder'] {
  const stage = lastTank(system.train.stages);
  const tank = stage ? gasOf(stage) : null;
  const operation = membraneOperation(system.train, system.source, solved);
  const species = operation ? speciesOfWater(operation.feed) : null;
  if (!tank || !operation || !species?.ok) return null;
  const untilBar = shutOffBar(inletBar(system.source));
  const { temperatureC } = operation.feed;
  // What else stands behind the membrane, beds and lift, stays as it is.
  const restBar = operation.conditions.permeatePressureBar - gasBar(stage!, inletBar(system.source));
  const against = (tankBar: number): number => {
    const unit = solveUnitFlows(operation.unit, species.value, {
      ...operation.conditions,
      temperatureC,
      permeatePressureBar: restBar + tankBar,
    });
    return unit.ok ? unit.value.permeateLPerH : 0;
  };
  const filled = bladderFillH(tank, untilBar, against);
  return filled.ok ? { ok: true, value: { ...filled.value, shutOffBar: untilBar } } : filled;
}
