import { feedPump, type Source, type StageOf, type Train } from '../file';
import { pumpOutletBar, type MembraneUnit, type UnitConditions, type UnitSolution } from '../membrane';
import type { CarbonState } from '../pretreatment';
import { fail, ok, type Outcome } from '../quantity';
import { settleWater, type Water, type WaterState } from '../water';
import { membraneUnit } from './membraneUnit';
import { inletBar, type Inlet } from './pressure';
import { withMembrane } from './throughMembrane';
import { tapStation, walkStages, type Collected, type ResinState, type Station, type Walk } from './walk';
import type { TrainUse } from './wear';

export interface SolvedTrain {
  /** Tap first, then one station a stage. */
  readonly stations: readonly Station[];
  readonly unit: UnitSolution | null;
  readonly unitStageId: string | null;
  /** The waste, where there is a membrane that makes any. */
  readonly waste: Station | null;
  /** The second pass and its waste, where there is one. */
  readonly secondPass?: { readonly unit: UnitSolution; readonly waste: Station } | null;
  readonly resins: readonly ResinState[];
  readonly carbons: readonly { readonly stageId: string; readonly state: CarbonState; readonly flowLPerH: number }[];
  readonly productLPerH: number;
  /** Water taken off for uses of its own, each with its stations. */
  readonly branches: readonly SolvedBranch[];
}

/** A branch: the station it leaves from, then one a stage. */
export interface SolvedBranch {
  readonly id: string;
  readonly stations: readonly Station[];
}

/** No housing here stands more. */
const MOST_BAR = 69;

/**
 * Solves a train from tap to last stage at its true operating point.
 *
 * Line pressure less filter losses drives the membrane; waste leaves through its restrictor; the product
 * meets the back-pressure of beds and lift behind it. Stages run in order; each leaves a station.
 *
 * @param feed the tap water at the temperature to solve for
 * @param use what the log says the resin has taken up
 * @returns the first error of any stage, naming its field
 */
export function solveTrain(train: Train, at0: Inlet, feed: Water, use: TrainUse = {}): Outcome<SolvedTrain> {
  const main = solveMain(train, at0, feed, use);
  return main.ok && train.branches.length > 0 ? withBranches(train, main.value, use) : main;
}

/** Each branch walked from where it leaves, at its own draw. */
function withBranches(train: Train, main: SolvedTrain, use: TrainUse): Outcome<SolvedTrain> {
  const branches: SolvedBranch[] = [];
  for (const branch of train.branches) {
    const from = main.stations.find((station) => station.after === branch.after);
    if (!from) continue;
    const into: Collected = { stations: [from], resins: [], carbons: [] };
    const end = walkStages(branch.stages, branch.drawLPerH, from, use, into);
    if (!end.ok) return end;
    branches.push({ id: branch.id, stations: into.stations });
  }
  return ok({ ...main, branches });
}

/** The train from tap to its last stage, without its branches. */
function solveMain(train: Train, at0: Inlet, feed: Water, use: TrainUse): Outcome<SolvedTrain> {
  const source = { linePressureBar: inletBar(at0) };
  const tapState = settleWater(feed);
  if (!tapState.ok) return tapState;
  const membranes = train.stages.filter((stage) => stage.kind === 'membrane');
  if (membranes.length > 2)
    return fail(
      'stages',
      membranes.length,
      'one or two membrane stages',
      `This train has ${membranes.length} membrane stages. Put elements that share a feed into one stage, as vessels in ranks.`,
    );
  if (membranes.length === 2) return twoPasses(train, source, feed, use);
  const at = train.stages.findIndex((stage) => stage.kind === 'membrane');
  return at < 0 ? withoutMembrane(train, source, feed, tapState.value, use) : withMembrane(train, at, source, feed, tapState.value, use);
}

/**
 * Two passes: the product of the first membrane is the feed of the second, lifted by its own pump. Without a tank
 * between them the second takes exactly what the first makes; from an open tank it runs at its own flow.
 */
