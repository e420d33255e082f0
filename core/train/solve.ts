import { feedPump, type Train } from '../file';
import { type StageOf, membraneUnit, type TrainUse } from '../stage';
import type { MembraneUnit, UnitConditions } from '../membrane';
import { fail, ok, type Outcome } from '../quantity';
import type { Water } from '../water';
import { onePass } from './onePass';
import { inletBar, type Inlet } from './pressure';
import type { SolvedBranch, SolvedTrain } from './solved';
import { NOTHING_KNOWN } from './throughMembrane';
import { twoPasses } from './twoPasses';
import { walkStages, type Collected } from './walk';

/**
 * Solves a train from tap to last stage at its true operating point.
 *
 * Line pressure less filter losses drives the membrane; waste leaves through its restrictor; the product
 * meets the back-pressure of beds and lift behind it. Stages run in order; each leaves a station.
 *
 * @param feed the tap water at the temperature to solve for
 * @param use what the log says the resin has taken up
 * @param near the same train solved before, new, colder or as it was a moment ago; only saves time
 * @returns the first error of any stage, naming its field
 */
export function solveTrain(train: Train, inlet: Inlet, feed: Water, use: TrainUse = {}, near?: SolvedTrain): Outcome<SolvedTrain> {
  const main = solveMain(train, inlet, feed, use, near);
  return main.ok && train.branches.length > 0 ? withUses(train, main.value, use) : main;
}

/** Each use taken off a train, walked from where it leaves, at its own draw. */
export function withUses(train: Pick<Train, 'branches'>, main: SolvedTrain, use: TrainUse = {}): Outcome<SolvedTrain> {
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
function solveMain(train: Train, inlet: Inlet, feed: Water, use: TrainUse, near: SolvedTrain | undefined): Outcome<SolvedTrain> {
  const membranes = train.stages.filter((stage) => stage.kind === 'membrane').length;
  if (membranes > 2)
    return fail(
      'stages',
      membranes,
      'one or two membrane stages',
      `This train has ${membranes} membrane stages. Put elements that share a feed into one stage, as vessels in ranks.`,
    );
  if (membranes === 2) return twoPasses(train, inlet, feed, use);
  return onePass(train, inlet, feed, use, { ...NOTHING_KNOWN, near: near?.unit ?? undefined });
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
  const { unit } = solved;
  // From the pump on it is the mixture with what is led back that flows; the unit mixes for itself.
  const lastPump = unit && unit.recycleLPerH > 0 ? train.stages.findLastIndex((s, i) => s.kind === 'pump' && i < at) : -1;
  const feed = solved.stations[lastPump < 0 ? at : lastPump];
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
