import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { tapWater } from '../train';
import { sampleAnalysis } from '../train/feed';
import { hardnessOf } from '../water';
import { value } from '../testing/close';
import { answered, confirmed, isChloramineUntested, withUntestedChloramine } from './assumed';
import { withSample } from './select';
import type { System } from './schema';

const fresh = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'espressoBar', at: '2026-01-01T00:00:00Z' });
const edited = (change: (source: System['source']) => System['source']): readonly string[] =>
  answered(fresh, { ...fresh, source: change(fresh.source) }).source.assumed;

describe('what a template fills in', () => {
  it('is marked until somebody types another or confirms it, each figure by itself', () => {
    expect(fresh.source.assumed).toEqual(['reading', 'temperature', 'chlorine', 'linePressure']);
    expect(edited((source) => ({ ...source, linePressureBar: 3.1 }))).toEqual(['reading', 'temperature', 'chlorine']);
    expect(edited((source) => withSample(source, { reading: 310 }))).toEqual(['temperature', 'chlorine', 'linePressure']);
    expect(edited((source) => withSample(source, { chloramineMgL: 2 }))).toEqual(['reading', 'temperature', 'linePressure']);
    expect(edited((source) => ({ ...source, name: 'Another' }))).toHaveLength(4);
    expect(confirmed(fresh, 'temperature').source.assumed).toEqual(['reading', 'chlorine', 'linePressure']);
  });
  it('chloramine of an amount nobody tested is the usual one, and stays marked', () => {
    const untested = answered(fresh, { ...fresh, source: withUntestedChloramine(fresh.source) });
    expect(untested.source.assumed).toContain('chlorine');
    expect(isChloramineUntested(untested.source)).toBe(true);
    expect(value(tapWater(untested.source, fresh.instruments)).water.mgL.chloramine).toBe(2);
    // Tested, it is a figure like any other.
    const tested = answered(untested, { ...untested, source: withSample(untested.source, { chloramineMgL: 1.3 }) });
    expect(tested.source.assumed).not.toContain('chlorine');
    expect(isChloramineUntested(tested.source)).toBe(false);
  });
  it('a strip’s range counts as its middle, and is as doubtful as it is wide: 7 to 14 °dH', () => {
    const dH = 17.848;
    const kit = { ...fresh.source.samples[0]!.kit, hardnessMgL: 7 * dH, hardnessToMgL: 14 * dH, alkalinityMgL: 120 };
    const completed = value(tapWater(withSample(fresh.source, { way: 'kit', kit }), fresh.instruments));
    expect(hardnessOf(completed.water.mgL)).toBeCloseTo(10.5 * dH, 1);
    const analysis = value(sampleAnalysis({ ...fresh.source.samples[0]!, way: 'kit', kit }, fresh.instruments));
    expect(analysis.plusMinus?.hardnessMgL).toBeCloseTo(3.5 * dH, 9);
    expect(analysis.hardnessMgL).toBeCloseTo(10.5 * dH, 9);
  });
  it('a prefilled reading gives way to a typed hardness and alkalinity, instead of making them impossible', () => {
    const kit = { ...fresh.source.samples[0]!.kit, hardnessMgL: 420, alkalinityMgL: 360 };
    const source = withSample(fresh.source, { way: 'kit', kit });
    expect(hardnessOf(value(tapWater(source, fresh.instruments)).water.mgL)).toBeCloseTo(420, 6);
    // A reading somebody took does not.
    const taken = tapWater({ ...source, assumed: [] }, fresh.instruments);
    expect(taken.ok).toBe(false);
  });
});
