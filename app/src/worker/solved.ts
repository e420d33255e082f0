import type { Reading, System } from '@yes-clear/core/file';
import { logFindings, standing, type MembraneTrend, type ResinTracking, type UnitMaps } from '@yes-clear/core/log';
import type { Outcome } from '@yes-clear/core/quantity';
import { membraneOperation, tapWater, type MembraneOperation } from '@yes-clear/core/train';
import type { Finding, TrainUse } from '@yes-clear/core/stage';
import { livesAsked, reportTrain, withLives, type LifeAsked, type TrainReport } from '@yes-clear/core/advice';
import type { BedLife } from '@yes-clear/core/exchange';

/** A system as it stands today: its train solved with what the log says it has been through, and what that means. */
export interface Solved {
  /** The system that was solved: figures and the stages they stand at belong together. */
  readonly system: System;
  readonly report: TrainReport;
  readonly tracking: ResinTracking | null;
  /** What the log says each stage has been through. */
  readonly use: TrainUse;
  /** Rows of resin whose outlet is a first estimate yet: the cells of the column have not been run for them. */
  readonly estimated: readonly LifeAsked[];
  /** The membrane unit as it runs today, to be asked alone; null without one. */
  readonly operation: MembraneOperation | null;
  readonly logFindings: readonly Finding[];
  /** The membrane's course by its log, and whether it was worked out for just this train or stands from a moment ago. */
  readonly membrane: MembraneTrend | null;
  readonly courseIsNew: boolean;
}

/** Lives of resin known to whoever solves, by their key. */
export type KnownLives = ReadonlyMap<string, BedLife>;

/**
 * Solves a system with its readings as of an instant; some 20 ms, so pages have it done in the worker.
 *
 * @param lives what the cells of the column found so far: the train reads it where it stands near its fronts
 * @param maps of membrane units laid down so far
 * @param course the membrane's course of a moment ago, see `standing`
 */
export function solveSystem(
  system: System,
  readings: readonly Reading[],
  now: string,
  lives: KnownLives = new Map(),
  maps?: UnitMaps,
  course?: MembraneTrend | null,
): Outcome<Solved> {
  const water = tapWater(system.source, system.instruments);
  if (!water.ok) return water;
  const today = standing(system, readings, water.value.water, now, water.value, maps, course);
  if (!today.ok) return today;
  const { tracking, membrane } = today.value;
  const asked = livesAsked(today.value.report.train.stages, today.value.report.solved, today.value.use);
  const use = withLives(today.value.use, asked, lives);
  const known = asked.filter(({ stageId }) => use[stageId]?.life);
  const again = known.length > 0 ? reportTrain(system, water.value.water, use, today.value.report.solved, water.value) : null;
  const report = again?.ok ? again.value : today.value.report;
  return {
    ok: true,
    value: {
      system,
      report,
      tracking,
      use,
      estimated: asked.filter((one) => !known.includes(one)),
      operation: membraneOperation(report.train, system.source, report.solved),
      logFindings: logFindings(system, readings, report.solved, tracking, now, membrane, { report, tracking, use, membrane }),
      membrane,
      courseIsNew: course === undefined,
    },
  };
}
