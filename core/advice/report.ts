import type { System, Train } from '../file';
import type { Outcome } from '../quantity';
import type { CompletedWater, Water } from '../water';
import { gatherFacts, type TrainFacts } from './facts';
import type { Finding, TrainUse } from '../stage';
import { trainFindings } from './findings';
import { branchReports, type BranchReport } from './branches';
import { wornTrain, type SolvedTrain } from '../train';

/** A solved train with what is to be said of it. */
export interface TrainReport extends TrainFacts {
  /** The train as its use has left it: what was solved. */
  readonly train: Train;
  readonly branches: readonly BranchReport[];
  readonly findings: readonly Finding[];
}

/**
 * Solves a system's train on its tap water and says what that means.
 *
 * @param feed the completed tap water, see `tapWater`
 * @param use what each stage has been through, from the log
 * @param near the same train solved before; only saves time
 * @param tap what of the tap was measured and what assumed; null where nobody asks
 */
export function reportTrain(
  system: System,
  feed: Water,
  use: TrainUse = {},
  near?: SolvedTrain,
  tap: CompletedWater | null = null,
): Outcome<TrainReport> {
  const worn = { ...system, train: wornTrain(system.train, system.source.turbidityNTU, use) };
  const facts = gatherFacts(worn, feed, use, near, tap);
  if (!facts.ok) return facts;
  return {
    ok: true,
    value: {
      ...facts.value,
      train: worn.train,
      branches: branchReports(worn, facts.value.solved, tap),
      findings: trainFindings(worn, facts.value),
    },
  };
}
