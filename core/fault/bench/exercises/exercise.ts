import type { FaultId } from '../../../stage';
import type { KindId } from '../../kinds';
import type { BenchSystemId } from '../systems';

/** One exercise of the practice bench: a rig with something hidden in it, and what finding it teaches. */
export interface Exercise {
  readonly id: string;
  readonly system: BenchSystemId;
  /** What is hidden: one of these sets, by the seed; drawn from the system's own catalogue where null. */
  readonly hidden: readonly (readonly FaultId[])[] | null;
  /** Severities it is drawn from. */
  readonly severity: readonly [from: number, to: number];
  /** 1 easy to 4 hard. */
  readonly level: 1 | 2 | 3 | 4;
  /** The question it puts, which does not give the answer away. */
  readonly asks: string;
  /** What it teaches, said when it is over. */
  readonly teaches: string;
  /** What the customer says unasked, and when asked what was done. */
  readonly customer: string;
  readonly asked: string;
  /** Whether there is a sheet from the hand-over. */
  readonly baseline: boolean;
  /** Minutes after which the customer has to leave. */
  readonly budgetMinutes?: number;
  /** A kind whose first figure slips a digit. */
  readonly slip?: KindId;
}

/** An exercise on a rig with a hand-over sheet. */
export const exercise = (one: Omit<Exercise, 'baseline' | 'severity'> & Partial<Pick<Exercise, 'baseline' | 'severity'>>): Exercise => ({
  baseline: true,
  severity: [0.15, 0.85],
  ...one,
});
