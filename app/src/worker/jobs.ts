import { columnSteps, type Bed, type ColumnOptions, type ColumnRun } from '@yes-clear/core/exchange';
import type { InputTurn, Sifted } from '@yes-clear/core/choice';
import type { System } from '@yes-clear/core/file';
import type { YearBands } from '@yes-clear/core/year';
import type { Outcome } from '@yes-clear/core/quantity';
import type { Water } from '@yes-clear/core/water';
import { faultSteps, type FaultsAsked, type FaultsFound } from './faultSearch';
import { partSteps, turnSteps, type PartAsked } from './optionSearch';
import { practiceSteps, type PracticeAsked, type PracticeView } from './practiceBench';
import { yearSteps, type YearAsked } from './yearAhead';

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
  /** A part of all options of a system, each judged. */
  options: { readonly input: PartAsked; readonly output: Outcome<Sifted> };
  /** How sure the coming years are. */
  yearBands: { readonly input: YearAsked; readonly output: Outcome<YearBands> };
  /** What would change which of them is the one to take. */
  turns: { readonly input: { readonly system: System; readonly id: string }; readonly output: Outcome<InputTurn[]> };
}
export type JobName = keyof Jobs;

export const JOBS: { readonly [J in JobName]: (input: Jobs[J]['input']) => Generator<number, Jobs[J]['output']> } = {
  faults: faultSteps,
  practice: practiceSteps,
  options: partSteps,
  turns: turnSteps,
  yearBands: yearSteps,
  column: ({ beds, water, flowLPerH, options }) => columnSteps(beds, water, flowLPerH, options),
};
