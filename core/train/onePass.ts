import type { Train } from '../file';
import { ok, type Outcome } from '../quantity';
import { settleWater, type Water, type WaterState } from '../water';
import { inletBar, type Inlet } from './pressure';
import type { SolvedTrain } from './solved';
import { withMembrane, type Beforehand } from './throughMembrane';
import { behindTank, keptBy, tapStation, walkStages, type Collected, type Walk } from './walk';
import type { TrainUse } from '../stage';

/** A train with one membrane stage, or none. */
export function onePass(train: Train, inlet: Inlet, feed: Water, use: TrainUse, known?: Beforehand): Outcome<SolvedTrain> {
  const source = { linePressureBar: inletBar(inlet) };
  const tap = settleWater(feed);
  if (!tap.ok) return tap;
  const at = train.stages.findIndex((stage) => stage.kind === 'membrane');
  return at < 0 ? withoutMembrane(train, source, feed, tap.value, use) : withMembrane(train, at, source, feed, tap.value, use, known);
}

/** Water drawn straight through: it flows as fast as it is drawn. */
function withoutMembrane(
  train: Train,
  { linePressureBar }: { readonly linePressureBar: number },
  feed: Water,
  tap: WaterState,
  use: TrainUse,
): Outcome<SolvedTrain> {
  const flowLPerH = train.drawLPerH / keptBy(train.stages);
  const start: Walk = { water: feed, state: tap, pressureBar: linePressureBar };
  const into: Collected = { stations: [tapStation(flowLPerH, start)], resins: [], carbons: [] };
  const end = walkStages(train.stages, flowLPerH, start, use, into, null, behindTank(train));
  if (!end.ok) return end;
  return ok({ ...into, unit: null, unitStageId: null, waste: null, productLPerH: train.drawLPerH, branches: [] });
}
