import { feedPump, type Train } from '../file';
import { kindOf, type Stage, type StageOf, membraneUnit, type TrainUse } from '../stage';
import { roughFlows, solveMembraneUnit, withProtons, type UnitSolution } from '../membrane';
import { fail, ok, type Outcome } from '../quantity';
import { mixWaters, settleWater, type Water, type WaterState } from '../water';
import { gasBar, liftedBar, riseBar, slopeOf } from './pressure';
import type { SolvedTrain } from './solved';
import { behindTank, keptBy, tapStation, waterAfter, walkStages, type BehindTank, type Collected, type Station, type Walk } from './walk';

/** Chlorine a change of flow may still move before the feed of the membrane counts as settled, mg/L. */
const SETTLED_MG_L = 1e-4;
const SETTLED_BAR = 2e-3;
/** What is mixed with water led back must be settled as near as the balance is kept. */
const SETTLED_SHARE = 1e-8;
const ROUNDS = 12;

/** Water that comes back to the membrane's feed, before its pump, from a pass behind it. */
export interface Returned {
  readonly water: Water | null;
  readonly flowLPerH: number;
}
export const NOTHING_RETURNED: Returned = { water: null, flowLPerH: 0 };

/** What a membrane may know beforehand: what comes back to it, and the solution of the round before. */
export interface Beforehand {
  readonly returned: Returned;
  readonly near: UnitSolution | undefined;
  /** What it makes is fed to another pass, not drawn. */
  readonly feedsAnother: boolean;
}
export const NOTHING_KNOWN: Beforehand = { returned: NOTHING_RETURNED, near: undefined, feedsAnother: false };

