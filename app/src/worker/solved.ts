import type { Reading, System } from '@yes-clear/core/file';
import { logFindings, standing, type ResinTracking } from '@yes-clear/core/log';
import type { Outcome } from '@yes-clear/core/quantity';
import { membraneOperation, tapWater, type MembraneOperation } from '@yes-clear/core/train';
import type { Finding, TrainUse } from '@yes-clear/core/stage';
import type { TrainReport } from '@yes-clear/core/advice';

/** A system as it stands today: its train solved with what the log says it has been through, and what that means. */
export interface Solved {
  /** The system that was solved: figures and the stages they stand at belong together. */
  readonly system: System;
  readonly report: TrainReport;
  readonly tracking: ResinTracking | null;
  /** What the log says each stage has been through. */
  readonly use: TrainUse;
  /** The membrane unit as it runs today, to be asked alone; null without one. */
  readonly operation: MembraneOperation | null;
  readonly logFindings: readonly Finding[];
}

/** Solves a system with its readings as of an instant; some 20 ms, so pages have it done in the worker. */
export function solveSystem(system: System, readings: readonly Reading[], now: string): Outcome<Solved> {
  const water = tapWater(system.source, system.instruments);
  if (!water.ok) return water;
  const today = standing(system, readings, water.value.water, now, water.value);
  if (!today.ok) return today;
  const { report, tracking, use } = today.value;
  return {
    ok: true,
    value: {
      system,
      report,
      tracking,
      use,
      operation: membraneOperation(report.train, system.source, report.solved),
      logFindings: logFindings(system, readings, report.solved, tracking, now),
    },
  };
}
