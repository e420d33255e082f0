import { describe, expect, it } from 'vitest';
import { reportTrain } from './report';
import { GOAL_IDS, type GoalId } from '../goal';
import { METRIC_UNITS } from '../quantity';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { fittingSystem } from './fit';
import type { System } from '../file';

/** Every goal that is shipped can be met: by the train two answers give, on a usual water. */

const start = { id: 's', site: '', at: '2026-11-23T10:00:00Z' };
const answered = (goal: GoalId): System =>
  fittingSystem({ goal, reading: null, character: goal === 'watermaker' ? 'seawater' : 'municipal', units: METRIC_UNITS }, start);

describe('a goal on a usual water, nothing of it measured', () => {
  it.each(GOAL_IDS)('%s: nothing it asks is missed for sure', (goal) => {
    const system = answered(goal);
    const tap = value(tapWater(system.source, system.instruments));
    const report = value(reportTrain(system, tap.water, {}, undefined, tap));
    // Clear ice asks for a membrane on a middling tap: its use says so by itself.
    const uses = report.branches.filter(({ branch }) => branch.goal.id !== 'ice').map(({ verdict }) => verdict);
    expect(report.verdict, report.findings[0]!.title).not.toBe('missed');
    expect(uses).not.toContain('missed');
  });
});
