import { reportTrain } from '@yes-clear/core/advice';
import type { System, SystemRecord } from '@yes-clear/core/file';
import { standing, type MembraneTrend, type ResinTracking, type UnitMaps } from '@yes-clear/core/log';
import { DAY_MS, type Outcome } from '@yes-clear/core/quantity';
import type { TrainUse } from '@yes-clear/core/stage';
import { tapWater } from '@yes-clear/core/train';
import {
  aheadOf,
  AS_USUAL,
  daysOfYears,
  PLAIN_POLICY,
  outlookOf,
  strengthDoubt,
  USUAL_YEAR_DOUBTS,
  vanShare,
  withWhatIf,
  yearBands,
  YEAR_SAMPLING,
  type Ahead,
  type Outlook,
  type VanShare,
  type WhatIf,
  type YearBands,
  type YearPolicy,
} from '@yes-clear/core/year';

/** The years of a system, as the worker runs them: laid out once, run at every pull of a slider. */

export interface YearAsked {
  readonly system: System;
  /** Every part is fitted on the day it begins. */
  readonly asNew: boolean;
  /** What the log says its parts have been through; empty for a system that is new. */
  readonly use: TrainUse;
  readonly tracking: ResinTracking | null;
  readonly membrane: MembraneTrend | null;
  /** Visits are counted in what it costs. */
  readonly countVisits: boolean;
  /** The day it begins. */
  readonly nowMs: number;
  readonly days: number;
  readonly whatIf: WhatIf;
  readonly policy: YearPolicy;
}

let laid: { readonly key: string; readonly ahead: Outcome<Ahead> } | null = null;
function aheadFor({ system: asked, asNew, use, tracking, membrane, countVisits, nowMs }: YearAsked): Outcome<Ahead> {
  const system = countVisits ? asked : { ...asked, choice: { ...asked.choice, visitCost: 0 } };
  const key = JSON.stringify([system, asNew, use, tracking?.anionEq, tracking?.cationEq, membrane?.water?.now, Math.floor(nowMs / DAY_MS)]);
  if (laid?.key === key) return laid.ahead;
  const ahead = laidOut();
  laid = { key, ahead };
  return ahead;

  function laidOut(): Outcome<Ahead> {
    const water = tapWater(system.source, system.instruments);
    if (!water.ok) return water;
    const report = reportTrain(system, water.value.water, use, undefined, water.value);
    if (!report.ok) return report;
    return aheadOf(system, { report: report.value, tracking, use, membrane }, water.value.water, nowMs, asNew);
  }
}

export function yearRun(asked: YearAsked): Outcome<Outlook> {
  const ahead = aheadFor(asked);
  return ahead.ok ? outlookOf(ahead.value, asked.days, asked.whatIf, asked.policy) : ahead;
}

/** The same years two hundred times over, with what is not known of them. */
export function* yearSteps(asked: YearAsked): Generator<number, Outcome<YearBands>> {
  const ahead = aheadFor(asked);
  if (!ahead.ok) return ahead;
  const doubts = { resinCapacity: ahead.value.resinSd, strength: strengthDoubt(asked.system.source) };
  return yield* yearBands(
    withWhatIf(ahead.value, asked.whatIf),
    asked.days,
    asked.policy,
    { ...USUAL_YEAR_DOUBTS, ...doubts },
    YEAR_SAMPLING,
  );
}

/** A system's share of the van's year, by its log. */
export function shareOf({ system, readings }: SystemRecord, now: string, bundleDays: number, maps?: UnitMaps): Outcome<VanShare> {
  const water = tapWater(system.source, system.instruments);
  if (!water.ok) return water;
  const today = standing(system, readings, water.value.water, now, water.value, maps);
  if (!today.ok) return today;
  const ahead = aheadOf(system, today.value, water.value.water, Date.parse(now));
  if (!ahead.ok) return ahead;
  const outlook = outlookOf(ahead.value, daysOfYears(1), AS_USUAL, { ...PLAIN_POLICY, bundleDays });
  return outlook.ok ? { ok: true, value: vanShare(system, outlook.value) } : outlook;
}
