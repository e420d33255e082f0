import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { tapWater } from '../train';
import { hardnessOf } from '../water';
import { value } from '../testing/close';
import { answered, confirmed } from './assumed';
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
  it('a prefilled reading gives way to a typed hardness and alkalinity, instead of making them impossible', () => {
    const kit = { ...fresh.source.samples[0]!.kit, hardnessMgL: 420, alkalinityMgL: 360 };
    const source = withSample(fresh.source, { way: 'kit', kit });
    expect(hardnessOf(value(tapWater(source, fresh.instruments)).water.mgL)).toBeCloseTo(420, 6);
    // A reading somebody took does not.
    const taken = tapWater({ ...source, assumed: [] }, fresh.instruments);
    expect(taken.ok).toBe(false);
  });
});
