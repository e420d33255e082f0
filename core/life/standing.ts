import type { Branch, System } from '../file';
import { GOAL_ROWS, goalLimits } from '../goal';
import { MAX_CHLORINE_MG_L } from '../membrane';
import { carbonRowLitres, type CarbonState } from '../pretreatment';
import type { UnitPreference } from '../quantity';
import { kindOf, type Stage, type StageOf, type Standing, type TrainUse } from '../stage';
import { litresPerProduct, runsInto, type SolvedBranch, type SolvedTrain, type Station } from '../train';

/** A stage where it stands: what comes in, what leaves, and how much of it. */
export type StageStanding = Standing<Stage>;

/** Chlorine a living tank, or a cup, is spared where the goal itself names no limit, mg/L (common practice). */
const LEAST_MG_L = 0.05;

/** What chlorine may come through a row of carbons: what its membrane bears, or what the goal allows. */
const mostChlorine = (system: System, at: number): number =>
  system.train.stages.slice(at).some(({ kind }) => kind === 'membrane') ? MAX_CHLORINE_MG_L : servedChlorineMgL(system);

/** Chlorine and chloramine the product may hold where it is used, mg/L. */
export function servedChlorineMgL({ goal, units }: Pick<System, 'goal' | 'units'>): number {
  const limit = goalLimits(goal, units.ppmFactor).find(({ quantity }) => quantity === 'chlorineMgL');
  return limit?.high ?? (GOAL_ROWS[goal.id].living ? LEAST_MG_L : MAX_CHLORINE_MG_L);
}

/** Carbons that stand in one flow, one after the other, with nothing that drinks the water between them. */
function rowsOf(stages: readonly Stage[]): StageOf<'carbon'>[][] {
  const rows: StageOf<'carbon'>[][] = [[]];
  for (const stage of stages) {
    if (stage.kind === 'carbon') rows.at(-1)!.push(stage);
    else if (stage.kind === 'membrane' || stage.kind === 'resin') rows.push([]);
  }
  return rows.filter((row) => row.length > 0);
}

/**
 * The state of each carbon with the life of its row: litres until too much chlorine comes through the last of them, new
 * and from now. Carbons in a row have one life, for what the first lets through the next has to take.
 */
export function carbonStates(system: System, solved: SolvedTrain, use: TrainUse = {}): ReadonlyMap<string, CarbonState> {
  const found = new Map<string, CarbonState>();
  const { stages } = system.train;
  for (const row of rowsOf(stages)) {
    const at = stages.indexOf(row[0]!);
    const [first, station] = [solved.carbons.find(({ stageId }) => stageId === row[0]!.id), solved.stations[at]];
    if (!first || !station) continue;
    const carbons = (passed: boolean): Parameters<typeof carbonRowLitres>[0] =>
      row.map(({ id, medium, volumeL, ratedL, ratedAgainst }) => ({
        medium,
        volumeL,
        ratedL,
        ratedAgainst,
        passedL: passed ? (use[id]?.passedL ?? 0) : 0,
      }));
    const most = mostChlorine(system, at);
    const water = { temperatureC: station.water.temperatureC, pH: station.state.pH };
    const litresNew = carbonRowLitres(carbons(false), station.water, first.flowLPerH, most, water);
    const used = row.some(({ id }) => (use[id]?.passedL ?? 0) > 0);
    const litresLeft = used ? carbonRowLitres(carbons(true), station.water, first.flowLPerH, most, water) : litresNew;
    for (const { id } of row) {
      const own = solved.carbons.find(({ stageId }) => stageId === id)?.state;
      if (own) found.set(id, { ...own, litresNew, litresLeft });
    }
  }
  return found;
}

/** What a solved train has to know for its stages to be told where they stand. */
export interface SolvedUse {
  readonly solved: SolvedTrain;
  readonly demandLPerDay: number;
  /** What each stage has been through, from the log. */
  readonly use?: TrainUse;
  /** Litres through each stage for a litre of product, mean of the year; as it runs today where it is not given. */
  readonly throughPerL?: readonly number[];
}

/** The stages of the train, each where it stands: up to the membrane they see all feed, behind it the product. */
export function trainStandings(system: System, { solved, demandLPerDay, use = {}, throughPerL }: SolvedUse): StageStanding[] {
  const { stages } = system.train;
  const carbons = carbonStates(system, solved, use);
  return stages.flatMap((stage, i) => {
    const [before, after] = [runsInto(stages, solved.stations, i), solved.stations[i + 1]];
    if (!before || !after) return [];
    const litresPerDay = demandLPerDay * (throughPerL?.[i] ?? litresPerProduct(solved, stages, i));
    return [
      {
        stage,
        before,
        after,
        litresPerDay,
        goal: system.goal,
        units: system.units,
        carbon: carbons.get(stage.id) ?? null,
        turbidityNTU: system.source.turbidityNTU,
      },
    ];
  });
}

/** The stages of a branch, each where it stands. */
export const branchStandings = (
  branch: Branch,
  stations: readonly Station[],
  units: UnitPreference,
  turbidityNTU: number,
): StageStanding[] =>
  branch.stages.map((stage, i) => ({
    stage,
    before: stations[i]!,
    after: stations[i + 1]!,
    litresPerDay: branch.litresPerDay,
    goal: branch.goal,
    units,
    carbon: null,
    turbidityNTU,
  }));

/** Every stage where it stands, in the train and in its branches; those no water reaches are left out. */
export const allStandings = (system: System, known: SolvedUse): StageStanding[] => [
  ...trainStandings(system, known),
  ...known.solved.branches.flatMap(({ id, stations }: SolvedBranch) => {
    const branch = system.train.branches.find((one) => one.id === id);
    return branch ? branchStandings(branch, stations, system.units, system.source.turbidityNTU) : [];
  }),
];

/** A stage where it stands, in the train or in a branch; null where no water reaches it. */
export const standingAt = (system: System, known: SolvedUse, stageId: string): StageStanding | null =>
  allStandings(system, known).find(({ stage }) => stage.id === stageId) ?? null;

/** What a stage says of itself where it stands. */
export const sayings = (standing: StageStanding): ReturnType<ReturnType<typeof kindOf>['findings']> =>
  kindOf(standing.stage).findings(standing);
