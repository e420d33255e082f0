import { feedPump, type Source, type Stage, type StageOf, type Train } from '../file';
import {
  ELEMENT_ROWS,
  pumpOutletBar,
  roughFlows,
  solveMembraneUnit,
  type MembraneUnit,
  type UnitConditions,
  type UnitSolution,
  type VesselRank,
} from '../membrane';
import type { CarbonState } from '../pretreatment';
import { fail, ok, type Outcome } from '../quantity';
import { mixWaters, settleWater, type Water, type WaterState } from '../water';
import { gasBar, inletBar, riseBar, slopeOf, type Inlet } from './pressure';
import { walkStages, waterAfter, type ResinState, type Station, type Walk } from './walk';
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

/** How the elements of a membrane stage stand to each other. */
export function unitRanks({ arrangement, ranks }: Pick<StageOf<'membrane'>, 'arrangement' | 'ranks'>): readonly VesselRank[] {
  const one = { vessels: 1, elementsPerVessel: 1 };
  switch (arrangement) {
    case 'array':
      return ranks.length > 0 ? ranks : [one];
    case 'single':
      return [one];
    case 'parallel':
      return [{ vessels: 2, elementsPerVessel: 1 }];
    case 'series':
      return [one, one];
  }
}

/** The membrane stage as the membrane room takes it. */
export function membraneUnit(stage: StageOf<'membrane'>): MembraneUnit {
  return {
    row: ELEMENT_ROWS[stage.elementClass],
    ranks: unitRanks(stage),
    factors: { water: stage.waterFactor ?? 1, salt: stage.saltFactor ?? 1 },
    restrictor: stage.restrictor,
    valve: stage.valve,
    recycleLPerH: stage.recycleLPerH,
    recycleKv: stage.recycleKv,
  };
}

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
    const into = { stations: [from] as Station[], resins: [] as ResinState[], carbons: [] as SolvedTrain['carbons'][number][] };
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
  const into = { stations: [tapStation(flowLPerH, start)], resins: [] as ResinState[], carbons: [] as SolvedTrain['carbons'][number][] };
  const end = walkStages(train.stages, flowLPerH, start, use, into);
  if (!end.ok) return end;
  return ok({ ...into, unit: null, unitStageId: null, waste: null, productLPerH: flowLPerH, branches: [] });
}

const tapStation = (flowLPerH: number, walk: Walk): Station => ({ after: 'tap', name: 'Tap', kind: 'tap', flowLPerH, ...walk });

/** Chlorine a change of flow may still move before the feed of the membrane counts as settled, mg/L. */
const SETTLED_MG_L = 1e-4;
const SETTLED_BAR = 2e-3;

function withMembrane(
  train: Train,
  at: number,
  source: Pick<Source, 'linePressureBar'>,
  feed: Water,
  tap: WaterState,
  use: TrainUse,
): Outcome<SolvedTrain> {
  const stage = train.stages[at] as StageOf<'membrane'>;
  const before = train.stages.slice(0, at);
  const behind = train.stages.slice(at + 1);
  const unit = membraneUnit(stage);
  const t = feed.temperatureC;
  // A tank open to air ahead of the membrane leaves it no line pressure at all.
  const broken = before.some((s) => s.kind === 'tank' && s.openToAir);
  const tankLiftBar = Math.max(
    0,
    behind.reduce((sum, s) => sum + riseBar(s) + gasBar(s, source.linePressureBar), 0),
  );
  // What is lifted before the membrane is lost to it.
  const feedRiseBar = before.reduce((sum, s) => sum + riseBar(s), 0);

  const pump = feedPump(train.stages)?.pump ?? null;
  const rough = roughFlows(unit, source.linePressureBar, t);
  let feedFlow = pump?.kind === 'displacement' ? Math.max(1, pump.flowLPerH - stage.recycleLPerH) : rough.feedLPerH;
  let productFlow = rough.productLPerH;
  let near: UnitSolution | undefined;
  for (let round = 0; round < 8; round++) {
    const start: Walk = { water: feed, state: tap, pressureBar: source.linePressureBar };
    const into = { stations: [] as Station[], resins: [] as ResinState[], carbons: [] as SolvedTrain['carbons'][number][] };
    const ahead = feedTo(before, feed, feedFlow, use);
    if (!ahead.ok) return ahead;
    const slope = before.reduce((sum, s) => sum + slopeOf(s, feedFlow, t), 0);
    const backBar = tankLiftBar + behind.reduce((sum, s) => sum + slopeOf(s, productFlow, t) * productFlow, 0);
    const solved = solveMembraneUnit(
      unit,
      ahead.value,
      {
        linePressureBar: broken ? 0 : Math.max(0, source.linePressureBar - feedRiseBar),
        prefilterBarPerLPerH: slope,
        pump,
        permeatePressureBar: backBar,
        law: 'mixture',
      },
      near,
    );
    if (!solved.ok) return solved;
    near = solved.value;
    feedFlow = solved.value.feedLPerH + (solved.value.permeateLPerH * stage.bypassShare) / (1 - stage.bypassShare);
    productFlow = solved.value.permeateLPerH > 0 ? solved.value.permeateLPerH : productFlow;
    const again = feedTo(before, feed, feedFlow, use);
    if (!again.ok) return again;
    const backAgain = tankLiftBar + behind.reduce((sum, s) => sum + slopeOf(s, productFlow, t) * productFlow, 0);
    // Tubing is not laminar: its loss does not go in proportion to the flow.
    const slopeAgain = before.reduce((sum, s) => sum + slopeOf(s, feedFlow, t), 0);
    const unsettled =
      disinfectant(again.value, ahead.value) > SETTLED_MG_L ||
      Math.abs(backAgain - backBar) > SETTLED_BAR ||
      Math.abs(slopeAgain - slope) * feedFlow > SETTLED_BAR;
    if (unsettled && round < 7) continue;

    into.stations.push(tapStation(feedFlow, start));
    const reached = walkStages(before, feedFlow, start, use, into, pump ? solved.value.feedPressureBar : null);
    if (!reached.ok) return reached;
    const joined = joinRecycle(into.stations, solved.value, reached.value.state.pH);
    if (!joined.ok) return joined;
    return behindMembrane(stage, behind, solved.value, reached.value, use, into, backBar);
  }
  return fail('stages', null, 'a train that settles', 'The flow through this train does not settle; check filters and restrictor.');
}

