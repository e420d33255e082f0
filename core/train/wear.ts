import type { Stage, Train } from '../file';
import { aged, CLEAN, isSmallElement } from '../membrane';

/** What the log says a stage has been through since it was fitted; what is absent is not known. */
export interface StageUse {
  /** Equivalents a resin has taken up. */
  readonly cationEq?: number;
  readonly anionEq?: number;
  /** Litres that went through it. */
  readonly passedL?: number;
  readonly years?: number;
  /** Chlorine and chloramine that reached a membrane, mg/L × hours. */
  readonly chlorineMgLHours?: number;
  readonly chloramineMgLHours?: number;
}

/** By stage id. A stage that is absent counts as new. */
export type TrainUse = Readonly<Record<string, StageUse>>;

/** A cartridge this full is at its end; nothing passes one that is wholly full. */
const MOST_LOADING = 0.95;
/** Suspended matter for a unit of turbidity (product assumption), mg/L per NTU. */
const MG_L_PER_NTU = 1;

/** Share of its dirt capacity a sediment filter has filled after so many litres, 0–0.95. */
export const dirtLoading = (passedL: number, turbidityNTU: number, holdsG: number): number =>
  Math.min(MOST_LOADING, (passedL * turbidityNTU * MG_L_PER_NTU) / 1000 / holdsG);

function worn(stage: Stage, turbidityNTU: number, use: StageUse): Stage {
  switch (stage.kind) {
    case 'membrane': {
      const { years = 0, chlorineMgLHours = 0, chloramineMgLHours = 0 } = use;
      const byAge = aged(CLEAN, { years, chlorineMgLHours, chloramineMgLHours, household: isSmallElement(stage.elementClass) });
      return { ...stage, waterFactor: stage.waterFactor ?? byAge.water, saltFactor: stage.saltFactor ?? byAge.salt };
    }
    case 'sediment':
      return { ...stage, loading: stage.loading ?? dirtLoading(use.passedL ?? 0, turbidityNTU, stage.holdsG) };
    default:
      return stage;
  }
}

/**
 * A train as its use has left it: membranes aged by the years since they were fitted and the chlorine they met, sediment filters loaded by what
 * passed. What was entered as measured stands. Resins and carbons keep their use beside them, see `solveTrain`.
 */
export const wornTrain = (train: Train, turbidityNTU: number, use: TrainUse): Train => ({
  ...train,
  stages: train.stages.map((stage) => worn(stage, turbidityNTU, use[stage.id] ?? {})),
  branches: train.branches.map((branch) => ({
    ...branch,
    stages: branch.stages.map((stage) => worn(stage, turbidityNTU, use[stage.id] ?? {})),
  })),
});
