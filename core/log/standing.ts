import type { Reading, System } from '../file';
import type { Outcome } from '../quantity';
import { reportTrain, type TrainReport } from '../advice';
import { solveTrain } from '../train';
import type { TrainUse } from '../stage';
import type { CompletedWater, Water } from '../water';
import { trackResin, type ResinTracking } from './resin';
import { trainUse } from './use';

/** A system as it stands today: what its log says it has been through, and the train solved with that. */
export interface Standing {
  readonly report: TrainReport;
  readonly tracking: ResinTracking | null;
  readonly use: TrainUse;
}

/**
 * Solves a system as new, reads its use from the log, and solves it again as that use has left it.
 *
 * @param feed the completed tap water, see `tapWater`
 * @param now instant up to which use is counted
 * @param tap what of the tap was measured and what assumed; null where nobody asks
 */
export function standing(
  system: System,
  readings: readonly Reading[],
  feed: Water,
  now: string,
  tap: CompletedWater | null = null,
): Outcome<Standing> {
  const fresh = solveTrain(system.train, system.source, feed);
  if (!fresh.ok) return fresh;
  const tracking = trackResin(system, readings, fresh.value, now);
  const use = trainUse(system, readings, fresh.value, tracking, now);
  const report = reportTrain(system, feed, use, fresh.value, tap);
  return report.ok ? { ok: true, value: { report: report.value, tracking, use } } : report;
}
