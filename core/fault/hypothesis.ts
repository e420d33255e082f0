import type { YesNoId } from './kinds';
import type { Rig, RigChange, Truth } from './rig';

/** One cause that may be true of a system, in the terms of its solver. */
export interface Hypothesis {
  readonly id: string;
  /** Prior weight against the others. */
  readonly weight: number;
  /** What it changes of the system, at a severity from 0 to 1: the train is solved with it. */
  readonly change?: (severity: number, rig: Rig) => RigChange;
  /** What it changes of what is read, beside what the solver says. */
  readonly reads?: (severity: number, truth: Truth) => Partial<Truth>;
  /** Severity at which what is read jumps. */
  readonly jumpAt?: number;
  /** How often each check says yes under it; as where nothing is wrong otherwise. */
  readonly answers?: Partial<Readonly<Record<YesNoId, number>>>;
}

/** Position between two ends by the logarithm. */
export const byLog = (low: number, high: number, severity: number): number => low * (high / low) ** severity;
/** Position between two ends. */
export const evenly = (low: number, high: number, severity: number): number => low + (high - low) * severity;
