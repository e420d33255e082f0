import type { Train } from '../file';
import { kindOf, NO_USE, type Stage, type TrainUse } from '../stage';

/** Stages in their order as their use has left them; what one keeps of the dirt does not reach the next. */
function worn(stages: readonly Stage[], turbidityNTU: number, use: TrainUse): Stage[] {
  let dirt = turbidityNTU;
  return stages.map((stage) => {
    const kind = kindOf(stage);
    const left = kind.worn(stage, use[stage.id] ?? NO_USE, dirt);
    dirt *= kind.dirtPassed(stage);
    return left;
  });
}

/**
 * A train as its use has left it: membranes aged by the years since they were fitted and the chlorine they met, sediment filters loaded by what
 * passed. What was entered as measured stands. Resins and carbons keep their use beside them, see `solveTrain`.
 */
export const wornTrain = (train: Train, turbidityNTU: number, use: TrainUse): Train => ({
  ...train,
  stages: worn(train.stages, turbidityNTU, use),
  branches: train.branches.map((branch) => ({ ...branch, stages: worn(branch.stages, turbidityNTU, use) })),
});