function twoPasses(train: Train, source: Pick<Source, 'linePressureBar'>, feed: Water, use: TrainUse): Outcome<SolvedTrain> {
  const first = train.stages.findIndex((stage) => stage.kind === 'membrane');
  const second = train.stages.findLastIndex((stage) => stage.kind === 'membrane');
  const cut = train.stages.findLastIndex((stage, i) => stage.kind === 'pump' && i > first && i < second);
  const pump = train.stages[cut];
  if (pump?.kind !== 'pump')
    return fail(
      'stages',
      2,
      'a pump between the two membranes',
      'The second membrane has no pump of its own: the product of the first has no pressure left. Add a pump between them, or put both elements into one stage.',
    );
  const one = solveMain({ ...train, stages: train.stages.slice(0, cut) }, source, feed, use);
  if (!one.ok || !one.value.unit || one.value.unit.noProduction) return one;
  const product = one.value.stations.at(-1)!;
  const rests = train.stages.slice(first + 1, cut).some((stage) => stage.kind === 'tank' && stage.openToAir);
  const needed: StageOf<'pump'> = rests
    ? pump
    : { ...pump, pump: { kind: 'displacement', flowLPerH: one.value.productLPerH, reliefBar: MOST_BAR, energyRecovery: 0 } };
  const two = solveMain(
    { ...train, stages: [needed, ...train.stages.slice(cut + 1)] },
    { linePressureBar: product.pressureBar },
    product.water,
    use,
  );
  if (!two.ok) return two;
  const { unit } = two.value;
  if (!rests && unit) {
    const reached =
      pump.pump.kind === 'displacement' ? pump.pump.reliefBar : pumpOutletBar(pump.pump, product.pressureBar, unit.membraneFeedLPerH);
    if (unit.feedPressureBar > reached)
      return fail(
        'pump',
        Number(reached.toFixed(1)),
        `${unit.feedPressureBar.toFixed(1)} bar`,
        `${pump.name} reaches ${reached.toFixed(1)} bar at ${Math.round(unit.membraneFeedLPerH)} L/h; the second pass needs ${unit.feedPressureBar.toFixed(1)} bar. Fit a stronger pump, or open its waste.`,
      );
  }
  // A second pass behind a tank cannot go on making more than the first brings.
  const share = rests && unit ? Math.min(1, one.value.productLPerH / unit.feedLPerH) : 1;
  return ok({
    ...one.value,
    stations: [...one.value.stations, ...two.value.stations.slice(1)],
    resins: [...one.value.resins, ...two.value.resins],
    carbons: [...one.value.carbons, ...two.value.carbons],
    secondPass: unit && two.value.waste ? { unit, waste: two.value.waste } : null,
    productLPerH: two.value.productLPerH * share,
  });
}

function withoutMembrane(
  train: Train,
  source: Pick<Source, 'linePressureBar'>,
  feed: Water,
  tap: WaterState,
  use: TrainUse,
): Outcome<SolvedTrain> {
  const flowLPerH = train.drawLPerH;
  const start: Walk = { water: feed, state: tap, pressureBar: source.linePressureBar };
  const into: Collected = { stations: [tapStation(flowLPerH, start)], resins: [], carbons: [] };
  const end = walkStages(train.stages, flowLPerH, start, use, into);
  if (!end.ok) return end;
  return ok({ ...into, unit: null, unitStageId: null, waste: null, productLPerH: flowLPerH, branches: [] });
}

/** The last station: the water at the point of use. */
export function productStation(solved: SolvedTrain): Station {
  return solved.stations[solved.stations.length - 1] as Station;
}

/**
 * The last station before water only stands: where the trade reads its meter. An open tank takes up CO2,
 * which moves the meter but leaves nothing behind.
 */
export function polishedStation(solved: SolvedTrain): Station {
  return solved.stations.findLast((station) => station.kind !== 'tank') ?? productStation(solved);
}

/** The membrane unit of a solved train as it stands: what feeds it and what it works against. */
export interface MembraneOperation {
  readonly stage: StageOf<'membrane'>;
  readonly unit: MembraneUnit;
  readonly feed: Water;
  readonly conditions: Omit<UnitConditions, 'temperatureC'>;
}

/** Takes the membrane's operating conditions out of a solved train, to ask the unit alone; null without one. */
export function membraneOperation(train: Train, inlet: Inlet, solved: SolvedTrain): MembraneOperation | null {
  const at = train.stages.findIndex((stage) => stage.kind === 'membrane');
  const stage = train.stages[at];
  const feed = solved.stations[at];
  const { unit } = solved;
  if (stage?.kind !== 'membrane' || !feed || !unit) return null;
  const linePressureBar = inletBar(inlet);
  const broken = train.stages.slice(0, at).some((s) => s.kind === 'tank' && s.openToAir);
  const pump = feedPump(train.stages);
  // What the filters took: up to the pump, or up to the membrane.
  const beforePump = pump ? (solved.stations[train.stages.indexOf(pump)]?.pressureBar ?? 0) : unit.feedPressureBar;
  return {
    stage,
    unit: membraneUnit(stage),
    feed: feed.water,
    conditions: {
      linePressureBar: broken ? 0 : linePressureBar,
      prefilterBarPerLPerH: unit.feedLPerH > 0 ? Math.max(0, linePressureBar - beforePump) / unit.feedLPerH : 0,
      pump: pump?.pump ?? null,
      permeatePressureBar: solved.stations[at + 1]?.pressureBar ?? 0,
      law: 'mixture',
    },
  };
}
