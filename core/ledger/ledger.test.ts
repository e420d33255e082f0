import { describe, expect, it } from 'vitest';
import { booksOf, reportTrain, strengthOf, yearOf } from '../advice';
import type { System } from '../file';
import { systemFromTemplate } from '../template';
import { expectWithin, value } from '../testing/close';
import { tapWater } from '../train';
import { waterCosts } from '.';

const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2026-11-23T10:00:00Z' });
const reportOf = (system: System) => {
  const tap = value(tapWater(system.source, system.instruments));
  return value(reportTrain(system, tap.water, {}, undefined, tap));
};
const withUsed = (wasteUsedShare: number): System => ({ ...base, choice: { ...base.choice, wasteUsedShare } });

describe('water in the ledger', () => {
  it('is bought by the feed and drained by the waste', () =>
    expect(waterCosts({ feedL: 5000, wasteL: 4000, usedL: 0 }, { waterPerM3: 2, sewerPerM3: 3 })).toEqual({ water: 10, sewer: 12 }));
  it('waste that is used is neither drained nor bought twice (science of options, 3)', () =>
    expect(waterCosts({ feedL: 5000, wasteL: 4000, usedL: 1000 }, { waterPerM3: 2, sewerPerM3: 3 })).toEqual({ water: 8, sewer: 9 }));
  it('half of the waste used saves half of its sewer, in the ledger and in nothing else of it', () => {
    const [none, half] = [reportOf(withUsed(0)).ledger, reportOf(withUsed(0.5)).ledger];
    expectWithin(half.lines.sewer!, none.lines.sewer! / 2, 1e-9);
    expectWithin(none.lines.water! - half.lines.water!, (half.usedL / 1000) * base.prices.waterPerM3, 1e-9);
    expect([half.wasteL, half.feedL, half.lines.resin]).toEqual([none.wasteL, none.feedL, none.lines.resin]);
    expectWithin(half.usedL, none.wasteL / 2, 1e-9);
  });
});

describe('a train that nothing comes through', () => {
  const dead: System = { ...base, source: { ...base.source, linePressureBar: 0 } };
  it('draws nothing, and its water costs nothing', () => {
    const { ledger, year } = reportOf(dead);
    expect(year.produces).toBe(false);
    expect([ledger.productL, ledger.feedL, ledger.wasteL, ledger.kWh]).toEqual([0, 0, 0, 0]);
    expect(ledger.lines.water ?? 0).toBe(0);
  });
  it('on some days of the year makes its water on the others', () => {
    // A head that the tap overcomes only while it is weak.
    const [weak, strong] = [200, 4000];
    const uneven: System = {
      ...base,
      source: { ...base.source, linePressureBar: 1.2, season: { ...base.source.season, weakestUScm: weak, strongestUScm: strong } },
    };
    const feed = value(tapWater(uneven.source, uneven.instruments)).water;
    const year = value(yearOf(uneven, feed));
    expect(year.produces).toBe(true);
    expect(year.feedPerL).toBeGreaterThan(1);
    expect(year.feedPerL).toBeLessThan(1000);
    const { ledger } = booksOf(uneven, year, {}, strengthOf(uneven, year.mean));
    expect(ledger.running).toBeLessThan(1e5);
  });
});
