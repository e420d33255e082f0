import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { solveTrain, tapWater } from '../train';
import type { System, TemplateId } from '../file';
import { value } from '../testing/close';
import { figureDoubts } from './doubts';

const from = (template: TemplateId): System =>
  systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: '2026-01-01T00:00:00Z' });
const doubtsOf = (system: System) =>
  figureDoubts(value(solveTrain(system.train, system.source, value(tapWater(system.source, system.instruments)).water)));
const kit = (system: System, pH: number): System => ({
  ...system,
  source: {
    ...system.source,
    samples: system.source.samples.map((sample) => ({ ...sample, way: 'kit' as const, kit: { ...sample.kit, pH, alkalinityMgL: 80 } })),
  },
});

describe('figures whose doubt is larger than their digits', () => {
  it('the pH of polished water is a reading of the air', () => {
    expect(doubtsOf(from('marineHousehold')).map(({ after, figure, plusMinus }) => [after, figure, plusMinus])).toEqual([
      ['resin', 'pH', 0.5],
    ]);
  });
  it('behind a membrane on an alkaline feed the pH is ±1', () => {
    const found = doubtsOf(kit(from('breeder'), 9)).filter(({ plusMinus }) => plusMinus === 1);
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]!.says).toMatch(/^On a feed of pH 9\.\d the pH behind the membrane is ±1: between 8 and 9\.4 nobody measured\.$/);
    expect(doubtsOf(kit(from('breeder'), 7.4)).filter(({ plusMinus }) => plusMinus === 1)).toEqual([]);
  });
  it('the brine of a watermaker is past the published salinity scale', () => {
    const boat = from('watermaker');
    const stages = boat.train.stages.map((stage) =>
      stage.kind === 'membrane' ? { ...stage, valve: { kind: 'recovery' as const, recovery: 0.25 } } : stage,
    );
    const pumped = stages.map((stage) =>
      stage.kind === 'pump'
        ? { ...stage, pump: { kind: 'displacement' as const, flowLPerH: 400, reliefBar: 80, energyRecovery: 0 } }
        : stage,
    );
    const found = doubtsOf({ ...boat, train: { ...boat.train, stages: pumped } });
    expect(found.find(({ after }) => after === 'waste')).toMatchObject({ figure: 'ec', says: expect.stringContaining('±1 %') });
  });
});
