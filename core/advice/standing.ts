import type { Branch, System } from '../file';
import type { UnitPreference } from '../quantity';
import { kindOf, type Finding, type Stage, type Standing } from '../stage';
import { litresPerProduct, type SolvedTrain, type Station } from '../train';
import type { TrainFacts } from './facts';

/** A stage where it stands: what comes in, what leaves, and how much of it. */
export type StageStanding = Standing<Stage>;

/** The stages of the train, each where it stands: up to the membrane they see all feed, behind it the product. */
export function trainStandings(system: System, solved: SolvedTrain, demandLPerDay: number): StageStanding[] {
  const { stages } = system.train;
  return stages.flatMap((stage, i) => {
    const [before, after] = [solved.stations[i], solved.stations[i + 1]];
    if (!before || !after) return [];
    const carbon = solved.carbons.find(({ stageId }) => stageId === stage.id)?.state ?? null;
    const litresPerDay = demandLPerDay * litresPerProduct(solved, stages, i);
    return [{ stage, before, after, litresPerDay, goal: system.goal, units: system.units, carbon }];
  });
}

/** The stages of a branch, each where it stands. */
export const branchStandings = (branch: Branch, stations: readonly Station[], units: UnitPreference): StageStanding[] =>
  branch.stages.map((stage, i) => ({
    stage,
    before: stations[i]!,
    after: stations[i + 1]!,
    litresPerDay: branch.litresPerDay,
    goal: branch.goal,
    units,
    carbon: null,
  }));

/** What a solved train has to know for its stages to be told where they stand. */
type Solved = Pick<TrainFacts, 'solved' | 'demandLPerDay'> & {
  readonly branches: readonly { readonly branch: Branch; readonly stations: readonly Station[] }[];
};

/** Every stage where it stands, in the train and in its branches; those no water reaches are left out. */
export const allStandings = (system: System, { solved, demandLPerDay, branches }: Solved): StageStanding[] => [
  ...trainStandings(system, solved, demandLPerDay),
  ...branches.flatMap(({ branch, stations }) => branchStandings(branch, stations, system.units)),
];

/** A stage where it stands, in the train or in a branch; null where no water reaches it. */
export const standingAt = (system: System, report: Solved, stageId: string): StageStanding | null =>
  allStandings(system, report).find(({ stage }) => stage.id === stageId) ?? null;

/** What the stages say of themselves where they stand. */
export const standingFindings = (standings: readonly StageStanding[]): Finding[] =>
  standings.flatMap((standing) => kindOf(standing.stage).findings(standing));
