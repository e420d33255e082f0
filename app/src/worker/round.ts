import { awaySince, type SystemRecord } from '@yes-clear/core/file';
import { DAY_MS } from '@yes-clear/core/quantity';
import { dueOf, lineOf, logFindings, probeRoles, saltRemoved, standing, type UnitMaps } from '@yes-clear/core/log';
import { trainSentence } from '@yes-clear/core/advice';
import { byUrgency, type Finding } from '@yes-clear/core/stage';
import { tapWater } from '@yes-clear/core/train';
import { descentInput } from '../descent/descentInput';
import type { Round } from '../store/round';

/** Works out how one system stands. */
export function roundOf(record: SystemRecord, now: string, maps?: UnitMaps): Round {
  const { system, readings } = record;
  const newest = readings.filter(({ at, counts }) => counts && at <= now).at(-1);
  const base = {
    id: system.id,
    hasReadings: readings.length > 0,
    newest: newest ? { at: newest.at, line: lineOf(newest, system) } : null,
  };
  const water = tapWater(system.source, system.instruments);
  const today = water.ok ? standing(system, readings, water.value.water, now, water.value, maps) : water;
  if (!today.ok) {
    const finding: Finding = { id: 'error', severity: 'bad', title: 'Cannot be computed', why: today.error.message };
    return { ...base, urgency: 'now', finding, resinLeft: null, saltRemoved: null, output: null, picture: null, due: [], away: false };
  }
  const { report, tracking, membrane } = today.value;
  const isAway = awaySince(system) !== null;
  const findings =
    readings.length > 0 || isAway ? logFindings(system, readings, report.solved, tracking, now, membrane, today.value) : report.findings;
  const first = [...findings].sort(byUrgency)[0] ?? null;
  // Resin that may end within the month is work to come, no fault: where nothing is wrong it is what matters most.
  const resinDays = tracking?.daysLeft?.p10 ?? Infinity;
  const due = dueOf(system, today.value, now);
  const sentence = trainSentence(report.solved, system.units);
  const picture = {
    input: descentInput(system, report, readings, tracking),
    sentence: isAway ? `${first?.title ?? ''}. ${sentence}` : sentence,
  };
  if (isAway) {
    // What is put away is not judged: only its preservative falls due.
    const days = Math.min(...due.map(({ at }) => (Date.parse(at) - Date.parse(now)) / DAY_MS), Infinity);
    const urgency = days <= 0 ? 'now' : days <= MONTH_DAYS ? 'month' : 'fine';
    return { ...base, urgency, finding: first, resinLeft: null, output: null, saltRemoved: null, picture, due, away: true };
  }
  const isWrong = first?.severity === 'bad' || first?.severity === 'mind';
  const finding = !isWrong && resinDays <= MONTH_DAYS ? (findings.find(({ id }) => id === 'resin') ?? first) : first;
  return {
    ...base,
    urgency: first?.severity === 'bad' || resinDays <= WEEK_DAYS ? 'now' : isWrong || resinDays <= MONTH_DAYS ? 'month' : 'fine',
    finding,
    resinLeft: tracking?.remaining.p50 ?? null,
    output: membrane?.water && membrane.water.count > 1 ? Math.exp(membrane.water.now.value) : null,
    saltRemoved: lastRemoval(record) ?? report.solved.unit?.rejection ?? null,
    picture,
    due,
    away: false,
  };
}

const WEEK_DAYS = 7;
const MONTH_DAYS = 30;

/** Salt removed by the newest reading that can tell. */
function lastRemoval({ system, readings }: SystemRecord): number | null {
  const roles = probeRoles(system);
  return readings.map((reading) => saltRemoved(reading, roles, system.instruments)).findLast((share) => share !== null) ?? null;
}
