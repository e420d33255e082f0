import { bedThroughput, ionicLoad, type BedThroughput } from '../exchange';
import type { System } from '../file';
import { checkGoal, demandLPerDay, goalLimits, prepareWater, smallestTankL, type Limit, type LimitCheck, type Prepared } from '../goal';
import { specificEnergyKWhPerM3 } from '../membrane';
import type { Outcome } from '../quantity';
import { settleWater, type Water } from '../water';
import { scaleOutlook, type ScaleOutlook } from './scaling';
import { stageBed } from './pressure';
import { polishedStation, productStation, solveTrain, type ResinUse, type SolvedTrain } from './solve';

/** What is known of a solved train: what the findings are made from, and what the foot line shows. */
export interface TrainFacts {
  readonly solved: SolvedTrain;
  readonly checks: readonly LimitCheck[];
  /** The product as it is used: with salt or minerals put back, or blended. */
  readonly prepared: Outcome<Prepared>;
  /** Smallest tank that never runs dry over the week, L; null when too little is made. */
  readonly smallestTankL: number | null;
  readonly winter: { readonly temperatureC: number; readonly productLPerDay: number; readonly ratio: number | null } | null;
  readonly scale: ScaleOutlook | null;
  readonly resin: { readonly throughput: BedThroughput; readonly beds: number; readonly carbonShare: number } | null;
  /** Electricity for a cubic metre of product; null without a pump. */
  readonly energyKWhPerM3: number | null;
  readonly demandLPerDay: number;
  /** Hours the unit runs for a day's need; null when it makes nothing. */
  readonly runHoursPerDay: number | null;
}

/**
 * Solves a system's train on its tap water and gathers what follows from it.
 *
 * @param feed the completed tap water, see `tapWater`
 * @param use equivalents each resin has taken up, from the log
 */
export function gatherFacts(system: System, feed: Water, use: ResinUse = {}): Outcome<TrainFacts> {
  const solved = solveTrain(system.train, system.source, feed, use);
  if (!solved.ok) return solved;
  const preference = system.units;
  const product = productStation(solved.value);
  const limits = goalLimits(system.goal, preference.ppmFactor);
  const need = demandLPerDay(system.goal.demand);
  const made = solved.value.productLPerH * 24;
  const prepared = prepareWater(system.goal.prepare, product.water, feed);
  const checks = checkPrepared(limits, prepared, solved.value);
  const producing = solved.value.productLPerH > 0;
  const facts: TrainFacts = {
    solved: solved.value,
    checks,
    prepared,
    smallestTankL: smallestTankL(system.goal.demand, made),
    winter: winterOutput(system, feed, use),
    scale: solved.value.unit ? scaleOutlook(solved.value.unit, system.train.scaleActionIndex) : null,
    resin: resinLife(system, solved.value),
    energyKWhPerM3: pumpEnergy(system, solved.value),
    demandLPerDay: need,
    runHoursPerDay: producing ? (24 * need) / made : null,
  };
  return { ok: true, value: facts };
}

/** Holds the goal against the water as it is used. Unprepared, its conductivity is judged where the meter is read. */
function checkPrepared(limits: readonly Limit[], prepared: Outcome<Prepared>, solved: SolvedTrain): LimitCheck[] {
  const product = productStation(solved);
  const used = prepared.ok && prepared.value.recipe.how !== 'none' ? settleWater(prepared.value.water) : null;
  if (prepared.ok && used?.ok) return checkGoal(limits, prepared.value.water, used.value);
  return checkGoal(limits, product.water, { ...product.state, ec25UScm: polishedStation(solved).state.ec25UScm });
}

/** Output and ratio at the lowest water temperature of the year. */
function winterOutput(system: System, feed: Water, use: ResinUse): TrainFacts['winter'] {
  const temperatureC = system.source.season.lowestTemperatureC;
  if (temperatureC >= feed.temperatureC - 0.5) return null;
  const cold = solveTrain(system.train, system.source, { ...feed, temperatureC }, use);
  if (!cold.ok || !cold.value.unit) return null;
  return { temperatureC, productLPerDay: cold.value.productLPerH * 24, ratio: cold.value.unit.wasteToProduct };
}

/** Pump and motor together (our estimates): small diaphragm, multistage, piston. */
const PUMP_EFFICIENCY = { booster: 0.3, centrifugal: 0.5, displacement: 0.75 } as const;

/** What the pump adds to all that flows through it, by cubic metre of product. */
function pumpEnergy(system: System, solved: SolvedTrain): number | null {
  const at = system.train.stages.findIndex((stage) => stage.kind === 'pump');
  const pump = system.train.stages[at];
  const { unit } = solved;
  if (pump?.kind !== 'pump' || !unit || unit.noProduction) return null;
  const inletBar = solved.stations[at]?.pressureBar ?? 0;
  const throughPump = unit.permeateLPerH / unit.membraneFeedLPerH;
  return specificEnergyKWhPerM3(Math.max(0, unit.feedPressureBar - inletBar), throughPump, PUMP_EFFICIENCY[pump.pump.kind]);
}

/** Litres the resin stages of a train treat, taken together, when new. */
function resinLife(system: System, solved: SolvedTrain): TrainFacts['resin'] {
  const first = solved.resins[0];
  if (!first || solved.productLPerH <= 0) return null;
  const beds = solved.resins.map((resin) => {
    const stage = system.train.stages.find((candidate) => candidate.id === resin.stageId);
    return stage?.kind === 'resin' ? stageBed(stage) : null;
  });
  if (beds.some((bed) => bed === null)) return null;
  const load = ionicLoad(first.feed);
  return {
    throughput: bedThroughput(
      beds.map((bed) => bed!),
      solved.resins.map((resin) => resin.utilisation),
      load,
    ),
    beds: beds.length,
    carbonShare: load.anionMeqL > 0 ? load.carbonMeqL / load.anionMeqL : 0,
  };
}
