import { membraneStage, type Train } from '../file';
import { serviceYears, type ElementClass } from '../membrane';
import { DAYS_PER_YEAR } from '../quantity';
import type { StageOf, TrainUse } from '../stage';
import type { DaysBand } from './parts';

/** How long a membrane lasts, and when the one that runs is to be replaced. */

/** Doubt of a membrane's years where only its age speaks (our judgement): a quarter either way, 80% likely. */
const BY_AGE = { early: 0.75, late: 1.25 } as const;

/** Days until a membrane is to be replaced. */
export interface MembraneLife {
  readonly stage: StageOf<'membrane'>;
  /** Days the one that runs has left; null where nobody knows since when it runs. */
  readonly left: DaysBand | null;
  /** By its course in the log, or by its age alone. */
  readonly by: 'log' | 'age';
}

/** Days a new membrane serves. */
export const membraneDays = (elementClass: ElementClass): number => DAYS_PER_YEAR * serviceYears(elementClass);

/**
 * The life of a train's membrane; null without one.
 *
 * @param seen days left by its course in the log, where that tells
 */
export function membraneLife(train: Pick<Train, 'stages'>, use: TrainUse, seen: DaysBand | null): MembraneLife | null {
  const stage = membraneStage(train.stages);
  if (!stage) return null;
  if (seen) return { stage, left: seen, by: 'log' };
  const years = use[stage.id]?.years ?? (stage.fittedOn === null ? null : 0);
  if (years === null) return { stage, left: null, by: 'age' };
  const left = (share: number): number => Math.max(0, share * membraneDays(stage.elementClass) - years * DAYS_PER_YEAR);
  return { stage, left: { p10: left(BY_AGE.early), p50: left(1), p90: left(BY_AGE.late) }, by: 'age' };
}