/** A train with one membrane: how far its feed, its filters and its back-pressure move each other is found in rounds. */
export function withMembrane(
  train: Train,
  at: number,
  source: { readonly linePressureBar: number },
  feed: Water,
  tap: WaterState,
  use: TrainUse,
  { returned, near: nearby, feedsAnother }: Beforehand = NOTHING_KNOWN,
): Outcome<SolvedTrain> {
  const stage = train.stages[at] as StageOf<'membrane'>;
  const before = train.stages.slice(0, at);
  const behind = train.stages.slice(at + 1);
  const unit = membraneUnit(stage);
  const t = feed.temperatureC;
  const tankLiftBar = Math.max(
    0,
    behind.reduce((sum, s) => sum + riseBar(s) + gasBar(s, source.linePressureBar), 0),
  );
  // What is lifted before the membrane is lost to it.
  const feedRiseBar = before.reduce((sum, s) => sum + riseBar(s), 0);
  // All that is drawn passes the shared stages; only what the membrane takes passes its own.
  const shared = before.slice(0, takenOff(stage, before));
  const own = before.slice(shared.length);
  const lossBar = (flows: Flows): number => lossOf(shared, flows.drawnLPerH, t) + lossOf(own, flows.freshLPerH, t);
  // Behind an open tank nothing pushes back.
  const open = behind.findIndex((s) => kindOf(s).breaksPressure(s));
  const pushing = open < 0 ? behind : behind.slice(0, open + 1);
  const backBar = (productLPerH: number): number => tankLiftBar + lossOf(pushing, productLPerH, t);

  const fedBy = feedPump(train.stages) ?? null;
  const pump = fedBy?.pump ?? null;
  // Pumps ahead of the membrane's own lift what comes to it.
  const lineBar = (flows: Flows): number =>
    Math.max(0, liftedBar(before, fedBy?.id ?? null, flows.freshLPerH, source.linePressureBar) - feedRiseBar);
  let near = nearby?.noProduction ? undefined : nearby;
  const rough = near ? { feedLPerH: near.feedLPerH, productLPerH: near.permeateLPerH } : roughFlows(unit, source.linePressureBar, t);
  const roughFeed = pump?.kind === 'displacement' && !near ? Math.max(1, pump.flowLPerH - stage.recycleLPerH) : rough.feedLPerH;
  let flows = flowsOf(stage, returned, roughFeed, rough.productLPerH);
  let productFlow = rough.productLPerH;
  let ahead = feedTo(shared, own, feed, flows, use, returned);
  for (let round = 0; round < ROUNDS; round++) {
    if (!ahead.ok) return ahead;
    const slope = lossBar(flows) / Math.max(flows.feedLPerH, 1e-9);
    const back = backBar(productFlow);
    const conditions = {
      linePressureBar: lineBar(flows),
      prefilterBarPerLPerH: slope,
      pump,
      permeatePressureBar: back,
      law: 'mixture',
    } as const;
    const solved = solveMembraneUnit(unit, ahead.value, conditions, near);
    if (!solved.ok) return solved;
    near = solved.value;
    const assumed = flows;
    flows = flowsOf(stage, returned, near.feedLPerH, near.permeateLPerH);
    if (near.permeateLPerH > 0) productFlow = near.permeateLPerH;
    const again = feedTo(shared, own, feed, flows, use, returned);
    if (!again.ok) return again;
    // Tubing is not laminar: its loss does not go in proportion to the flow.
    const unsettled =
      (returned.flowLPerH > 0 && Math.abs(flows.freshLPerH - assumed.freshLPerH) > SETTLED_SHARE * flows.freshLPerH) ||
      disinfectant(again.value, ahead.value) > SETTLED_MG_L ||
      Math.abs(backBar(productFlow) - back) > SETTLED_BAR ||
      Math.abs(lossBar(flows) - slope * flows.feedLPerH) > SETTLED_BAR ||
      Math.abs(lineBar(flows) - conditions.linePressureBar) > SETTLED_BAR;
    if (unsettled && round < ROUNDS - 1) {
      ahead = again;
      continue;
    }

    const start: Walk = { water: feed, state: tap, pressureBar: source.linePressureBar };
    const into: Collected = { stations: [tapStation(flows.drawnLPerH, start)], resins: [], carbons: [] };
    const fed = fedBy && { pumpId: fedBy.id, bar: near.feedPressureBar };
    const parting = walkStages(shared, flows.drawnLPerH, start, use, into, fed);
    if (!parting.ok) return parting;
    const reached = walkStages(own, flows.freshLPerH, parting.value, use, into, fed);
    if (!reached.ok) return reached;
    const crossed = withProtons(unit, near, ahead.value, conditions);
    const joined = joinRecycle(into.stations, crossed, reached.value.state.pH, returned);
    if (!joined.ok) return joined;
    return behindMembrane(
      stage,
      behind,
      crossed,
      reached.value,
      parting.value.water,
      use,
      into,
      back,
      feedsAnother ? null : behindTank(train),
    );
  }
  return fail('stages', null, 'a train that settles', 'The flow through this train does not settle; check filters and restrictor.');
}

/** What is drawn from the tap, what of it goes to the membrane, and what the membrane takes with what comes back, L/h. */
interface Flows {
  readonly drawnLPerH: number;
  readonly freshLPerH: number;
  readonly feedLPerH: number;
}

/** The membrane's feed, and beside it what is led past the membrane to what it makes. */
function flowsOf({ bypassShare }: StageOf<'membrane'>, { flowLPerH: back }: Returned, feedLPerH: number, permeateLPerH: number): Flows {
  const freshLPerH = Math.max(1e-3, feedLPerH - back);
  return { drawnLPerH: freshLPerH + (permeateLPerH * bypassShare) / (1 - bypassShare), freshLPerH, feedLPerH };
}

/** Pressure a run of stages takes at a flow, without what lift takes, bar. */
const lossOf = (stages: readonly Stage[], flowLPerH: number, temperatureC: number): number =>
  stages.reduce((sum, stage) => sum + slopeOf(stage, flowLPerH, temperatureC), 0) * flowLPerH;

