import { describe, expect, it } from 'vitest';
import type { System } from '../file';
import { expectWithin, value } from '../testing/close';
import { solveTrain, tapWater } from '../train';
import { systemFromTemplate } from '../template';
import { trackResin } from './resin';
import { trainUse } from './use';

const base = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marinePair', at: '2026-01-01T00:00:00Z' });
const system: System = {
  ...base,
  train: { ...base.train, stages: base.train.stages.map((stage) => ('fittedOn' in stage ? { ...stage, fittedOn: '2026-03-01' } : stage)) },
};
describe('what each stage has been through', () => {
  const feed = value(tapWater(system.source, system.instruments)).water;
  const solved = value(solveTrain(system.train, system.source, feed));
  const use = trainUse(system, [], solved, null, '2026-03-31T00:00:00Z');
  it('filters and membrane see all feed, resin the product', () => {
    const drawn = solved.stations[0]!.flowLPerH / solved.productLPerH;
    expectWithin(use['resin-1']!.passedL!, 30 * 60, 1e-9);
    expectWithin(use['sediment']!.passedL!, 30 * 60 * drawn, 1e-9);
    expectWithin(use['membrane']!.years!, 30 / 365.25, 1e-9);
  });
  it('the second carbon is spared what the first could take', () => {
    expect(use['carbon-1']!.passedL).toBeGreaterThan(5000);
    expect(use['carbon-2']!.passedL).toBe(0);
    const later = trainUse(system, [], solved, null, '2031-03-31T00:00:00Z');
    expectWithin(later['carbon-2']!.passedL!, later['carbon-1']!.passedL! - solved.carbons[0]!.state.litresLeft!, 1e-9);
  });
  it('a stage without a date counts as new', () => {
    expect(trainUse(base, [], solved, null, '2026-03-31T00:00:00Z')).toEqual({});
  });
});

describe('a resin that takes one side alone', () => {
  it('is followed by that side, whatever the other brings', () => {
    const stages = base.train.stages.map((stage) =>
      stage.id === 'resin-1' ? { ...stage, resinClass: 'cationBed' as const, fittedOn: '2026-03-01' } : stage,
    ) as System['train']['stages'];
    const alone = { ...base, train: { ...base.train, stages } };
    const feed = value(tapWater(alone.source, alone.instruments)).water;
    const tracking = trackResin(alone, [], value(solveTrain(alone.train, alone.source, feed)), '2026-03-31T00:00:00Z')!;
    expect(tracking.limiting).toBe('cation');
    expect(tracking.remaining.p50).toBeGreaterThan(0.2);
    expect(tracking.daysLeft!.p10).toBeGreaterThan(0);
  });
});
