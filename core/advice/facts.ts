import { feedPump, lastTank, type System } from '../file';
import {
  demandLPerDay,
  productDemand,
  productLPerDay,
  hourlyNeedL,
  judge,
  smallestTankL,
  strengthLimit,
  type Judgement,
  type StrengthLimit,
} from '../goal';
import { pumpingKWhPerM3, solveUnitFlows, speciesOfWater } from '../membrane';
import type { Outcome } from '../quantity';
import type { CompletedWater, Water } from '../water';
import { scaleActionIndex } from './service';
import { scaleOutlook, type ScaleOutlook } from './scaling';
import { bladderFillH, floatCycle, type FloatCycle } from '../storage';
import { waterCost, type WaterCost } from './cost';
import { loopReport, worstMOhmCm, type LoopReport } from './loop';
import { resinLife, type ResinLife } from './resinLife';
import { branchStandings, trainStandings } from './standing';
import { gasOf, type StageOf, type TrainUse } from '../stage';
import { gasBar, inletBar, shutOffBar, membraneOperation, solveTrain, polishedStation, productStation, type SolvedTrain } from '../train';

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
  /** What a cubic metre of product costs; null when nothing is made. */
  readonly cost: WaterCost | null;
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
  const { ppmFactor } = system.units;
  const need = productLPerDay(system.goal);
  const made = solved.value.productLPerH * 24;
  const loop = loopReport(system, solved.value);
  const product = productStation(solved.value);
  const judgedUScm = loop?.ok ? 1 / worstMOhmCm(loop.value) : polishedStation(solved.value).state.ec25UScm;
  const judgement = judge(system.goal, ppmFactor, {
    product: product.water,
    state: { ...product.state, ec25UScm: judgedUScm },
    tapWater: feed,
    tap,
  });
  const producing = solved.value.productLPerH > 0;
  const facts: TrainFacts = {
    solved: solved.value,
    tapReadUScm: tap?.readUScm ?? null,
    ...judgement,
    judgedUScm,
    strength: strengthOf(system, solved.value),
    smallestTankL: smallestTankL(productDemand(system.goal), made),
    winter: winterOutput(system, feed, use, solved.value),
    scale: solved.value.unit ? scaleOutlook(solved.value.unit, scaleActionIndex(system, solved.value)) : null,
    resin: resinLife(system, solved.value, loop?.ok ? loop.value : null),
    loop: loop?.ok ? { restMOhmCm: loop.value.restMOhmCm, worstMOhmCm: worstMOhmCm(loop.value) } : null,
    energyKWhPerM3: pumpEnergy(system, solved.value),
    cost: costOf(system, solved.value, loop?.ok ? loop.value : null),
    float: floatOf(system, solved.value),
    bladder: bladderFacts(system, solved.value),
    demandLPerDay: need,
    usedLPerDay: demandLPerDay(system.goal.demand),
    runHoursPerDay: producing ? (24 * need) / made : null,
  };
  return { ok: true, value: facts };
}

/** What the goal allows the product's meter, on this tap and by what this product conducts. */
export function strengthOf({ goal, units }: Pick<System, 'goal' | 'units'>, solved: SolvedTrain): StrengthLimit | null {
  const { tdsMgL, ec25UScm } = polishedStation(solved).state;
  // What is nearly pure conducts by its carbon dioxide: no measure of solids.
  const mgPerUScm = ec25UScm > LEAST_USCM && tdsMgL > 0 ? tdsMgL / ec25UScm : undefined;
  return strengthLimit(goal, units.ppmFactor, mgPerUScm, solved.stations[0]!.state.ec25UScm);
}
const LEAST_USCM = 5;

