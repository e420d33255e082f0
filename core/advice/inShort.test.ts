import { describe, expect, it } from 'vitest';
import type { System, TemplateId } from '../file';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { footLine, trainTitle } from './inShort';
import { pressureSteps } from './pressureSteps';
import { reportTrain, type TrainReport } from './report';

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
const report = (system: System): TrainReport => value(reportTrain(system, value(tapWater(system.source, system.instruments)).water));
const foot = (system: System): Record<string, string> =>
  Object.fromEntries(footLine(system, report(system)).map(([figure, says]) => [says, figure.replaceAll('\u202f', ' ')]));

describe('a train in short', () => {
  it('says from what to what, in how many stages', () => {
    const system = from('marineHousehold');
    expect(trainTitle(system, report(system)).replaceAll('\u202f', ' ')).toMatch(
      /^From an assumed 480 µS\/cm to 0\.11 µS\/cm in 5 stages$/,
    );
    const one = { ...system, train: { ...system.train, stages: system.train.stages.slice(0, 1), probes: [] } };
    expect(trainTitle(one, report(one))).toMatch(/in 1 stage$/);
    const dry = { ...system, source: { ...system.source, linePressureBar: 0 } };
    expect(trainTitle(dry, report(dry))).toBe('Nothing comes through this train');
  });
  it('a household unit: made, waste, needed, run, cost, weight and the life of the resin', () => {
    const system = from('marineHousehold');
    const line = foot(system);
    expect(Object.keys(line)).toEqual(['made', 'waste', 'needed', 'run', 'for m³', 'wet', 'new resin']);
    const { solved } = report(system);
    expect(Number.parseFloat(line['made']!)).toBeCloseTo(24 * solved.productLPerH, -1);
    expect(line['needed']).toBe('20 L/day');
    expect(line['for m³']).toMatch(/^\d\d\.\d EUR$/);
    expect(line['wet']).toMatch(/^8\.\d kg$/);
  });
  it('a pump has its energy; without a membrane there is no waste; no hours are told that a day has not', () => {
    expect(foot(from('watermaker'))['power']).toMatch(/^1\d Wh\/L$/);
    expect(foot(from('skid'))['power']).toMatch(/^0\.\d kWh\/m³$/);
    expect(Object.keys(foot(from('espressoBar')))).not.toContain('waste');
    const thirsty = from('marineHousehold');
    const much = { ...thirsty, goal: { ...thirsty.goal, demand: { ...thirsty.goal.demand, dayL: new Array<number>(7).fill(100_000) } } };
    expect(Object.keys(foot(much))).not.toContain('run');
  });
  it('where water is led past the membrane, the waste is that of the whole', () => {
    expect(Object.keys(foot(from('counterHard')))).toContain('waste in all');
    expect(Object.keys(foot(from('marinePair')))).toContain('waste');
  });
  it('thousand gallons where those are spoken of', () => {
    const system = from('marineHousehold');
    expect(Object.keys(foot({ ...system, units: { ...system.units, volume: 'gal' } }))).toContain('for 1000\u202fgal');
  });
});

describe('where the pressure goes', () => {
  it('filters take, a pump adds, what a gauge cannot show is left out, and the sum is what the membrane is fed with', () => {
    const system = from('watermaker');
    const { solved, train } = report(system);
    const steps = pressureSteps(train.stages, solved);
    expect(steps.map(({ name, bar }) => [name, Math.sign(bar)])).toEqual([
      ['Filter 20 µm', -1],
      ['Filter 5 µm', -1],
      ['High-pressure pump', 1],
    ]);
    const sum = steps.reduce((total, { bar }) => total + bar, 0);
    expect(1 + sum).toBeCloseTo(solved.unit!.feedPressureBar, 1);
  });
});
