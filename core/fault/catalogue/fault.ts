import type { FaultId } from '../../stage';
import type { Hypothesis } from '../hypothesis';
import type { YesNoId } from '../kinds';
import type { Rig } from '../rig';

/** What a cause is called, what it looks like, and what is done about it: texts of the product, in the trade's words. */
export interface FaultWords {
  /** As it stands in a list. */
  readonly name: string;
  /** What it looks like. */
  readonly sign: string;
  /** What is done about it. */
  readonly remedy: string;
  /** What it is easily taken for, and what tells it apart. */
  readonly notTo: string;
}

/** One cause of the catalogue. */
export interface Fault {
  readonly id: FaultId;
  /** Prior weight against healthy at 20, for parts at about 0.6 of their life (product assumption). */
  readonly weight: number;
  readonly words: FaultWords;
  /** Causes with the same action to be taken bear the same name; the cause's own where absent. */
  readonly action?: string;
  /** Money and minutes the action costs, roughly; common practice. */
  readonly cost: { readonly minutes: number; readonly parts: readonly string[] };
  /** Of one no meter can see: the harm it does if missed, and the check that tells. */
  readonly unseen?: { readonly harm: string; readonly kit: YesNoId };
  /** What it is on a system. */
  readonly on: (rig: Rig) => Omit<Hypothesis, 'id' | 'weight'>;
}

/** The hypotheses of some causes on a system. */
export const hypothesesOf = (faults: readonly Fault[], rig: Rig): Hypothesis[] =>
  faults.map(({ id, weight, on }) => ({ id, weight, ...on(rig) }));