/** Output and ratio at the lowest water temperature of the year. */
function winterOutput(system: System, feed: Water, use: TrainUse, today: SolvedTrain): TrainFacts['winter'] {
  const temperatureC = system.source.season.lowestTemperatureC;
  if (temperatureC >= feed.temperatureC - 0.5) return null;
  const cold = solveTrain(system.train, system.source, { ...feed, temperatureC }, use, today);
  if (!cold.ok || !cold.value.unit) return null;
  return { temperatureC, productLPerDay: cold.value.productLPerH * 24, ratio: cold.value.unit.wasteToProduct };
}

/** What a cubic metre costs as a train runs; null when nothing is made. */
export function costOf(system: System, solved: SolvedTrain, loop: LoopReport | null = loopOf(system, solved)): WaterCost | null {
  const resin = resinLife(system, solved, loop)?.throughput ?? null;
  const need = productLPerDay(system.goal);
  // What is changed in the uses taken off is paid for as well.
  const uses = system.train.branches.flatMap((branch) => {
    const found = solved.branches.find(({ id }) => id === branch.id);
    return found ? branchStandings(branch, found.stations, system.units) : [];
  });
  const standings = [...trainStandings(system, solved, need), ...uses];
  return waterCost(system.prices, standings, solved, pumpEnergy(system, solved), resin, need);
}

function loopOf(system: System, solved: SolvedTrain): LoopReport | null {
  const loop = loopReport(system, solved);
  return loop?.ok ? loop.value : null;
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

/** Pump and motor together (our estimates): small diaphragm, multistage, piston. */
const PUMP_EFFICIENCY = { booster: 0.3, centrifugal: 0.5, displacement: 0.75 } as const;

/** What a pump lifts, by how much, and what comes back of it. */
interface Pumped {
  readonly pump: StageOf<'pump'>;
  readonly bar: number;
  readonly litresPerL: number;
  /** Waste that a recovery device takes pressure from, per litre of product. */
  readonly waste: { readonly bar: number; readonly litresPerL: number } | null;
}

/** Every pump of a train, by litre of what it makes in the end. */
function pumpedOf({ train }: System, solved: SolvedTrain): Pumped[] {
  const made = solved.productLPerH;
  return train.stages.flatMap((pump, i): Pumped[] => {
    if (pump.kind !== 'pump') return [];
    const [before, after] = [solved.stations[i], solved.stations[i + 1]];
    if (!before || !after || made <= 0) return [];
    const next = train.stages.slice(i + 1).find(({ kind }) => kind === 'membrane' || kind === 'pump');
    const second = solved.secondPass?.waste.after === next?.id ? solved.secondPass : null;
    const unit = next?.kind === 'membrane' ? (second?.unit ?? (next.id === solved.unitStageId ? solved.unit : null)) : null;
    if (!unit) return [{ pump, bar: Math.max(0, after.pressureBar - before.pressureBar), litresPerL: 1, waste: null }];
    const share = second?.runShare ?? 1;
    return [
      {
        pump,
        bar: Math.max(0, unit.feedPressureBar - before.pressureBar),
        litresPerL: (unit.membraneFeedLPerH * share) / made,
        waste: { bar: unit.concentratePressureBar, litresPerL: (unit.concentrateLPerH * share) / made },
      },
    ];
  });
}

/**
 * Electricity of all pumps by cubic metre of what the train makes in the end, kWh; null without a pump.
 *
 * @param energyRecovery share of the waste's pressure given back to the first; its own where it is not said
 */
export function pumpEnergy(system: System, solved: SolvedTrain, energyRecovery?: number): number | null {
  if (!feedPump(system.train.stages) || !solved.unit || solved.unit.noProduction) return null;
  return pumpedOf(system, solved).reduce((sum, { pump, bar, litresPerL, waste }, i) => {
    const own = pump.pump.kind === 'displacement' ? pump.pump.energyRecovery : 0;
    const back = i === 0 ? (energyRecovery ?? own) : own;
    return sum + pumpingKWhPerM3(bar, litresPerL, PUMP_EFFICIENCY[pump.pump.kind], waste, back);
  }, 0);
}
