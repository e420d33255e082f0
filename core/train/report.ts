import type { System } from '../file';
import type { Outcome } from '../quantity';
import type { Water } from '../water';
import { gatherFacts, type TrainFacts } from './facts';
import { trainFindings, type Finding } from './findings';
import type { ResinUse } from './solve';

/** A solved train with what is to be said of it. */
export interface TrainReport extends TrainFacts {
  readonly findings: readonly Finding[];
}

/**
 * Solves a system's train on its tap water and says what that means.
 *
 * @param feed the completed tap water, see `tapWater`
 * @param use equivalents each resin has taken up, from the log
 */
export function reportTrain(system: System, feed: Water, use: ResinUse = {}): Outcome<TrainReport> {
  const facts = gatherFacts(system, feed, use);
  if (!facts.ok) return facts;
  return { ok: true, value: { ...facts.value, findings: trainFindings(system, facts.value) } };
}
