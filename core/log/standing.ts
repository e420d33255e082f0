import type { Reading, System } from '../file';
import type { Outcome } from '../quantity';
import { reportTrain, type TrainReport } from '../advice';
import { solveTrain, type SolvedTrain } from '../train';
import type { TrainUse } from '../stage';
import type { CompletedWater, Water } from '../water';
import { membraneTrend, toldFactors, unitAsRead, type MembraneTrend, type UnitMaps } from './membraneTrend';
import { inOrder } from './series';
import { trackResin, type ResinTracking } from './resin';
import { trainUse } from './use';

/** A system as it stands today: what its log says it has been through, and the train solved with that. */
export interface Standing {
  readonly report: TrainReport;
  readonly tracking: ResinTracking | null;
  readonly use: TrainUse;
  /** The membrane's course; null where there is none, or nothing tells of it. */
  readonly membrane: MembraneTrend | null;
}

/**
 * Solves a system as new, reads its use from the log, and solves it again as that use has left it.
 *
 * @param feed the completed tap water, see `tapWater`
 * @param now instant up to which use is counted
 * @param tap what of the tap was measured and what assumed; null where nobody asks
 * @param maps of units laid down before, by who keeps them
 * @param known the membrane's course by the same readings, where it was worked out a moment ago for much the same train
 */
export function standing(
  system: System,
  readings: readonly Reading[],
  feed: Water,
  now: string,
  tap: CompletedWater | null = null,
  maps?: UnitMaps,
  known?: MembraneTrend | null,
): Outcome<Standing> {
  const fresh = solveTrain(system.train, system.source, feed);
  if (!fresh.ok) return fresh;
  const tracking = trackResin(system, readings, fresh.value, now);
  const membrane = known === undefined ? courseOf(system, readings, fresh.value, now, maps) : known;
  const byLog = trainUse(system, readings, fresh.value, tracking, now);
  // What the log tells of a membrane stands in place of what the calendar lets expect.
  const use = membrane ? { ...byLog, [membrane.stageId]: { ...byLog[membrane.stageId], factors: toldFactors(membrane) } } : byLog;
  const report = reportTrain(system, feed, use, fresh.value, tap);
  return report.ok ? { ok: true, value: { report: report.value, tracking, use, membrane } } : report;
}

/** The membrane's course by the log; null where there is none. */
function courseOf(
  system: System,
  readings: readonly Reading[],
  fresh: SolvedTrain,
  now: string,
  maps: UnitMaps | undefined,
): MembraneTrend | null {
  const unit = readings.length > 0 ? unitAsRead(system, inOrder(readings), fresh, maps) : null;
  return unit?.ok ? membraneTrend(system, readings, unit.value, now) : null;
}