/** From the pump on it is the mixture that flows: a meter there reads feed and recycle together. */
function joinRecycle(stations: Station[], unit: UnitSolution, pH: number): Outcome<void> {
  if (unit.recycleLPerH === 0) return ok(undefined);
  const state = settleWater(unit.mixedFeed, pH);
  if (!state.ok) return state;
  const from = stations.findLastIndex((station) => station.kind === 'pump');
  for (let i = from; i >= 0 && i < stations.length; i++) {
    stations[i] = { ...stations[i]!, water: unit.mixedFeed, state: state.value, flowLPerH: unit.membraneFeedLPerH };
  }
  return ok(undefined);
}

/** The water that reaches the membrane at a flow. */
function feedTo(before: readonly Stage[], feed: Water, flowLPerH: number, use: TrainUse): Outcome<Water> {
  let water = feed;
  for (const stage of before) {
    const after = waterAfter(stage, water, flowLPerH, use);
    if (!after.ok) return after;
    water = after.value.water;
  }
  return ok(water);
}

const disinfectant = (a: Water, b: Water): number =>
  Math.abs(a.mgL.chlorine - b.mgL.chlorine) + Math.abs(a.mgL.chloramine - b.mgL.chloramine);

function behindMembrane(
  stage: StageOf<'membrane'>,
  behind: readonly Stage[],
  unit: UnitSolution,
  reached: Walk,
  use: TrainUse,
  into: { stations: Station[]; resins: ResinState[]; carbons: SolvedTrain['carbons'][number][] },
  backBar: number,
): Outcome<SolvedTrain> {
  const concentrate = settleWater(unit.concentrate, reached.state.pH);
  if (!concentrate.ok) return concentrate;
  const waste: Station = {
    after: stage.id,
    name: 'Waste',
    kind: 'membrane',
    flowLPerH: unit.concentrateLPerH,
    pressureBar: unit.concentratePressureBar,
    water: unit.concentrate,
    state: concentrate.value,
  };
  const done = { ...into, unit, unitStageId: stage.id, waste, productLPerH: unit.permeateLPerH / (1 - stage.bypassShare), branches: [] };
  // Nothing is made: the stations end at the feed of the membrane.
  if (!unit.permeate) return ok(done);
  const product = withBypass(stage, unit, unit.permeate, reached.water);
  if (!product.ok) return product;
  const { water, flowLPerH } = product.value;
  const state = settleWater(water, reached.state.pH - 1.3);
  if (!state.ok) return state;
  const start: Walk = { water, state: state.value, pressureBar: backBar };
  into.stations.push({ after: stage.id, name: stage.name, kind: 'membrane', flowLPerH, ...start });
  const end = walkStages(behind, flowLPerH, start, use, into);
  if (!end.ok) return end;
  return ok(done);
}

/** Product with the share of feed that is led past the membrane. */
function withBypass(
  stage: StageOf<'membrane'>,
  unit: UnitSolution,
  permeate: Water,
  feed: Water,
): Outcome<{ water: Water; flowLPerH: number }> {
  const share = stage.bypassShare;
  if (share === 0) return ok({ water: permeate, flowLPerH: unit.permeateLPerH });
  const flowLPerH = unit.permeateLPerH / (1 - share);
  const mixed = mixWaters([
    { water: permeate, volumeL: unit.permeateLPerH },
    { water: feed, volumeL: flowLPerH - unit.permeateLPerH },
  ]);
  return mixed.ok ? ok({ water: mixed.value, flowLPerH }) : mixed;
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
