import type { UnitSolution } from '../membrane';
import type { CarbonState } from '../pretreatment';
import type { Train } from '../file';
import type { ResinState, Stage } from '../stage';
import { keptBy, type Station } from './walk';

/** A train at its operating point: what stands at each station, what the membranes do, what is made. */
export interface SolvedTrain {
  /** Tap first, then one station a stage. */
  readonly stations: readonly Station[];
  readonly unit: UnitSolution | null;
  readonly unitStageId: string | null;
  /** The waste, where there is a membrane that makes any. */
  readonly waste: Station | null;
  /** The second pass and its waste, where there is one, and the share of the time it runs while the first does. */
  readonly secondPass?: { readonly unit: UnitSolution; readonly waste: Station; readonly runShare: number } | null;
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

/** Waste to product of the train as a whole, what is blended past and a second pass counted; null when nothing is made. */
export function wasteToProduct({ stations, unit, productLPerH }: SolvedTrain): number | null {
  return unit && !unit.noProduction && productLPerH > 0 ? (stations[0]!.flowLPerH - productLPerH) / productLPerH : null;
}

/**
 * Litres that pass a stage for a litre of product: all that is drawn, less what is led past it; behind the membrane one,
 * and what stages from there on send to the drain. What is led back round the membrane does not count.
 */
export function litresPerProduct({ stations, unitStageId, productLPerH }: SolvedTrain, stages: readonly Stage[], i: number): number {
  const after = stations[i + 1];
  if (!(productLPerH > 0) || !after || i > stages.findIndex(({ id }) => id === unitStageId)) return 1 / keptBy(stages.slice(i));
  return Math.min(after.flowLPerH, stations[0]!.flowLPerH) / productLPerH;
}

/** The water as it runs into a stage: behind a tank at the flow that is drawn of it, not at the one that fills it. */
export function runsInto(stages: readonly Stage[], stations: readonly Station[], i: number): Station | undefined {
  const [before, after] = [stations[i], stations[i + 1]];
  if (!before || !after || stages[i - 1]?.kind !== 'tank') return before;
  return { ...before, flowLPerH: after.flowLPerH / keptBy([stages[i]!]) };
}

/** The ways water takes: the train, then each branch, with its stages and its stations; none where it was not solved. */
export const waysOf = (
  { stages, branches }: Pick<Train, 'stages' | 'branches'>,
  solved: SolvedTrain,
): { readonly stages: readonly Stage[]; readonly stations: readonly Station[] }[] => [
  { stages, stations: solved.stations },
  ...branches.map((branch) => ({ stages: branch.stages, stations: solved.branches.find(({ id }) => id === branch.id)?.stations ?? [] })),
];

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
