import { describe, expect, it } from 'vitest';
import type { System, TemplateId } from '../file';
import { pumpEnergy } from '../life';
import { newStage, withNew, type Stage } from '../stage';
import { systemFromTemplate } from '../template';
import { expectWithin, value } from '../testing/close';
import { tapWater } from '../train';
import { reportTrain, type TrainReport } from './report';

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
const report = (system: System): TrainReport => value(reportTrain(system, value(tapWater(system.source, system.instruments)).water));
const withStages = (system: System, change: (stages: readonly Stage[]) => Stage[]): System => ({
  ...system,
  train: { ...system.train, stages: change(system.train.stages) },
});
const boat = from('watermaker');
/** Line pressure of a boat: the sea outside. */
const lifted = withStages(boat, (stages) => withNew(stages, newStage('pump', 'lift'), 'lift'));
const behind = ({ solved }: TrainReport, id: string): number => solved.stations.find(({ after }) => after === id)!.pressureBar;

describe('a lift pump ahead of the filters', () => {
  it('stands first and gives its own rise, not that of the pump that feeds the membrane', () => {
    expect(lifted.train.stages[0]).toMatchObject({ id: 'lift', name: 'Lift pump' });
    const made = report(lifted);
    const plain = report(boat);
    const rise = behind(made, 'lift') - made.solved.stations[0]!.pressureBar;
    expect(rise).toBeGreaterThan(1.5);
    expect(rise).toBeLessThan(2.5);
    // The piston pump still gives the flow, its valve still holds the pressure.
    expectWithin(made.solved.unit!.permeateLPerH, plain.solved.unit!.permeateLPerH, 0.01);
    expect(made.findings.filter(({ id }) => id.startsWith('housing-'))).toEqual([]);
  });
  it('costs its own electricity, by all the feed it lifts', () => {
    const [with_, without] = [report(lifted), report(boat)].map((one, i) => pumpEnergy([lifted, boat][i]!, one.solved)!);
    const made = report(lifted);
    const bar = behind(made, 'lift') - made.solved.stations[0]!.pressureBar;
    const litres = made.solved.stations[0]!.flowLPerH / made.solved.productLPerH;
    // Less suction is left for the piston pump to make up: what the lift gives it does not have to.
    const byHand = (bar * 1e5 * litres) / 3.6e6 / 0.5;
    expect(with_! - without!).toBeGreaterThan(0);
    expect(with_! - without!).toBeLessThan(1.05 * byHand);
  });
  it('makes more of a membrane without a pump of its own', () => {
    const house = from('marineHousehold');
    const raised = withStages(house, (stages) => withNew(stages, newStage('pump', 'lift'), 'lift'));
    // The only pump ahead of the membrane is the one that feeds it.
    expect(report(raised).solved.unit!.feedPressureBar).toBeGreaterThan(report(house).solved.unit!.feedPressureBar + 1);
  });
});

describe('a housing that would see more than it holds', () => {
  it('is a hazard wherever it stands: a filter behind the high-pressure pump', () => {
    const wrong = withStages(boat, (stages) => {
      const pump = stages.find(({ kind }) => kind === 'pump')!;
      const rest = stages.filter(({ id }) => id !== pump.id);
      return [pump, ...rest];
    });
    const found = report(wrong).findings.filter(({ id }) => id.startsWith('housing-'));
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]).toMatchObject({ severity: 'bad', hazard: true });
    expect(found[0]!.why).toContain('Put the pump behind it');
    // What can hurt stands before all else.
    expect(report(wrong).findings[0]!.hazard).toBe(true);
  });
  it('says nothing of a train as it should be', () => {
    for (const template of ['marineHousehold', 'skid', 'watermaker', 'counterHard', 'vanCart'] as const)
      expect(report(from(template)).findings.filter(({ id }) => id.startsWith('housing-'))).toEqual([]);
  });
});

describe('a distribution pump', () => {
  it('gives pressure again behind an open tank', () => {
    const house = from('marineHousehold');
    const tank = house.train.stages.at(-1)!;
    expect(behind(report(house), tank.id)).toBe(0);
    const pumped = withStages(house, (stages) => withNew(stages, newStage('pump', 'out'), 'distribution'));
    expect(pumped.train.stages.at(-1)).toMatchObject({ name: 'Distribution pump' });
    expect(behind(report(pumped), 'out')).toBeGreaterThan(3);
  });
});
