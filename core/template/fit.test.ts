import { describe, expect, it } from 'vitest';
import { systemIssue } from '../file';
import { GOAL_IDS, type GoalId } from '../goal';
import { reportTrain } from '../advice';
import { METRIC_UNITS } from '../quantity';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { fittingTemplate, systemFromAnswers, type Answers } from './fit';

const START = { id: 'x', site: 's', at: '2026-01-01T00:00:00Z' };
const system = (answers: Partial<Answers>) =>
  systemFromAnswers({ goal: 'marineMakeUp', reading: null, character: 'municipal', units: METRIC_UNITS, ...answers }, START);

describe('two answers make a system', () => {
  it.each<[GoalId, number | null, string]>([
    ['marineMakeUp', 600, 'marineHousehold'],
    ['softWaterBreeding', 600, 'breeder'],
    ['windowCleaning', 600, 'vanTank'],
    ['windowCleaning', 90, 'resinVessel'],
    ['windowCleaning', null, 'vanTank'],
    ['laboratory', 480, 'skid'],
    ['espresso', 700, 'espressoBar'],
    ['ice', 200, 'counterSoft'],
    ['ice', 300, 'counterHard'],
    ['brewWater', 840, 'counterHard'],
    ['watermaker', null, 'watermaker'],
    ['drinking', 51_000, 'watermaker'],
  ])('%s on %s µS/cm: %s', (goal, ec, template) => expect(fittingTemplate(goal, ec)).toBe(template));

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
