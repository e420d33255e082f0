import { columnSteps, type Bed, type ColumnOptions, type ColumnRun } from '@yes-clear/core/exchange';
import type { Outcome } from '@yes-clear/core/quantity';
import type { Water } from '@yes-clear/core/water';
import { faultSteps, type FaultsAsked, type FaultsFound } from './faultSearch';
import { practiceSteps, type PracticeAsked, type PracticeView } from './practiceBench';

/** Long work, each a run of steps that yields the share done. */
export interface Jobs {
  /** The life of a row of resin beds on a water. */
  column: {
    readonly input: { readonly beds: readonly Bed[]; readonly water: Water; readonly flowLPerH: number; readonly options: ColumnOptions };
    readonly output: Outcome<ColumnRun>;
  };
  /** What is wrong with a system, by what was read of it. */
  faults: { readonly input: FaultsAsked; readonly output: Outcome<FaultsFound> };
  /** An exercise of the practice bench, as far as it was done. */
  practice: { readonly input: PracticeAsked; readonly output: Outcome<PracticeView> };
}
export type JobName = keyof Jobs;

export const JOBS: { readonly [J in JobName]: (input: Jobs[J]['input']) => Generator<number, Jobs[J]['output']> } = {
  faults: faultSteps,
  practice: practiceSteps,
  column: ({ beds, water, flowLPerH, options }) => columnSteps(beds, water, flowLPerH, options),
};
