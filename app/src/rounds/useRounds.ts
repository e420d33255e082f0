import type { SystemRecord } from '@yes-clear/core/file';
import { dateAfter, logFindings, probeRoles, saltRemoved, trackResin, type ResinTracking } from '@yes-clear/core/log';
import { reportTrain, tapWater, trainSentence, type Finding } from '@yes-clear/core/train';
import { descentInput } from '../descent/useDescentInput';
import type { DescentInput } from '../descent/drawing';

export type Urgency = 'now' | 'month' | 'fine';

/** One system as Rounds shows it. */
export interface Round {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly demo: boolean;
  readonly urgency: Urgency;
  readonly finding: Finding | null;
  readonly resinLeft: number | null;
  readonly saltRemoved: number | null;
  readonly picture: { readonly input: DescentInput; readonly sentence: string } | null;
  /** Things with a date, for the month ahead. */
  readonly due: readonly { readonly at: string; readonly says: string }[];
}

const RANK = { bad: 0, mind: 1, good: 2, note: 3 } as const;

/** Works out how one system stands. */
export function roundOf(record: SystemRecord, now: string): Round {
  const { system, readings } = record;
  const base = { id: system.id, name: system.name, site: system.site, demo: system.demo };
  const water = tapWater(system.source, system.instruments);
  const report = water.ok ? reportTrain(system, water.value.water) : water;
  if (!report.ok) {
    const finding: Finding = { id: 'error', severity: 'bad', title: 'Cannot be computed', why: report.error.message };
    return { ...base, urgency: 'now', finding, resinLeft: null, saltRemoved: null, picture: null, due: [] };
  }
  const tracking = trackResin(system, readings, report.value.solved, now);
  const findings = readings.length > 0 ? logFindings(system, readings, report.value.solved, tracking, now) : report.value.findings;
  const finding = [...findings].sort((a, b) => RANK[a.severity] - RANK[b.severity])[0] ?? null;
  return {
    ...base,
    urgency: finding?.severity === 'bad' ? 'now' : finding?.severity === 'mind' ? 'month' : 'fine',
    finding,
    resinLeft: tracking?.remaining.p50 ?? null,
    saltRemoved: lastRemoval(record) ?? report.value.solved.unit?.rejection ?? null,
    picture: { input: descentInput(system, report.value, readings, tracking), sentence: trainSentence(report.value.solved, system.units) },
    due: dueOf(record, tracking, now),
  };
}

/** Salt removed by the newest reading that can tell. */
function lastRemoval({ system, readings }: SystemRecord): number | null {
  const roles = probeRoles(system);
  return readings.map((reading) => saltRemoved(reading, roles, system.instruments)).findLast((share) => share !== null) ?? null;
}

/** Cartridge changes by their usual life, and the resin by its forecast. */
function dueOf({ system }: SystemRecord, tracking: ResinTracking | null, now: string): Round['due'] {
  const due: { at: string; says: string }[] = [];
  if (tracking?.daysLeft) due.push({ at: dateAfter(now, tracking.daysLeft.p10), says: `${system.name}: have resin ready` });
  for (const stage of system.train.stages) {
    // Sediment and carbon: six months (common practice).
    if ((stage.kind === 'sediment' || stage.kind === 'carbon') && stage.fittedOn !== null) {
      due.push({ at: dateAfter(`${stage.fittedOn}T00:00:00Z`, 183), says: `${system.name}: change ${stage.name.toLowerCase()}` });
    }
  }
  return due;
}

export const GROUPS: readonly { readonly key: Urgency; readonly label: string }[] = [
  { key: 'now', label: 'Act now' },
  { key: 'month', label: 'This month' },
  { key: 'fine', label: 'Fine' },
];
