import { columnSteps, type Bed, type ColumnOptions, type ColumnRun } from '@yes-clear/core/exchange';
import type { Outcome } from '@yes-clear/core/quantity';
import type { Water } from '@yes-clear/core/water';
import { faultSteps, type FaultsAsked, type FaultsFound } from './faultSearch';

/** Long work, each a run of steps that yields the share done. */
export interface Jobs {
  /** The life of a row of resin beds on a water. */
  column: {
    readonly input: { readonly beds: readonly Bed[]; readonly water: Water; readonly flowLPerH: number; readonly options: ColumnOptions };
    readonly output: Outcome<ColumnRun>;
  };
  /** What is wrong with a system, by what was read of it. */
  faults: { readonly input: FaultsAsked; readonly output: Outcome<FaultsFound> };
}
export type JobName = keyof Jobs;

export const JOBS: { readonly [J in JobName]: (input: Jobs[J]['input']) => Generator<number, Jobs[J]['output']> } = {
  faults: faultSteps,
  column: ({ beds, water, flowLPerH, options }) => columnSteps(beds, water, flowLPerH, options),
};