/** How many of the stages ahead the water led past the membrane goes through: up to where it is taken off, or all. */
function takenOff({ bypassAfter }: StageOf<'membrane'>, before: readonly Stage[]): number {
  const at = before.findIndex((stage) => stage.id === bypassAfter);
  return at < 0 ? before.length : at + 1;
}

/** From the pump on it is the mixture that flows: a meter there reads the feed and all that is led back together. */
function joinRecycle(stations: Station[], unit: UnitSolution, pH: number, returned: Returned): Outcome<void> {
  if (unit.recycleLPerH === 0 && returned.flowLPerH === 0) return ok(undefined);
  const state = settleWater(unit.mixedFeed, pH);
  if (!state.ok) return state;
  const from = stations.findLastIndex((station) => station.kind === 'pump');
  for (let i = from; i >= 0 && i < stations.length; i++) {
    stations[i] = { ...stations[i]!, water: unit.mixedFeed, state: state.value, flowLPerH: unit.membraneFeedLPerH };
  }
  return ok(undefined);
}

/** The water that reaches the membrane: through what all of it passes, then its own share's stages, then what comes back. */
function feedTo(
  shared: readonly Stage[],
  own: readonly Stage[],
  feed: Water,
  flows: Flows,
  use: TrainUse,
  returned: Returned,
): Outcome<Water> {
  let water = feed;
  for (const [stages, flowLPerH] of [
    [shared, flows.drawnLPerH],
    [own, flows.freshLPerH],
  ] as const) {
    for (const stage of stages) {
      const after = waterAfter(stage, water, flowLPerH, use);
      if (!after.ok) return after;
      water = after.value.water;
    }
  }
  if (!returned.water || returned.flowLPerH === 0) return ok(water);
  return mixWaters([
    { water, volumeL: flows.freshLPerH },
    { water: returned.water, volumeL: returned.flowLPerH },
  ]);
}

const disinfectant = (a: Water, b: Water): number =>
  Math.abs(a.mgL.chlorine - b.mgL.chlorine) + Math.abs(a.mgL.chloramine - b.mgL.chloramine);

function behindMembrane(
  stage: StageOf<'membrane'>,
  behind: readonly Stage[],
  unit: UnitSolution,
  reached: Walk,
  past: Water,
  use: TrainUse,
  into: Collected,
  backBar: number,
  drawn: BehindTank | null,
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
  const done = {
    ...into,
    unit,
    unitStageId: stage.id,
    waste,
    productLPerH: (unit.permeateLPerH / (1 - stage.bypassShare)) * keptBy(behind),
    branches: [],
  };
  // Nothing is made: the stations end at the feed of the membrane.
  if (!unit.permeate) return ok(done);
  const product = withBypass(stage, unit, unit.permeate, past);
  if (!product.ok) return product;
  const { water, flowLPerH } = product.value;
  const state = settleWater(water, reached.state.pH - 1.3);
  if (!state.ok) return state;
  const start: Walk = { water, state: state.value, pressureBar: backBar };
  into.stations.push({ after: stage.id, name: stage.name, kind: 'membrane', flowLPerH, ...start });
  const end = walkStages(behind, flowLPerH, start, use, into, null, drawn);
  if (!end.ok) return end;
  return ok(done);
}

/** Product with the share of water that is led past the membrane. */
function withBypass(
  stage: StageOf<'membrane'>,
  unit: UnitSolution,
  permeate: Water,
  past: Water,
): Outcome<{ water: Water; flowLPerH: number }> {
  const share = stage.bypassShare;
  if (share === 0) return ok({ water: permeate, flowLPerH: unit.permeateLPerH });
  const flowLPerH = unit.permeateLPerH / (1 - share);
  const mixed = mixWaters([
    { water: permeate, volumeL: unit.permeateLPerH },
    { water: past, volumeL: flowLPerH - unit.permeateLPerH },
  ]);
  return mixed.ok ? ok({ water: mixed.value, flowLPerH }) : mixed;
}
