import { allStages, type Stage, type StageKind, type SystemRecord } from '@yes-clear/core/file';
import { DAY_MS, dateAfter, logFindings, probeRoles, saltRemoved, standing, type Standing } from '@yes-clear/core/log';
import { cartridgeLife, treatingAt, URGENCY, tapWater, trainSentence, type Finding, inSentence } from '@yes-clear/core/train';
import { descentInput } from '../descent/useDescentInput';
import type { Round } from '../store/round';

/** Works out how one system stands. */
export function roundOf(record: SystemRecord, now: string): Round {
  const { system, readings } = record;
  const base = { id: system.id, hasReadings: readings.length > 0 };
  const water = tapWater(system.source, system.instruments);
  const today = water.ok ? standing(system, readings, water.value.water, now) : water;
  if (!today.ok) {
    const finding: Finding = { id: 'error', severity: 'bad', title: 'Cannot be computed', why: today.error.message };
    return { ...base, urgency: 'now', finding, resinLeft: null, saltRemoved: null, picture: null, due: [] };
  }
  const { report, tracking } = today.value;
  const findings = readings.length > 0 ? logFindings(system, readings, report.solved, tracking, now) : report.findings;
  const finding = [...findings].sort((a, b) => URGENCY[a.severity] - URGENCY[b.severity])[0] ?? null;
  return {
    ...base,
    urgency: finding?.severity === 'bad' ? 'now' : finding?.severity === 'mind' ? 'month' : 'fine',
    finding,
    resinLeft: tracking?.remaining.p50 ?? null,
    saltRemoved: lastRemoval(record) ?? report.solved.unit?.rejection ?? null,
    picture: { input: descentInput(system, report, readings, tracking), sentence: trainSentence(report.solved, system.units) },
    due: dueOf(record, today.value, now),
  };
}

/** Salt removed by the newest reading that can tell. */
function lastRemoval({ system, readings }: SystemRecord): number | null {
  const roles = probeRoles(system);
  return readings.map((reading) => saltRemoved(reading, roles, system.instruments)).findLast((share) => share !== null) ?? null;
}

/** Usual lives by the calendar, days (common practice): filters and inhibitors six months, salt every two, a lamp 9,000 hours. */
const LIFE_DAYS: Partial<Record<StageKind, number>> = { sediment: 183, carbon: 183, inhibitor: 183, calcite: 365, uv: 375 };
const SALT_DAYS = 61;
/** Beyond ten years nothing is planned: water with next to no chlorine would ask for centuries. */
const FARTHEST_DAYS = 3650;

/** What is to be done and when: by the calendar, by litres, or by the forecast, whichever comes first. */
function dueOf({ system }: SystemRecord, { report, tracking }: Standing, now: string): Round['due'] {
  const due: { at: string; says: string }[] = [];
  if (tracking?.daysLeft) due.push({ at: dateAfter(now, tracking.daysLeft.p10), says: `${system.name}: have resin ready` });
  const { solved } = report;
  const drawn = solved.productLPerH > 0 ? (report.demandLPerDay * solved.stations[0]!.flowLPerH) / solved.productLPerH : 0;
  const add = (stage: Stage, says: string, at: string): void =>
    void due.push({ at, says: `${system.name}: ${says} ${inSentence(stage.name)}` });
  for (const stage of allStages(system.train)) {
    if (!('fittedOn' in stage) || stage.fittedOn === null) continue;
    const since = `${stage.fittedOn}T00:00:00Z`;
    const days = LIFE_DAYS[stage.kind];
    const litresLeft = solved.carbons.find((carbon) => carbon.stageId === stage.id)?.state.litresLeft ?? null;
    const daysLeft = litresLeft !== null && drawn > 0 ? litresLeft / drawn : Infinity;
    const byLitres = daysLeft < FARTHEST_DAYS ? dateAfter(now, daysLeft) : null;
    const byDate = days === undefined ? null : dateAfter(since, days);
    const first = [byLitres, byDate].filter((at) => at !== null).sort()[0];
    if (first) add(stage, 'change', first);
    // Salt is looked at from the day it was fitted on, every two months.
    if (stage.kind === 'softener') {
      const turns = Math.ceil((Date.parse(now) - Date.parse(since)) / DAY_MS / SALT_DAYS);
      add(stage, 'salt of', dateAfter(since, Math.max(1, turns) * SALT_DAYS));
    }
    const at = treatingAt(system, report, stage.id);
    const life = at && cartridgeLife(at);
    if (life) add(stage, 'change', dateAfter(since, life.months * 30.4));
  }
  return due;
}
