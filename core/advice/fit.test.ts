import { describe, expect, it } from 'vitest';
import { systemIssue } from '../file';
import { GOAL_IDS, type GoalId } from '../goal';
import { METRIC_UNITS } from '../quantity';
import { value } from '../testing/close';
import type { Answers } from '../template';
import { tapWater } from '../train';
import { fittingSystem } from './fit';
import { reportTrain } from './report';

const START = { id: 'x', site: 's', at: '2026-01-01T00:00:00Z' };
const system = (answers: Partial<Answers>) =>
  fittingSystem({ goal: 'marineMakeUp', reading: null, character: 'municipal', units: METRIC_UNITS, ...answers }, START);

const fitting = (goal: GoalId, ec: number | null) => system({ goal, reading: ec === null ? null : { shown: ec, in: 'µS/cm' } });

describe('two answers make a system', () => {
  it.each<[GoalId, number | null, string]>([
    ['marineMakeUp', 600, 'marineHousehold'],
    ['softWaterBreeding', 600, 'breeder'],
    ['windowCleaning', 600, 'vanTank'],
    ['windowCleaning', 90, 'resinVessel'],
    ['windowCleaning', null, 'vanTank'],
    ['laboratory', 480, 'skid'],
    ['espresso', 700, 'espressoBar'],
    ['watermaker', null, 'watermaker'],
    ['drinking', 51_000, 'watermaker'],
  ])('%s on %s µS/cm: %s', (goal, ec, template) => expect(fitting(goal, ec).template).toBe(template));

  // Clear ice holds at most 150 mg/L, some seven tenths of what a meter shows (common practice); coffee brewed wants
  // hardness between two ends, which a weak tap has by itself; an oven only steams, so any lime is too much.
  it.each<[GoalId, number, string]>([
    ['ice', 200, 'counterSoft'],
    ['ice', 300, 'counterHard'],
    ['brewWater', 150, 'counterSoft'],
    ['brewWater', 480, 'counterSoft'],
    ['brewWater', 840, 'counterHard'],
    ['steamOven', 60, 'counterSoft'],
    ['steamOven', 480, 'counterHard'],
  ])('a counter takes the plainest layout that serves it: %s on %s µS/cm: %s', (goal, ec, template) =>
    expect(fitting(goal, ec).template).toBe(template),
  );

  it.each(GOAL_IDS)('%s: is whole, for that goal, and solved on a usual water of every kind', (goal) => {
    for (const character of ['municipal', 'rain', 'seawater'] as const) {
      const made = system({ goal, character });
      expect(systemIssue(made)).toBeNull();
      expect(made.goal.id).toBe(goal);
      expect(value(reportTrain(made, value(tapWater(made.source, made.instruments)).water)).solved.productLPerH).toBeGreaterThanOrEqual(0);
    }
  });
  it('a reading is kept as it was shown, by a meter that counts so', () => {
    const ppm = system({ reading: { shown: 306, in: 'ppm' } });
    expect(ppm.source.samples[0]).toMatchObject({ way: 'meter', reading: 306 });
    expect(ppm.instruments[0]!.scale).toEqual({ kind: 'factor', factor: 0.5 });
    expect(ppm.units.strength).toBe('ppm');
    const micro = system({ reading: { shown: 612, in: 'µS/cm' } });
    expect(micro.instruments[0]!.scale).toEqual({ kind: 'conductivity' });
    // The same water, told in two scales.
    const calcium = [ppm, micro].map((one) => value(tapWater(one.source, one.instruments)).water.mgL.Ca);
    expect(calcium[0]).toBeCloseTo(calcium[1]!, 6);
  });
  it('what nobody measured is marked so in every figure', () => {
    const made = system({ character: 'chalk' });
    expect(made.source.samples[0]).toMatchObject({ way: 'usual', reading: null, character: 'chalk' });
    const { rung, origins, water } = value(tapWater(made.source, made.instruments));
    expect(rung).toBe('usual');
    expect(new Set(Object.values(origins))).toEqual(new Set(['assumed']));
    expect(water.mgL.Ca).toBeCloseTo(105, 6);
  });
});
