import type { Branch, System } from '../file';
import { judge, plainGoal, type Judgement } from '../goal';
import { worstHourMOhmCm } from '../life';
import { polishedStation, productStation, type SolvedTrain, type Station } from '../train';
import type { CompletedWater, Water } from '../water';

/** A solved train judged, and the conductivity it was judged by, µS/cm. */
export interface TrainJudgement extends Judgement {
  readonly judgedUScm: number;
}

/** The goal held against what a train leaves: where the trade reads its meter, before a tank's air, at a loop's outlets at their worst hour. */
export function judgeTrain(system: System, solved: SolvedTrain, tapWater: Water, tap: CompletedWater | null): TrainJudgement {
  const product = productStation(solved);
  const worst = worstHourMOhmCm(system, solved);
  const judgedUScm = worst === null ? polishedStation(solved).state.ec25UScm : 1 / worst;
  const served = { product: product.water, state: { ...product.state, ec25UScm: judgedUScm }, tapWater, tap };
  return { ...judge(system.goal, system.units.ppmFactor, served), judgedUScm };
}

/** A use of a train judged by its own goal, where its water ends. */
export const judgeUse = (
  system: Pick<System, 'units'>,
  branch: Pick<Branch, 'goal'>,
  end: Pick<Station, 'water' | 'state'>,
  tapWater: Water,
  tap: CompletedWater | null,
): Judgement => judge(plainGoal(branch.goal), system.units.ppmFactor, { product: end.water, state: end.state, tapWater, tap });
