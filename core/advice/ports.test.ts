import { describe, expect, it } from 'vitest';
import type { System, TemplateId } from '../file';
import { systemFromTemplate } from '../template';
import { expectWithin, value } from '../testing/close';
import { solveTrain, tapWater, type SolvedTrain } from '../train';
import { settleWater } from '../water';
import { samplePorts, withPortReading } from './ports';

const made = (template: TemplateId): { system: System; solved: SolvedTrain } => {
  const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
  const { water } = value(tapWater(system.source, system.instruments));
  return { system, solved: value(solveTrain(system.train, system.source, water)) };
};

describe('sample ports', () => {
  it('two elements in series: the second works on stronger water and leaves more, and both make the product', () => {
    const { system, solved } = made('marinePair');
    const ports = samplePorts(system, solved);
    expect(ports.map(({ name }) => name)).toEqual(['Vessel 1', 'Vessel 2']);
    const [first, second] = ports.map(({ expectedUScm }) => expectedUScm);
    expect(second).toBeGreaterThan(first!);
    const product = value(settleWater(solved.unit!.permeate!)).ec25UScm;
    expect(product).toBeGreaterThan(first!);
    expect(product).toBeLessThan(second!);
  });
  it('an element alone has no port to compare', () => {
    const { system, solved } = made('marineHousehold');
    expect(samplePorts(system, solved)).toEqual([]);
  });
  it('every rank conserves what its vessels leave', () => {
    const { solved } = made('skid');
    const { ranks, permeateLPerH, permeateMmolL } = solved.unit!;
    const row = solved.unit!.ranks.map(
      ({ elements }) => elements.reduce((sum, element) => sum + element.feedLPerMin * element.recovery, 0) * 60,
    );
    const vessels = permeateLPerH / row.reduce((sum, litres) => sum + litres, 0);
    // All vessels of the template stand in one rank: their port is the product.
    if (ranks.length === 1) ranks[0]!.permeateMmolL!.forEach((mmolL, i) => expectWithin(mmolL, permeateMmolL![i]!, 1e-9));
    expect(vessels).toBeGreaterThanOrEqual(1);
  });
  it('one vessel out of line is named; all of them high together is not', () => {
    const { system, solved } = made('marinePair');
    const wide: System = {
      ...system,
      train: {
        ...system.train,
        stages: system.train.stages.map((stage) =>
          stage.kind === 'membrane' ? { ...stage, arrangement: 'array', ranks: [{ vessels: 4, elementsPerVessel: 1 }] } : stage,
        ),
      },
    };
    const { water } = value(tapWater(wide.source, wide.instruments));
    const many = value(solveTrain(wide.train, wide.source, water));
    const read = (factors: readonly number[]): string[] =>
      samplePorts(
        factors.reduce(
          (now, factor, vessel) =>
            withPortReading(now, {
              stageId: 'membrane',
              rank: 0,
              vessel,
              ec25UScm: factor * samplePorts(wide, many)[vessel]!.expectedUScm,
              at: '2026-11-23T10:00:00Z',
            }),
          wide,
        ),
        many,
      ).map(({ verdict }) => verdict);
    expect(read([1, 1.1, 3, 0.9])).toEqual(['fits', 'fits', 'high', 'fits']);
    expect(read([2, 2.1, 1.9, 2])).toEqual(['fits', 'fits', 'fits', 'fits']);
    expect(read([3])).toEqual(['high', 'unread', 'unread', 'unread']);
    expect(samplePorts(system, solved).every(({ verdict }) => verdict === 'unread')).toBe(true);
  });
  it('a new reading takes the place of the old', () => {
    const { system } = made('marinePair');
    const at = { stageId: 'membrane', rank: 0, vessel: 0, at: '2026-11-23T10:00:00Z' };
    const twice = withPortReading(withPortReading(system, { ...at, ec25UScm: 20 }), { ...at, ec25UScm: 30 });
    expect(twice.build.ports.map(({ ec25UScm }) => ec25UScm)).toEqual([30]);
  });
});
